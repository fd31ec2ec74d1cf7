"""A cloth as the rules see it: an estimate for every property, filled from what is known and what is typical."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field

from nematex.core.drape import bending_from_drape
from nematex.core.errors import UnknownChoice
from nematex.core.estimate import Estimate, Known, Range
from nematex.core.fibres import FibreContent, read_fibres
from nematex.core.lexicon import ClothType, key
from nematex.core.tables import Tables

STRUCTURES = ("woven", "knit", "net")
SHEERNESS = ("opaque", "slightly sheer", "semi-sheer", "sheer")
DIRECTIONS = ("none", "all-over", "two-way", "one-way")
# How a value counts as known where nothing else is said.
HOW_KNOWN = {
    "weight_gsm": Known.STATED,
    "width_cm": Known.STATED,
    "stretch_cross_pct": Known.STATED,
    "stretch_length_pct": Known.STATED,
    "bending_length_cm": Known.MEASURED,
    "thickness_mm": Known.MEASURED,
    "recovery_pct": Known.MEASURED,
    "drape_coefficient_pct": Known.MEASURED,
    "shrink_length_pct": Known.STATED,
    "hand": Known.JUDGED,
    "sheer": Known.JUDGED,
}


@dataclass(frozen=True, slots=True)
class Print:
    """The print: direction, motif scale and repeats in cm."""

    direction: str | None = None
    scale_cm: float | None = None
    repeat_length_cm: float | None = None
    repeat_width_cm: float | None = None


@dataclass(frozen=True)
class ClothFacts:
    """What somebody has said or measured about a cloth; None where nothing is known."""

    name: str = ""
    cloth: str | None = None
    fibres: str | None = None
    structure: str | None = None
    weight_gsm: float | None = None
    width_cm: float | None = None
    bending_length_cm: float | None = None
    hand: str | None = None
    stretch_cross_pct: float | None = None
    stretch_length_pct: float | None = None
    recovery_pct: float | None = None
    thickness_mm: float | None = None
    sheer: str | None = None
    nap: bool | None = None
    shrink_length_pct: float | None = None
    print: Print = field(default_factory=Print)
    drape_coefficient_pct: float | None = None
    deadstock: bool = False
    known: Mapping[str, str] = field(default_factory=dict)


@dataclass(frozen=True)
class Cloth:
    """Estimates for every property the checks use. Units: g/m², cm, %, mm; sheer 0–3, press 0–3."""

    name: str
    type: ClothType | None
    structure: str
    fibres: FibreContent | None
    weight: Estimate
    bend: Estimate
    stretch_cross: Estimate
    stretch_length: Estimate
    recovery: Estimate | None
    thickness: Estimate
    width: Estimate
    sheer: Estimate
    press: Range
    nap: bool
    shrink: Estimate
    print: Print
    deadstock: bool
    unread: tuple[str, ...] = ()


def _known(facts: ClothFacts, name: str) -> Known:
    word = facts.known.get(name)
    return Known.from_word(word) if word else HOW_KNOWN[name]


def _bend(facts: ClothFacts, kind: ClothType | None, structure: str, tables: Tables) -> Estimate:
    spread = tables.judging["spread"]
    if facts.bending_length_cm is not None:
        known = _known(facts, "bending_length_cm")
        half = spread["typical_drape_cm" if known is Known.TYPICAL else "judged_drape_cm"]
        return Estimate.around(facts.bending_length_cm, known, half)
    if facts.drape_coefficient_pct is not None:
        return bending_from_drape(facts.drape_coefficient_pct)
    if facts.hand is not None:
        hand = tables.cloth_hands[key(facts.hand)].bend_cm
        return Estimate(hand.low, hand.high, hand.middle, Known.JUDGED)
    if kind is None:
        return Estimate.typical(*tables.judging["any"][structure]["bend_cm"])
    return Estimate.typical(kind.bend_cm.low, kind.bend_cm.high)


def _share_estimate(value: float | None, facts: ClothFacts, name: str, typical: Range, half: tuple[float, float]) -> Estimate:
    """A value with a spread relative to itself; `half` is (judged, typical) as shares of the value."""
    if value is None:
        return Estimate.typical(typical.low, typical.high)
    known = _known(facts, name)
    return Estimate.around(value, known, value * half[1 if known is Known.TYPICAL else 0])


def _press(kind: ClothType | None, fibres: FibreContent | None, structure: str, tables: Tables) -> Range:
    """How well it takes a press, 0 not at all to 3 sharply; a synthetic version of a cotton cloth takes it badly."""
    press = float(kind.press) if kind else None
    if fibres and fibres.main:
        by_fibre = {"natural": 3.0, "regenerated": 1.5}.get(tables.fibres.by_name[fibres.main].kind, 1.0)
        if press is None:
            return Range(min(by_fibre, 1.0), by_fibre) if structure == "woven" else Range(0.0, 1.0)
        if kind and fibres.main not in kind.all_fibres:
            press = min(press, by_fibre)
    if press is None:
        return Range(0.0, 3.0) if structure == "woven" else Range(0.0, 1.0)
    return Range(press, press)


def _resolve(facts: ClothFacts, fibres: FibreContent | None, tables: Tables) -> tuple[ClothType | None, tuple[str, ...]]:
    lexicon = tables.lexicon
    if facts.cloth:
        found = lexicon.find(facts.cloth, fibres, facts.structure)
        if found is None and facts.structure is None:
            raise UnknownChoice("cloth.cloth", facts.cloth, lexicon.by_key, "cloth name")
        return found, () if found else (facts.cloth,)
    found = lexicon.find(facts.name, fibres, facts.structure) if facts.name else None
    if found is None and facts.structure is None:
        raise UnknownChoice("cloth.name", facts.name, lexicon.by_key, "cloth name, and no structure is given")
    return found, ()


def known_cloth(facts: ClothFacts, tables: Tables) -> Cloth:
    """Estimates for a cloth; raises UnknownChoice if neither its name nor its structure says what it is."""
    fibres = read_fibres(facts.fibres, tables.fibres) if facts.fibres else None
    kind, unread = _resolve(facts, fibres, tables)
    structure = facts.structure or (kind.structure if kind else "woven")
    any_of = tables.judging["any"][structure]
    same = kind is not None and kind.structure == structure
    spread = tables.judging["spread"]

    def typical(attribute: str) -> Range:
        return getattr(kind, attribute) if same else Range(*any_of[attribute])

    weight = kind.weight_gsm if kind else Range(*any_of["weight_gsm"])
    stretch = (spread["judged_stretch"], spread["typical_stretch"])
    cross = typical("stretch_cross_pct")
    if structure == "woven" and fibres and fibres.share("elastane") >= tables.judging["fibre"]["elastane_in_woven"]:
        low, high = tables.judging["fibre"]["comfort_stretch_pct"]
        cross = Range(max(cross.low, low), max(cross.high, high))
    recovery = None
    if facts.recovery_pct is not None:
        known = _known(facts, "recovery_pct")
        half = spread["typical_recovery_pct" if known is Known.TYPICAL else "judged_recovery_pct"]
        recovery = Estimate.around(facts.recovery_pct, known, half)
    if facts.sheer is not None:
        level = float(SHEERNESS.index(facts.sheer))
        sheer = Estimate(level, level, level, _known(facts, "sheer"))
    else:
        by_type = kind.sheer if kind else Range(0, 1)
        sheer = Estimate.typical(by_type.low, by_type.high)
    usual_width = kind.width_cm if kind else 140.0
    if facts.width_cm is not None:
        known = _known(facts, "width_cm")
        half = spread["typical_width_cm" if known is Known.TYPICAL else "judged_width_cm"]
        width = Estimate.around(facts.width_cm, known, half)
    else:
        width = Estimate.around(usual_width, Known.TYPICAL, spread["typical_width_cm"])
    shrink_hi = kind.shrink_hi_pct if kind else 5.0
    shrink = (
        Estimate.around(max(0.0, facts.shrink_length_pct), _known(facts, "shrink_length_pct"), 0)
        if facts.shrink_length_pct is not None
        else Estimate.typical(0, shrink_hi)
    )
    return Cloth(
        name=facts.name or facts.cloth or structure,
        type=kind,
        structure=structure,
        fibres=fibres,
        weight=_share_estimate(
            facts.weight_gsm, facts, "weight_gsm", weight, (spread["judged_weight"], spread["typical_weight"])
        ),
        bend=_bend(facts, kind if same else None, structure, tables),
        stretch_cross=_share_estimate(facts.stretch_cross_pct, facts, "stretch_cross_pct", cross, stretch),
        stretch_length=_share_estimate(
            facts.stretch_length_pct, facts, "stretch_length_pct", typical("stretch_length_pct"), stretch
        ),
        recovery=recovery,
        thickness=_share_estimate(
            facts.thickness_mm,
            facts,
            "thickness_mm",
            kind.thickness_mm if kind else Range(*any_of["thickness_mm"]),
            (spread["judged_thickness"], spread["typical_thickness"]),
        ),
        width=width,
        sheer=sheer,
        press=_press(kind, fibres, structure, tables),
        nap=facts.nap if facts.nap is not None else bool(kind and kind.nap),
        shrink=shrink,
        print=facts.print,
        deadstock=facts.deadstock,
        unread=unread,
    )
