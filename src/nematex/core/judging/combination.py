"""Cloths of one garment beside each other: weight, shrinkage, care, and stretch at the seam they share.

Mixed fabrics should be close in weight, shrink alike and wash alike. Common practice, no source; limits are in
data/judging.toml. Each cloth's own fitness for its part is judged elsewhere; here they are only held together.
"""

from __future__ import annotations

from dataclasses import dataclass

from nematex.core.cloth.estimates import Cloth
from nematex.core.cloth.fibres import WOOLS
from nematex.core.judging.verdict import Verdict
from nematex.core.quantity.estimate import Known
from nematex.core.rules.reckoning import Combination
from nematex.core.tables import Tables

PROTEIN = WOOLS | {"silk"}


@dataclass(frozen=True, slots=True)
class PartCloth:
    """A cloth on its part: the part's name and how it sits."""

    part: str
    fit: str
    cloth: Cloth


@dataclass(frozen=True, slots=True)
class Joint:
    """What was found between two parts in one respect: `first` is the heavier, firmer or gentler side of the two."""

    respect: str
    parts: tuple[str, str]
    verdict: Verdict
    case: str
    first: PartCloth
    second: PartCloth

    @property
    def times_as_heavy(self) -> float:
        return self.first.cloth.weight.best / self.second.cloth.weight.best


def _by_limits(value: float, suits: float, care: float) -> Verdict:
    return Verdict.SUITS if value <= suits else Verdict.WITH_CARE if value <= care else Verdict.AGAINST


def _weight(one: PartCloth, other: PartCloth, rule: Combination) -> Joint:
    light, heavy = sorted((one, other), key=lambda each: each.cloth.weight.best)
    verdict = _by_limits(heavy.cloth.weight.best / light.cloth.weight.best, rule.weight_suits, rule.weight_care)
    if "free" in (one.fit, other.fit):
        verdict = min(verdict, Verdict.WITH_CARE)
    case = "close" if verdict is Verdict.SUITS else "apart"
    return Joint("weight", (one.part, other.part), verdict, case, heavy, light)


def _shrink(one: PartCloth, other: PartCloth, rule: Combination) -> Joint:
    if min(one.cloth.shrink.known, other.cloth.shrink.known) >= Known.STATED:
        apart = abs(one.cloth.shrink.best - other.cloth.shrink.best)
        verdict = _by_limits(apart, rule.shrink_suits_pct, rule.shrink_care_pct)
        case = "alike" if verdict is Verdict.SUITS else "differently"
    elif max(one.cloth.shrink.high, other.cloth.shrink.high) <= rule.shrink_care_pct:
        verdict, case = Verdict.SUITS, "little"
    else:
        verdict, case = Verdict.WITH_CARE, "unmeasured"
    return Joint("shrinkage", (one.part, other.part), verdict, case, one, other)


def _fibre_of(cloth: Cloth) -> set[str]:
    if cloth.fibres and cloth.fibres.shares:
        return {name for name, share in cloth.fibres.shares.items() if share >= 0.1}
    return set(cloth.type.fibres[0]) if cloth.type and cloth.type.fibres else set()


def _care(one: PartCloth, other: PartCloth) -> Joint:
    gentle = [bool(_fibre_of(each.cloth) & PROTEIN) for each in (one, other)]
    alike = gentle[0] == gentle[1]
    first, second = (one, other) if alike or gentle[0] else (other, one)
    verdict, case = (Verdict.SUITS, "alike") if alike else (Verdict.WITH_CARE, "gentler")
    return Joint("care", (one.part, other.part), verdict, case, first, second)


def _is_band(side: PartCloth, tables: Tables) -> bool:
    kind = tables.parts.find(side.part)
    return bool(kind and kind.band)


def _seam(one: PartCloth, other: PartCloth, tables: Tables) -> Joint:
    """Where one side stretches and the other does not, the seam can only give as much as the firmer side.

    A band is cut short and stretched on: it should give more than what it holds.
    """
    rule = tables.judging.combination
    firm, stretchy = sorted((one, other), key=lambda each: each.cloth.stretch_cross.best)
    apart = stretchy.cloth.stretch_cross.best - firm.cloth.stretch_cross.best
    if _is_band(stretchy, tables) and apart > rule.stretch_suits_pct:
        return Joint("stretch at the seam", (one.part, other.part), Verdict.SUITS, "band", firm, stretchy)
    close = stretchy.fit in ("close", "semi") and firm.fit in ("close", "semi")
    if apart <= rule.stretch_suits_pct:
        verdict, case = Verdict.SUITS, "alike"
    elif close and apart > rule.stretch_care_pct:
        verdict, case = Verdict.AGAINST, "too_firm"
    else:
        verdict, case = Verdict.WITH_CARE, "firmer"
    return Joint("stretch at the seam", (one.part, other.part), verdict, case, firm, stretchy)


def joints(parts: list[PartCloth], tables: Tables) -> list[Joint]:
    """Every pair of parts that differ in cloth, in every respect; the first part is what the others are joined to."""
    rule = tables.judging.combination
    found = []
    for other in parts[1:]:
        one = parts[0]
        if other.cloth == one.cloth:
            continue
        found += [_weight(one, other, rule), _shrink(one, other, rule), _care(one, other), _seam(one, other, tables)]
    return found
