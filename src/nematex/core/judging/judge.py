"""The one place that decides suitability: n cloths against one demand.

The whole is as good as its worst check. Every page, ranking and command asks here; one cloth is a shelf of one.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any

import numpy as np
import numpy.typing as npt
from propcache.api import cached_property

from nematex.core.cloth.columns import ClothColumns
from nematex.core.cloth.estimates import Cloth
from nematex.core.judging.checks import CHECKS
from nematex.core.judging.checks.finding import OF_THE_ENVELOPE, Comparison, Finding, Rule
from nematex.core.judging.demand import Demand
from nematex.core.judging.saying.moment import Moment
from nematex.core.judging.saying.say import say
from nematex.core.judging.verdict import AGAINST, SUITS, Verdict, Window
from nematex.core.quantity.arrays import Codes, Column, Floats, Mask
from nematex.core.quantity.elementwise import at, maximum, minimum, where, worst
from nematex.core.quantity.estimate import MEASURED, STATED
from nematex.core.quantity.said import Units
from nematex.core.tables import Tables

NAMES = tuple(CHECKS)
QUARTER = 25.0  # of 0 to 100 belong to each verdict; data/judging.toml says what ranks first within it


@dataclass(frozen=True)
class CheckAnswer:
    """One check of one pairing. The margin is in the unit of the check; None where it has no number.

    `window` is the one to draw, `decided` the finding that spoke, on this cloth.
    """

    verdict: Verdict
    margin: float | None
    reason: str
    remedy: str
    window: Window | None
    decided: Moment


# A child's safety comes before all, then what cannot be got into, then what the envelope or the garment refuses.
_GRAVITY = dict.fromkeys(
    (
        Rule.STRUCTURE, Rule.LEAST_STRETCH, Rule.LEAST_STRETCH_ALONG, Rule.STRETCH_OF_LIST, Rule.STRETCH_BY_EASE,
        Rule.STRETCH_DETAIL, Rule.BAND,
    ),
    2,
) | dict.fromkeys((Rule.RULED_OUT, Rule.REFUSED), 1) | {Rule.FLAME: 3}  # fmt: skip


def gravest_first(checks: Mapping[str, CheckAnswer]) -> list[tuple[str, CheckAnswer]]:
    """The checks with their names, the worst verdict first, and of one verdict the gravest reason: it speaks for the whole."""
    return sorted(checks.items(), key=lambda item: (-item[1].verdict, -_GRAVITY.get(item[1].decided.finding.rule, 0)))


@dataclass(frozen=True)
class Judgement:
    """Verdicts and scores of n cloths, with the findings they came from."""

    cloths: ClothColumns
    demand: Demand
    findings: dict[str, list[Finding]]
    checks: dict[str, Codes]
    verdict: Codes
    named: npt.NDArray[np.bool_]
    tables: Tables

    @cached_property
    def score(self) -> Floats:
        """0 to 100: the verdict's quarter, and within it look, weight, how well known, and being on the list."""
        part, look = self.tables.judging.score, self.tables.judging.look[self.demand.wish.look]
        drape = _closeness(self.cloths.bending_length, self._windows("drape"), look.share, (look.aim_cm, part.halfway_cm))
        weight = _closeness(self.cloths.weight, self._windows("weight"), 0.5, None)
        sure = (maximum(each.known, 0) for each in (self.cloths.weight, self.cloths.bending_length))
        known = sum(sure) / (2.0 * MEASURED)
        clean = sum(where(codes == SUITS, 1.0, 0.0) for codes in self.checks.values()) / len(self.checks)
        within = part.look * drape + part.weight * weight + part.known * known
        within = within + part.clean * clean + part.named * self.named
        within = where(self.cloths.used_for("occasion"), within * part.occasion, within)
        within = where(self._by_name_alone, within * part.by_name_alone, within)
        score: Floats = QUARTER * (AGAINST - self.verdict) + (QUARTER - 0.1) * minimum(maximum(within, 0.0), 1.0)
        return score

    @property
    def _by_name_alone(self) -> Mask:
        """Of which nothing is known but what it is called."""
        found: Mask = (self.cloths.weight.known < STATED) & (self.cloths.main_fibre < 0)
        return found

    def verdict_of(self, place: int) -> Verdict:
        """The verdict on cloth number `place`."""
        return Verdict(int(at(self.verdict, place)))

    def score_of(self, place: int) -> float:
        """The score of cloth number `place`."""
        return float(at(self.score, place))

    def _windows(self, check: str) -> tuple[Window | None, Window | None]:
        """The check's list window for a woven and for a knit."""
        demand = self.demand
        windows = demand.bending_length if check == "drape" else demand.weight
        return demand.window(windows, "woven"), demand.window(windows, "knit")

    def order(self) -> npt.NDArray[np.intp]:
        """Best first; ties in the order of the shelf."""
        return np.argsort(-self.score, kind="stable")

    def window(self, check: str, cloth: Cloth) -> Window | None:
        """The window to draw for a check: the list's where there is one, else the worst finding's."""
        asked = [f.window for f in self.findings[check] if f.window and f.rule in OF_THE_ENVELOPE]
        if check in ("weight", "drape") and asked:
            woven, knit = self._windows(check)
            return (knit if cloth.structure == "knit" else woven) or asked[0]
        return next((finding.window for finding in self.findings[check] if finding.window), None)

    def explain(self, check: str, cloth: Cloth, place: int = 0, units: Units = Units.METRIC) -> CheckAnswer:
        """The check's verdict on cloth number `place`, with its reason and every remedy."""
        moments = [
            Moment(finding, cloth, Verdict(int(at(finding.verdict, place))), self.demand, self.tables, units)
            for finding in self.findings[check]
        ]
        decisive = max(moment.verdict for moment in moments)
        if decisive is SUITS:
            speaking = [moment for moment in moments if moment.finding.speaks(place)] or moments
            decided = next((moment for moment in speaking if moment.finding.window), speaking[0])  # a number says more
            said = [say(decided)]
        else:
            open_ones = [moment for moment in moments if moment.verdict is not SUITS]
            decided = next(moment for moment in open_ones if moment.verdict is decisive)
            said = [say(decided), *(say(moment) for moment in open_ones)]
        remedies = dict.fromkeys(words.remedy for words in (said[1:] or said) if words.remedy)
        window = decided.finding.window or self.window(check, cloth)
        decided = replace(decided, finding=decided.finding.alone(place))
        return CheckAnswer(decisive, self._margin(check, place), said[0].reason, " ".join(remedies), window, decided)

    def _margin(self, check: str, place: int) -> float | None:
        """The least margin in the check's own unit; bulk is in another."""
        margins = [
            at(finding.margin, place)
            for finding in self.findings[check]
            if finding.rule is not Rule.BULK and finding.window and finding.speaks(place)
        ]
        return round(float(min(margins)), 2) if margins else None


def _closeness(
    column: Column, windows: tuple[Window | None, Window | None], share: float, aim: tuple[float, float] | None
) -> Floats:
    """1 at the target, falling to about 0.37 half a window away; 0.5 where nothing is aimed at."""
    parts: list[Any] = []
    for window in windows:
        target = window.target(share) if window else None
        if window is None or target is None:
            parts.append(0.5 if aim is None else np.exp(-(((column.best - aim[0]) / aim[1]) ** 2)))
            continue
        half = max((window.high - window.low) / 2, 1e-6)
        parts.append(np.exp(-(((column.best - target) / half) ** 2)))
    nearer: Floats = parts[0] if windows[0] is windows[1] else maximum(parts[0], parts[1])
    return nearer


def judge(cloths: ClothColumns, demand: Demand, tables: Tables) -> Judgement:
    """Hold n cloths against one demand; a `single` one by plain numbers, in a fifth of the time."""
    comparison = Comparison(cloths, demand, tables)
    findings = {name: check(comparison) for name, check in CHECKS.items()}
    checks = {name: worst(finding.verdict for finding in found) for name, found in findings.items()}
    return Judgement(cloths, demand, findings, checks, worst(checks.values()), comparison.named, tables)
