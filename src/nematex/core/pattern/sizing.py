"""Which size to make: by bust for tops, hip for bottoms, with cup, ease and the rule between sizes.

Between two sizes the larger, unless finished measurements and the ease wanted speak for the smaller. Common practice,
no source. Lengths in cm.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from nematex.core.errors import FieldFault
from nematex.core.pattern.construction import making
from nematex.core.pattern.facts import Pattern, Size, Wish
from nematex.core.quantity.units import trim
from nematex.core.tables import Tables

CUPS = ("AA", "A", "B", "C", "D", "DD", "E", "F")
LIMITS = (30.0, 250.0)


@dataclass(frozen=True, slots=True)
class Body:
    """Body measurements in cm; None where not measured. `ease_cm` is the ease wanted at the deciding place."""

    bust_cm: float | None = None
    waist_cm: float | None = None
    hip_cm: float | None = None
    high_bust_cm: float | None = None
    ease_cm: float | None = None

    def __post_init__(self) -> None:
        for name in ("bust_cm", "waist_cm", "hip_cm", "high_bust_cm"):
            value = getattr(self, name)
            if value is not None and not LIMITS[0] <= value <= LIMITS[1]:
                raise FieldFault(name, value, f"must lie between {LIMITS[0]:.0f} and {LIMITS[1]:.0f} cm")


@dataclass(frozen=True, slots=True)
class Choice:
    """The size of one band (None: it does not reach), why, and what else to say."""

    band: str
    size: str | None
    reasons: tuple[str, ...]


def covers(pattern: Pattern, place: str) -> tuple[float, float] | None:
    """The body range in cm at bust, waist or hip over all sizes."""
    values = [value for size in pattern.sizes if (value := getattr(size, f"{place}_cm"))]
    return (min(values), max(values)) if values else None


def cup_of(body: Body, step_cm: float) -> str | None:
    """Full less high bust, one letter for each step: 2.5 cm is A, 5 is B."""
    if body.bust_cm is None or body.high_bust_cm is None:
        return None
    return CUPS[min(max(round((body.bust_cm - body.high_bust_cm) / step_cm), 0), len(CUPS) - 1)]


def _smallest(sizes: Sequence[Size], place: str, value: float, slack: float) -> int | None:
    """The first size whose body measurement reaches the value."""
    for at, size in enumerate(sizes):
        body = getattr(size, f"{place}_cm")
        if body is not None and value <= body + slack:
            return at
    return None


def _places(pattern: Pattern, body: Body, tables: Tables) -> tuple[str, ...]:
    """What decides, first: the hip for what hangs from the waist, else the bust."""
    order = ("hip", "waist") if making(pattern, Wish(), tables).below_waist else ("bust", "hip", "waist")
    return tuple(place for place in order if getattr(body, f"{place}_cm") is not None)


def _between(sizes: Sequence[Size], at: int, place: str, value: float, ease_cm: float | None, slack: float) -> tuple[int, str]:
    """The larger of two sizes, or the smaller where its ease is what is wanted."""
    size = sizes[at]
    above = getattr(size, f"{place}_cm")
    if at == 0 and above - value > slack:
        return at, f"{place} {trim(value)} cm is {trim(above - value)} cm less than its smallest, {size.label}: take in"
    lower = sizes[at - 1] if at else size
    below = getattr(lower, f"{place}_cm") if at else None
    if below is None or abs(value - above) <= slack:
        return at, f"{place} {trim(value)} cm is size {size.label} ({trim(above)} cm)"
    finished = getattr(lower, f"finished_{place}_cm")
    if ease_cm is not None and finished is not None and finished - value >= ease_cm:
        ease = trim(finished - value)
        return at - 1, f"between {lower.label} and {size.label}: {lower.label} leaves {ease} cm of ease, and that is enough"
    text = f"{place} {trim(value)} cm lies between {lower.label} ({trim(below)}) and {size.label} ({trim(above)})"
    return at, f"{text}: the larger, and take in"


def _high_bust(body: Body, sizes: Sequence[Size], tables: Tables) -> tuple[Body, list[str]]:
    """A fuller bust than the pattern is drafted for is fitted by the high bust, and the front made larger."""
    rule = tables.judging.sizing
    cup = cup_of(body, rule.cup_step_cm)
    if cup is None or body.high_bust_cm is None:
        return body, []
    own = next((size.cup for size in sizes if size.cup), "")
    if own:
        fits = cup in own.split()
        return body, [f"cup {cup}: {'cut that cup' if fits else f'the pattern has {own}, take the nearest'}"]
    drafted = CUPS[rule.drafted_cup]
    if CUPS.index(cup) <= rule.drafted_cup:
        return body, [f"cup {cup}, drafted for {drafted}: no change"]
    as_drafted = body.high_bust_cm + rule.drafted_cup * rule.cup_step_cm
    text = f"cup {cup}, drafted for {drafted}: choose by the high bust (as bust {trim(as_drafted)} cm) and enlarge the front"
    return Body(as_drafted, body.waist_cm, body.hip_cm, body.high_bust_cm, body.ease_cm), [text]


def _in_band(pattern: Pattern, band: str, body: Body, places: tuple[str, ...], over: bool, tables: Tables) -> Choice:
    sizes = [size for size in pattern.sizes if size.band == band]
    slack = tables.judging.sizing.between_cm
    reasons: list[str] = []
    if places[0] == "bust":
        body, reasons = _high_bust(body, sizes, tables)
    found: dict[str, int] = {}
    for place in places:
        value = getattr(body, f"{place}_cm")
        at = _smallest(sizes, place, value, slack)
        largest = max((v for size in sizes if (v := getattr(size, f"{place}_cm"))), default=None)
        if largest is None:
            continue
        if at is None:
            return Choice(band, None, (f"{place} {trim(value)} cm is {trim(value - largest)} cm more than its largest size",))
        ease = body.ease_cm if place == places[0] else None  # asked for where it decides, not at every place
        found[place], said = _between(sizes, at, place, value, ease, slack)
        reasons.append(said)
    if not found:
        return Choice(band, None, ("gives no body measurements for it",))
    first = next(iter(found))
    at = found[first]
    others = {place: sizes[other].label for place, other in found.items() if other != at}
    if others:
        said = ", ".join(f"{label} at the {place}" for place, label in others.items())
        reasons.append(f"grade from {sizes[at].label} at the {first} to {said}")
    if over:
        if at + 1 >= len(sizes):
            return Choice(band, None, (*reasons, "to wear over: one size up, and there is none larger"))
        at += 1
        reasons.append("to wear over: one size up")
    return Choice(band, sizes[at].label, tuple(reasons))


def choose_size(pattern: Pattern, body: Body, tables: Tables, over: bool = False) -> list[Choice]:
    """A choice per band; raises FieldFault if nothing that decides was measured, or the pattern has no sizes."""
    if not pattern.sizes:
        raise FieldFault("sizes", pattern.name, "has no size table; type or paste it first")
    places = _places(pattern, body, tables)
    if not places:
        raise FieldFault("body", "", "needs the bust or the hip, as the pattern goes by")
    bands = list(dict.fromkeys(size.band for size in pattern.sizes))
    return [_in_band(pattern, band, body, places, over, tables) for band in bands]
