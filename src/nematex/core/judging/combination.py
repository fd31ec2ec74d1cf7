"""Cloths of one garment beside each other: weight, shrinkage, care, and stretch at the seam they share.

Mixed fabrics should be close in weight, shrink alike and wash alike. Common practice, no source; limits are in
data/judging.toml. Each cloth's own fitness for its part is judged elsewhere; here they are only held together.
"""

from __future__ import annotations

from dataclasses import dataclass

from nematex.core.cloth.estimates import Cloth
from nematex.core.judging.verdict import Verdict
from nematex.core.quantity.estimate import Known
from nematex.core.rules.reckoning import Combination
from nematex.core.tables import Tables

PROTEIN = ("wool", "silk", "mohair", "alpaca", "cashmere", "camel")


@dataclass(frozen=True, slots=True)
class PartCloth:
    """A cloth on its part: the part's name and how it sits."""

    part: str
    fit: str
    cloth: Cloth


@dataclass(frozen=True, slots=True)
class Joint:
    """What was found between two parts in one respect."""

    respect: str
    parts: tuple[str, str]
    verdict: Verdict
    reason: str
    remedy: str


def _by_limits(value: float, suits: float, care: float) -> Verdict:
    return Verdict.SUITS if value <= suits else Verdict.WITH_CARE if value <= care else Verdict.AGAINST


def _weight(one: PartCloth, other: PartCloth, rule: Combination) -> Joint:
    light, heavy = sorted((one, other), key=lambda each: each.cloth.weight.best)
    ratio = heavy.cloth.weight.best / light.cloth.weight.best
    verdict = _by_limits(ratio, rule.weight_suits, rule.weight_care)
    if "free" in (one.fit, other.fit):
        verdict = min(verdict, Verdict.WITH_CARE)
    said = f"{heavy.cloth.weight.best:.0f} g/m² on the {heavy.part} and {light.cloth.weight.best:.0f} on the {light.part}"
    if verdict is Verdict.SUITS:
        return Joint("weight", (one.part, other.part), verdict, f"Close in weight: {said}.", "")
    remedy = f"Let the heavier cloth carry the seam: face or tape the {light.part} where they meet."
    return Joint("weight", (one.part, other.part), verdict, f"Apart in weight: {said}, {ratio:.1f} times as heavy.", remedy)


def _shrink(one: PartCloth, other: PartCloth, rule: Combination) -> Joint:
    parts = (one.part, other.part)
    apart = abs(one.cloth.shrink.best - other.cloth.shrink.best)
    said = ", ".join(f"{each.part} {each.cloth.shrink.low:.0f} to {each.cloth.shrink.high:.0f} %" for each in (one, other))
    wash = "Wash and dry both lengths before you cut."
    if min(one.cloth.shrink.known, other.cloth.shrink.known) >= Known.STATED:
        verdict = _by_limits(apart, rule.shrink_suits_pct, rule.shrink_care_pct)
        said = f"{one.part} {one.cloth.shrink.best:g} %, {other.part} {other.cloth.shrink.best:g} %"
        lead = "Shrink alike" if verdict is Verdict.SUITS else "Shrink differently"
        return Joint("shrinkage", parts, verdict, f"{lead}: {said}.", "" if verdict is Verdict.SUITS else wash)
    most = max(one.cloth.shrink.high, other.cloth.shrink.high)
    if most <= rule.shrink_care_pct:
        return Joint("shrinkage", parts, Verdict.SUITS, f"Neither shrinks much: {said}, typical for the names.", "")
    return Joint("shrinkage", parts, Verdict.WITH_CARE, f"May shrink differently, nobody measured it: {said}.", wash)


def _fibre_of(cloth: Cloth) -> set[str]:
    if cloth.fibres and cloth.fibres.shares:
        return {name for name, share in cloth.fibres.shares.items() if share >= 0.1}
    return set(cloth.type.fibres[0]) if cloth.type and cloth.type.fibres else set()


def _care(one: PartCloth, other: PartCloth) -> Joint:
    parts = (one.part, other.part)
    gentle = [bool(_fibre_of(each.cloth) & set(PROTEIN)) for each in (one, other)]
    if gentle[0] == gentle[1]:
        return Joint("care", parts, Verdict.SUITS, "Wash alike.", "")
    which = (one if gentle[0] else other).part
    return Joint(
        "care",
        parts,
        Verdict.WITH_CARE,
        f"The {which} is wool or silk and wants a gentler wash than the rest.",
        "Wash the whole by the gentler cloth, and say so.",
    )


def _seam(one: PartCloth, other: PartCloth, rule: Combination) -> Joint:
    """Where one side stretches and the other does not, the seam can only give as much as the firmer side."""
    parts = (one.part, other.part)
    firm, stretchy = sorted((one, other), key=lambda each: each.cloth.stretch_cross.best)
    apart = stretchy.cloth.stretch_cross.best - firm.cloth.stretch_cross.best
    said = f"{stretchy.part} {stretchy.cloth.stretch_cross.best:.0f} %, {firm.part} {firm.cloth.stretch_cross.best:.0f} %"
    if apart <= rule.stretch_suits_pct:
        return Joint("stretch at the seam", parts, Verdict.SUITS, f"Stretch alike where they are joined: {said}.", "")
    close = stretchy.fit in ("close", "semi") and firm.fit in ("close", "semi")
    verdict = Verdict.AGAINST if close and apart > rule.stretch_care_pct else Verdict.WITH_CARE
    remedy = (
        f"Keep the seam off the places that must stretch, or choose a stretchier cloth for the {firm.part}."
        if verdict is Verdict.AGAINST
        else f"Ease the {firm.part} on without pulling, and sew the seam with a stretch stitch or tape it."
    )
    return Joint("stretch at the seam", parts, verdict, f"The seam gives only as much as the firmer side: {said}.", remedy)


def joints(parts: list[PartCloth], tables: Tables) -> list[Joint]:
    """Every pair of parts that differ in cloth, in every respect; the first part is what the others are joined to."""
    rule = tables.judging.combination
    found = []
    for other in parts[1:]:
        one = parts[0]
        if other.cloth == one.cloth:
            continue
        found += [_weight(one, other, rule), _shrink(one, other, rule), _care(one, other), _seam(one, other, rule)]
    return found
