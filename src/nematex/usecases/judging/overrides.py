"""Where the rules and the hands disagree: overrides with their reasons, made-up garments, and which number to look at.

Nothing changes by itself: what is proposed is a number of the tables and the values it would have to reach.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Mapping
from dataclasses import dataclass

from nematex.core.cloth.estimates import Cloth
from nematex.core.errors import FieldFault, UnknownChoice
from nematex.core.judging.judge import CheckAnswer, gravest_first
from nematex.core.judging.pairing import Pairing
from nematex.core.judging.verdict import Origin, Verdict
from nematex.core.pattern.facts import Wish
from nematex.core.quantity.estimate import Estimate
from nematex.core.quantity.kinds import Quantity
from nematex.store.judging.overrides import add_override, bin_override, overrides_of
from nematex.store.records import ClothRecord, Override, PatternRecord
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State
from nematex.usecases.judging.field_words import field_word
from nematex.usecases.judging.ranking import fitting_wish, one_pairing

LETTERS = 600


def decide(shop: Shop, pattern: PatternRecord, record: ClothRecord, pairing: Pairing, given: Mapping[str, str]) -> None:
    """Keep what somebody decided of a pairing, with what the rules say now; raises FieldFault."""
    said = read_verdict(pattern, record, pairing, given)
    with shop.database.work() as work:
        add_override(work, said)


def read_verdict(pattern: PatternRecord, record: ClothRecord, pairing: Pairing, given: Mapping[str, str]) -> Override:
    """What somebody decided of a pairing, beside what the rules say now; raises FieldFault."""
    word = given.get("verdict", "")
    words = [each.word for each in Verdict]
    if word not in words:
        raise UnknownChoice("your verdict", word, words, "verdict")
    reason = " ".join(given.get("reason", "").split())
    if not reason:
        raise FieldFault("reason", "", "is missing: say what your hands know, so that others can weigh it")
    if len(reason) > LETTERS:
        raise FieldFault("reason", f"{reason[:40]}…", f"is {len(reason)} letters long; at most {LETTERS} are kept")
    name, check = gravest_first(pairing.checks)[0]
    return Override(
        record.id,
        pattern.id,
        word,
        pairing.verdict.word,
        reason,
        name,
        _deciding(check),
        pairing.demand.wish.part or "",
        given.get("by", "").strip()[:60],
        bool(given.get("made")),
    )


def forget(shop: Shop, verdict_id: int) -> None:
    """Take a verdict by hand back, into the bin."""
    with shop.database.work() as work:
        bin_override(work, verdict_id)


def of_pairing(shop: Shop, cloth_id: int, pattern_id: int) -> list[Override]:
    """What hands said of one pairing, the latest first."""
    with shop.database.work() as work:
        return overrides_of(work, cloth_id, pattern_id)


def latest(shop: Shop, pattern_id: int | None = None, cloth_id: int | None = None) -> dict[tuple[int, int], Override]:
    """(cloth, pattern) → the latest verdict on the whole garment."""
    with shop.database.work() as work:
        found = overrides_of(work, cloth_id, pattern_id)
    return {(each.cloth_id, each.pattern_id): each for each in reversed(found) if not each.part}


@dataclass(frozen=True, slots=True)
class Case:
    """One pairing where hands and rules part: the cloth's number, the edge's, and the words of the one who decided."""

    said: Override
    cloth: ClothRecord
    pattern: PatternRecord
    value: float | None
    edge: float | None


@dataclass(frozen=True)
class Disagreement:
    """Cases under one number of the tables (or one check), and what to look at."""

    check: str
    origin: Origin | None
    side: str
    unit: str
    cases: list[Case]
    milder: int
    stricter: int
    proposal: str


def _deciding(check: CheckAnswer) -> str:
    """The window that decided, by its name, or the rule where it has none."""
    finding = check.decided.finding
    return finding.window.name if finding.window else finding.name


QUANTITY_OF = {
    "weight": Quantity.WEIGHT,
    "drape": Quantity.BENDING_LENGTH,
    "stretch": Quantity.STRETCH_ACROSS,
    "width": Quantity.WIDTH,
}


def _value(check: str, answer: CheckAnswer | None, cloth: Cloth) -> tuple[float | None, str]:
    """The cloth's number that the deciding window is about, and its unit."""
    window = answer.decided.finding.window if answer else None
    quantity = window.quantity if window else QUANTITY_OF.get(check)
    if quantity is None:
        return None, ""
    estimate: Estimate = getattr(cloth, quantity.attribute)
    return estimate.best, quantity.unit


def _edge(answer: CheckAnswer, value: float | None) -> tuple[str, float | None, Origin | None]:
    """The edge that the cloth crosses, or the nearer one."""
    window = answer.decided.finding.window
    if window is None or value is None:
        return "", None, None
    low, high = abs(value - window.low), abs(window.high - value)
    side = "low" if value < window.low or (value <= window.high and low < high) else "high"
    if side == "low":
        return side, window.low, window.low_from
    return side, window.high, window.high_from


def _harshness(said: Override) -> int:
    return int(Verdict.from_word(said.verdict)) - int(Verdict.from_word(said.rules))


def disagreements(shop: Shop, state: State) -> list[Disagreement]:
    """Grouped by the number behind the check that decided, the most cases first."""
    with shop.database.work() as work:
        every = [each for each in overrides_of(work) if each.verdict != each.rules]
    shelf, drawer = state.shelf, state.drawer
    groups: dict[tuple[str, str, str, str, str], list[Case]] = defaultdict(list)
    keys: dict[tuple[str, str, str, str, str], tuple[Origin | None, str]] = {}
    for said in every:
        at, pattern = shelf.place.get(said.cloth_id), drawer.by_id.get(said.pattern_id)
        if at is None or pattern is None:
            continue
        cloth = shelf.cloths[at]
        wish = fitting_wish(pattern, Wish(part=said.part or None))
        answer = one_pairing(shop, state, pattern, cloth, wish).checks.get(said.check)
        value, unit = _value(said.check, answer, cloth)
        side, edge, origin = _edge(answer, value) if answer else ("", None, None)
        place = (origin.table, origin.row, origin.field) if origin and origin.table else ("", said.window, "")
        group = (said.check, *place, side)
        groups[group].append(Case(said, shelf.records[at], pattern, value, edge))
        keys[group] = (origin, unit)
    found = []
    for group, cases in groups.items():
        origin, unit = keys[group]
        milder = sum(_harshness(case.said) < 0 for case in cases)
        text = _proposal(group[-1], origin, unit, cases)
        found.append(Disagreement(group[0], origin, group[-1], unit, cases, milder, len(cases) - milder, text))
    return sorted(found, key=lambda each: -len(each.cases))


def _proposal(side: str, origin: Origin | None, unit: str, cases: list[Case]) -> str:
    """Which number to look at, and what it would have to be for most of these cases to agree."""
    milder = [case for case in cases if _harshness(case.said) < 0]
    where = _place(origin, cases)
    if len(milder) * 2 < len(cases):
        return f"Hands are stricter here: look whether {where} lets in too much."
    values = sorted(case.value for case in milder if case.value is not None)
    if not values or origin is None or origin.value is None:
        return f"Hands are milder here: look at {where}."
    reach = values[int((len(values) - 1) * 0.75)] if side == "high" else values[int((len(values) - 1) * 0.25)]
    way = "up to" if side == "high" else "down to"
    if (side == "high" and reach <= origin.value) or (side == "low" and reach >= origin.value):
        return f"Hands are milder here although {where}, {origin.value:g} {unit}, would let it in: look at what narrows it."
    most = "three in four of these" if len(values) > 2 else "these two" if len(values) == 2 else "this one"
    return f"Look at {where}: it is {origin.value:g} {unit}; {most} would agree with {way} {reach:.3g} {unit}."


def _place(origin: Origin | None, cases: list[Case]) -> str:
    """What to look at: a number of a table, a number of the envelope, or a rule that has no number."""
    if origin is None:
        return f"the rule “{cases[0].said.window}”"
    return f"“{origin.row}” ({field_word(origin.field)})" if origin.row else f"the envelope's own number ({origin.words})"


def counted(shop: Shop) -> dict[str, int]:
    """How often hands agreed and disagreed, and how many garments were made up."""
    with shop.database.work() as work:
        every = overrides_of(work)
    return {
        "all": len(every),
        "agree": sum(each.verdict == each.rules for each in every),
        "made up": sum(each.made for each in every),
    }
