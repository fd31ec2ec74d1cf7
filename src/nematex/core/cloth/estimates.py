"""A cloth as the rules see it: an estimate for every property, filled from what is known and what is typical."""

from __future__ import annotations

from dataclasses import dataclass

from nematex.core.cloth.facts import SHEERNESS, ClothFacts, Print
from nematex.core.cloth.fibres import WOOLS, FibreContent, read_fibres
from nematex.core.cloth.lexicon import ClothType, key
from nematex.core.cloth.measuring.drape_coefficient import bending_from_drape
from nematex.core.errors import UnknownChoice
from nematex.core.quantity.estimate import Estimate, Known, Range
from nematex.core.rules.comparing import Hand
from nematex.core.tables import Tables


@dataclass(frozen=True)
class Cloth:
    """What was written down, and estimates for every property the checks use. Units: g/m², cm, %, mm; sheer 0–3, press 0–3."""

    name: str
    facts: ClothFacts
    type: ClothType | None
    structure: str
    fibres: FibreContent | None
    weight: Estimate
    bending_length: Estimate
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
    follow_print: bool | None = None  # whether its one-way print is kept to; None: nobody has said
    cut_step_cm: float | None = None  # how it is cut, where it is cut otherwise than the shop's rule
    least_cut_cm: float | None = None
    guessed: bool = False  # whether it is woven or knit: both bear its name, or nothing says what it is

    @property
    def is_wool(self) -> bool:
        """By the label, else where its kind is made of nothing else: wool is steamed and never washed first."""
        if self.fibres and self.fibres.main:
            return self.fibres.main in WOOLS
        return bool(self.type and self.type.all_fibres <= WOOLS)

    @property
    def sheerness(self) -> str:
        """How much shows through, in the trade's word."""
        return SHEERNESS[round(self.sheer.best)]


@dataclass(frozen=True)
class _Label:
    """What is said of a cloth, and what its name and fibres make of it."""

    facts: ClothFacts
    kind: ClothType | None
    structure: str
    fibres: FibreContent | None
    tables: Tables

    @property
    def alike(self) -> ClothType | None:
        """The lexicon's row, if it is of the structure that is said: a knit called 'linen' does not stretch as linen."""
        return self.kind if self.kind and self.kind.structure == self.structure else None

    def typical(self, attribute: str) -> Range:
        """What is typical of its name, else of its structure, in a quantity that hangs on the structure."""
        found: Range = getattr(self.alike or self.tables.judging.any[self.structure], attribute)
        return found

    def usual(self, attribute: str) -> Range:
        """What is typical of its name whatever its structure, else of its structure."""
        found: Range = getattr(self.kind or self.tables.judging.any[self.structure], attribute)
        return found

    def known(self, name: str) -> Known:
        word = self.facts.known.get(name)
        return Known.from_word(word) if word else self.tables.properties[name].known or Known.STATED

    def around(self, value: float, name: str, judged: float, typical: float) -> Estimate:
        """A single value with the half-width that belongs to how it is known, in its own unit."""
        known = self.known(name)
        return Estimate.around(value, known, typical if known is Known.TYPICAL else judged)


def _of_share(label: _Label, value: float | None, name: str, usual: Range, spread: tuple[float, float]) -> Estimate:
    """A value whose half-width is a share of itself, (judged, typical)."""
    if value is None:
        return Estimate.typical(usual.low, usual.high)
    return label.around(value, name, value * spread[0], value * spread[1])


def narrowed(own: Range, hand: Range, rule: Hand) -> Range:
    """Of a cloth's own range in cm the end that a hand word means: a crisp lawn is crisp for a lawn, no taffeta."""
    low, high = max(own.low, hand.low), min(own.high, hand.high)
    if high - low >= rule.least_share * (own.high - own.low):
        return Range(low, high)
    end = rule.end_share * (own.high - own.low)
    if hand.middle > own.middle:
        return Range(own.high - end, own.high + rule.beyond_cm)
    return Range(own.low - rule.beyond_cm, own.low + end)


def _bend(label: _Label) -> Estimate:
    facts, tables = label.facts, label.tables
    spread = tables.judging.spread
    if facts.bending_length_cm is not None:
        return label.around(facts.bending_length_cm, "bending_length_cm", spread.judged_drape_cm, spread.typical_drape_cm)
    if facts.drape_coefficient_pct is not None:
        return bending_from_drape(facts.drape_coefficient_pct)
    if facts.hand is not None:
        hand = tables.cloth_hands[key(facts.hand)].bend_cm
        felt = narrowed(label.alike.bend_cm, hand, tables.judging.hand) if label.alike else hand
        return Estimate(felt.low, felt.high, felt.middle, Known.JUDGED)
    usual = label.typical("bend_cm")
    return Estimate.typical(usual.low, usual.high)


def _stretch_cross(label: _Label) -> Estimate:
    """Across; a woven with elastane has comfort stretch where nobody measured it."""
    rules, usual = label.tables.judging, label.typical("stretch_cross_pct")
    elastane = label.fibres.share("elastane") if label.fibres else 0.0
    if label.structure == "woven" and label.fibres and elastane >= rules.fibre.elastane_in_woven:
        comfort = rules.fibre.comfort_stretch_pct
        usual = Range(max(usual.low, comfort.low), max(usual.high, comfort.high))
    spread = (rules.spread.judged_stretch, rules.spread.typical_stretch)
    return _of_share(label, label.facts.stretch_cross_pct, "stretch_cross_pct", usual, spread)


def _stretch_length(label: _Label) -> Estimate:
    spread, usual = label.tables.judging.spread, label.typical("stretch_length_pct")
    shares = (spread.judged_stretch, spread.typical_stretch)
    return _of_share(label, label.facts.stretch_length_pct, "stretch_length_pct", usual, shares)


def _recovery(label: _Label) -> Estimate | None:
    value, spread = label.facts.recovery_pct, label.tables.judging.spread
    if value is None:
        return None
    return label.around(value, "recovery_pct", spread.judged_recovery_pct, spread.typical_recovery_pct)


def _weight(label: _Label) -> Estimate:
    spread = label.tables.judging.spread
    shares = (spread.judged_weight, spread.typical_weight)
    return _of_share(label, label.facts.weight_gsm, "weight_gsm", label.usual("weight_gsm"), shares)


def _thickness(label: _Label) -> Estimate:
    spread = label.tables.judging.spread
    shares = (spread.judged_thickness, spread.typical_thickness)
    return _of_share(label, label.facts.thickness_mm, "thickness_mm", label.usual("thickness_mm"), shares)


def _sheer(label: _Label) -> Estimate:
    if label.facts.sheer is not None:
        level = float(SHEERNESS.index(label.facts.sheer))
        return Estimate(level, level, level, label.known("sheer"))
    usual = label.kind.sheer if label.kind else Range(0, 1)
    weight = label.facts.weight_gsm
    if label.kind and weight is not None and not label.kind.weight_gsm.low < weight < label.kind.weight_gsm.high:
        level = usual.high if weight <= label.kind.weight_gsm.low else usual.low  # the heaviest of its kind shows least
        return Estimate.typical(level, level)
    return Estimate.typical(usual.low, usual.high)


def _width(label: _Label) -> Estimate:
    spread = label.tables.judging.spread
    if label.facts.width_cm is not None:
        return label.around(label.facts.width_cm, "width_cm", spread.judged_width_cm, spread.typical_width_cm)
    usual = label.kind.width_cm if label.kind else label.tables.judging.width.usual_cm
    return Estimate.around(usual, Known.TYPICAL, spread.typical_width_cm)


def _shrink(label: _Label) -> Estimate:
    value = label.facts.shrink_length_pct
    if value is not None:
        return Estimate.around(max(0.0, value), label.known("shrink_length_pct"), 0)
    return Estimate.typical(0, label.kind.shrink_hi_pct if label.kind else label.tables.judging.cautions.shrinks_from_pct)


def _press(label: _Label) -> Range:
    """How well it takes a press, 0 not at all to 3 sharply; a synthetic version of a cotton cloth takes it badly."""
    kind, fibres, woven = label.kind, label.fibres, label.structure == "woven"
    press = float(kind.press) if kind else None
    if fibres and fibres.main:
        by_fibre = {"natural": 3.0, "regenerated": 1.5}.get(label.tables.fibres.by_name[fibres.main].kind, 1.0)
        if press is None:
            return Range(min(by_fibre, 1.0), by_fibre) if woven else Range(0.0, 1.0)
        if kind and fibres.main not in kind.all_fibres:
            press = min(press, by_fibre)
    if press is None:
        return Range(0.0, 3.0) if woven else Range(0.0, 1.0)
    return Range(press, press)


def _resolve(facts: ClothFacts, fibres: FibreContent | None, tables: Tables) -> tuple[ClothType | None, tuple[str, ...]]:
    """The lexicon's row for what the cloth is called, and the words that none was found for."""
    lexicon = tables.lexicon
    said = facts.cloth or facts.name
    found = lexicon.find(said, fibres, facts.structure) if said else None
    return found, (facts.cloth,) if facts.cloth and found is None else ()


def _by_stretch(facts: ClothFacts, kind: ClothType | None, tables: Tables) -> tuple[ClothType | None, bool]:
    """Of namesakes among wovens and knits the one that stretches so far; and whether it remains a guess."""
    bearers = tables.lexicon.namesakes(facts.cloth or facts.name)
    if kind is None or facts.structure or facts.fibres or not bearers:
        return kind, False
    if facts.stretch_cross_pct is None:
        return kind, True
    knit = facts.stretch_cross_pct > tables.judging.fibre.comfort_stretch_pct.high
    return next((each for each in (kind, *bearers) if (each.structure == "knit") == knit), kind), False


def likely_structure(facts: ClothFacts, tables: Tables) -> str:
    """Of a cloth of which nothing says how it is made: what stretches more than a woven does is a knit."""
    stretches = (facts.stretch_cross_pct or 0) > tables.judging.fibre.comfort_stretch_pct.high
    return "knit" if stretches or facts.stretch_length_pct else "woven"


def known_cloth(facts: ClothFacts, tables: Tables) -> Cloth:
    """Estimates for a cloth; raises UnknownChoice if neither its name nor its structure says what it is."""
    found = placed_cloth(facts, tables)
    if found.type is None and facts.structure is None:
        field, kind = ("cloth", "cloth name") if facts.cloth else ("name", "cloth name, and no structure is given")
        raise UnknownChoice(f"cloth.{field}", facts.cloth or facts.name, tables.lexicon.by_key, kind)
    return found


def placed_cloth(facts: ClothFacts, tables: Tables) -> Cloth:
    """Estimates for any cloth; of one that nothing places the structure is a guess, and nothing is proven by it."""
    fibres = read_fibres(facts.fibres, tables.fibres) if facts.fibres else None
    kind, unread = _resolve(facts, fibres, tables)
    kind, guessed = _by_stretch(facts, kind, tables)
    guessed = guessed or (kind is None and facts.structure is None)
    structure = facts.structure or (kind.structure if kind else likely_structure(facts, tables))
    label = _Label(facts, kind, structure, fibres, tables)
    return Cloth(
        name=facts.name or facts.cloth or structure,
        facts=facts,
        type=kind,
        structure=structure,
        fibres=fibres,
        weight=_weight(label),
        bending_length=_bend(label),
        stretch_cross=_stretch_cross(label),
        stretch_length=_stretch_length(label),
        recovery=_recovery(label),
        thickness=_thickness(label),
        width=_width(label),
        sheer=_sheer(label),
        press=_press(label),
        nap=facts.nap if facts.nap is not None else bool(kind and kind.nap),
        shrink=_shrink(label),
        print=facts.print,
        deadstock=facts.deadstock,
        unread=unread,
        guessed=guessed,
    )
