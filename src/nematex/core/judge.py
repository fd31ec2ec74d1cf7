"""The one place that decides suitability: n cloths against one demand.

The whole is as good as its worst check. Every page, ranking and command asks here; one cloth is a shelf of one.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

import numpy as np
import numpy.typing as npt

from nematex.core.checks import CHECKS
from nematex.core.checks.finding import Bench, Finding
from nematex.core.cloth import Cloth
from nematex.core.columns import ClothColumns
from nematex.core.demand import Demand
from nematex.core.estimate import Known
from nematex.core.tables import Tables
from nematex.core.verdict import Codes, Column, Floats, Verdict, Window

NAMES = tuple(CHECKS)
QUARTER = 25.0  # of 0 to 100 belong to each verdict; data/judging.toml says what ranks first within it


@dataclass(frozen=True)
class CheckAnswer:
    """One check of one pairing. The margin is in the unit of the check; None where it has no number.

    `window` is the one to draw, `rule` what decided, `decided_by` its own window if it has one.
    """

    verdict: Verdict
    margin: float | None
    reason: str
    remedy: str
    window: Window | None
    rule: str = ""
    decided_by: Window | None = None


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
        part, look = self.tables.judging["score"], self.tables.judging["look"][self.demand.wish.look]
        drape = _closeness(self.cloths.bend, self._windows("drape"), look["share"], (look["aim_cm"], part["halfway_cm"]))
        weight = _closeness(self.cloths.weight, self._windows("weight"), 0.5, None)
        known = (self.cloths.weight.known + self.cloths.bend.known) / (2.0 * Known.MEASURED)
        clean = np.mean([codes == Verdict.SUITS for codes in self.checks.values()], axis=0)
        within = part["look"] * drape + part["weight"] * weight + part["known"] * known
        within = within + part["clean"] * clean + part["named"] * self.named
        within = np.where(self.cloths.used_for("occasion"), within * part["occasion"], within)
        score: Floats = QUARTER * (Verdict.AGAINST - self.verdict) + (QUARTER - 0.1) * np.clip(within, 0, 1)
        return score

    def _windows(self, check: str) -> tuple[Window | None, Window | None]:
        """The check's list window for a woven and for a knit."""
        demand = self.demand
        windows = demand.bend if check == "drape" else demand.weight
        return demand.window(windows, "woven"), demand.window(windows, "knit")

    def order(self) -> npt.NDArray[np.intp]:
        """Best first; ties in the order of the shelf."""
        return np.argsort(-self.score, kind="stable")

    def window(self, check: str, cloth: Cloth) -> Window | None:
        """The window to draw for a check: the list's where there is one, else the worst finding's."""
        found = [f.window for f in self.findings[check] if f.window and f.rule.endswith(("list", "number"))]
        if check in ("weight", "drape") and found:
            woven, knit = self._windows(check)
            return knit if cloth.structure == "knit" else woven
        every = [finding.window for finding in self.findings[check] if finding.window]
        return every[0] if every else None

    def explain(self, check: str, cloth: Cloth, at: int = 0) -> CheckAnswer:
        """The check's verdict on cloth number `at`, with its reason and every remedy."""
        found = self.findings[check]
        codes = [int(finding.verdict[at]) for finding in found]
        worst = Verdict(max(codes))
        if worst is Verdict.SUITS:
            speaking = [f for f in found if _speaks(f, at)] or found
            deciding = next((f for f in speaking if f.window), speaking[0])  # a number says more than a word
            reason, *remedies = deciding.say(cloth, worst)
        else:
            said = [f.say(cloth, Verdict(code)) if code else ("", "") for f, code in zip(found, codes, strict=True)]
            deciding, reason = found[codes.index(worst)], said[codes.index(worst)][0]
            remedies = [remedy for _, remedy in said]
        margins = [f.margin[at] for f in found if f.window and np.isfinite(f.margin[at]) and f.rule[:4] != "bulk"]
        margin = round(float(min(margins)), 2) if margins else None
        return CheckAnswer(
            worst,
            margin,
            reason,
            " ".join(dict.fromkeys(remedy for remedy in remedies if remedy)),
            deciding.window or self.window(check, cloth),
            deciding.rule,
            deciding.window,
        )


def _speaks(finding: Finding, at: int) -> bool:
    """A finding that does not concern this cloth has nothing to say about it when all is well."""
    return finding.window is None or bool(np.isfinite(finding.margin[at]))


def _closeness(
    column: Column, windows: tuple[Window | None, Window | None], share: float, aim: tuple[float, float] | None
) -> Floats:
    """1 at the target, falling to about 0.37 half a window away; 0.5 where nothing is aimed at."""
    parts = []
    for window in windows:
        target = window.target(share) if window else None
        if window is None or target is None:
            unaimed = np.full(len(column.best), 0.5)
            parts.append(unaimed if aim is None else np.exp(-(((column.best - aim[0]) / aim[1]) ** 2)))
            continue
        half = max((window.high - window.low) / 2, 1e-6)
        parts.append(np.exp(-(((column.best - target) / half) ** 2)))
    return parts[0] if windows[0] is windows[1] else np.maximum(parts[0], parts[1])


def judge(cloths: ClothColumns, demand: Demand, tables: Tables) -> Judgement:
    """Hold n cloths against one demand."""
    bench = Bench(cloths, demand, tables)
    findings = {name: check(bench) for name, check in CHECKS.items()}
    checks = {name: np.maximum.reduce([finding.verdict for finding in found]) for name, found in findings.items()}
    return Judgement(cloths, demand, findings, checks, np.maximum.reduce(list(checks.values())), bench.named, tables)
