"""Who a programme serves: the bodies its patterns reach, what else it shows, and what would close a hole."""

from __future__ import annotations

from dataclasses import dataclass

from nematex.core.errors import FieldFault
from nematex.core.set.coverage import (
    PLACES,
    Gap,
    Garment,
    Range,
    closes,
    gaps,
    of_one_kind,
    wanted_range,
)
from nematex.store.records import PatternRecord, Programme
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State
from nematex.usecases.judging.whole_matrix import at_hand
from nematex.usecases.programme.proposing.propose import brief_of
from nematex.usecases.programme.whole.closing import Best, Closing, best_of_each, garments_of
from nematex.usecases.programme.whole.spreads import Spread, spreads
from nematex.usecases.quantity.saying import Voice

OFFERED, HOLES = 3, 4
ALL_OF_IT = 0.99


@dataclass(frozen=True)
class Hole:
    """A gap in words, and what would close it."""

    gap: Gap
    said: str
    closings: list[Closing]


@dataclass(frozen=True)
class Serves:
    """One place of the body: the range that the shop's patterns reach, each garment's part of it, and the holes."""

    place: str
    wanted: Range
    garments: list[Garment]
    holes: list[Hole]


@dataclass(frozen=True)
class WholeSet:
    """The set seen whole. `ready`: whether suggestions could be worked out already."""

    serves: list[Serves]
    spreads: list[Spread]
    unsized: list[str]
    ready: bool


def whole_set(shop: Shop, state: State, programme: Programme) -> WholeSet:
    """Coverage and spread of a programme as it stands."""
    patterns = _patterns(state, programme)
    garments = garments_of(shop, state)
    shown = [garments[each.id] for each in patterns]
    wearers = {each.facts.wearer for each in patterns}
    rest = [each for each in state.drawer.records if each not in patterns and each.facts.wearer in wearers]
    others = {each.id: garments[each.id] for each in rest}
    judged, rule = at_hand(shop, state), state.tables.judging.coverage
    best = best_of_each(shop, state, programme, judged) if judged else {}
    asked = _asked(state, programme)
    found = []
    for place in PLACES:
        wanted = asked.get(place) or wanted_range([*shown, *others.values()], place)
        sized = [garment for garment in shown if garment.reach.get(place)]
        if wanted is None or not any(place in garment.reach for garment in shown):
            continue
        holes = [
            Hole(gap, words, _closings(state, gap, rest, others, best))
            for gap, words in [
                *((gap, gap_said(gap, state.voice)) for gap in gaps(sized, place, wanted, rule)),
                *((gap, kind_said(gap, state.voice)) for gap in of_one_kind(sized, place, wanted, rule)),
            ][:HOLES]
        ]
        found.append(Serves(place, wanted, sized, holes))
    unsized = [garment.name for garment in shown if not garment.reach]
    return WholeSet(found, spreads(shop, state, programme, judged), unsized, judged is not None)


def _asked(state: State, programme: Programme) -> dict[str, Range | None]:
    """The bodies that the brief asks to serve."""
    try:
        brief = brief_of(state, programme)
    except FieldFault:  # kept under other rules
        return {}
    return {"bust": brief.bust, "hip": brief.hip}


def _patterns(state: State, programme: Programme) -> list[PatternRecord]:
    """The patterns of the picks, each once."""
    ids = dict.fromkeys(pick.pattern_id for pick in programme.picks)
    return [record for each in ids if (record := state.pattern(each)) is not None]


def _where(gap: Gap, voice: Voice) -> str:
    low, high = voice.body(gap.low), voice.body(gap.high)
    if gap.above and gap.below:
        return f"at any {gap.place}"
    if gap.above:
        return f"above {gap.place} {low}"
    if gap.below:
        return f"below {gap.place} {high}"
    return f"from {gap.place} {low} to {high}"


def gap_said(gap: Gap, voice: Voice) -> str:
    """'Nothing above hip 120 cm (47 in)', or 'Only one garment above …: Avocet shift.'"""
    if not gap.only:
        return f"Nothing {_where(gap, voice)}."
    return f"Only one garment {_where(gap, voice)}: {gap.only[0].name}."


def kind_said(gap: Gap, voice: Voice) -> str:
    """'Nothing above hip 120 cm (47 in) that is not a skirt.'"""
    kind = gap.only[0].kind
    return f"Nothing {_where(gap, voice)} that is not {'' if kind.endswith('s') else 'a '}{kind}."


def _closings(
    state: State,
    gap: Gap,
    rest: list[PatternRecord],
    others: dict[int, Garment],
    best_of: dict[int, Best],
) -> list[Closing]:
    """Patterns that reach most of the hole, each with its best cloth that is in stock and not yet in the set."""
    kinds = {garment.kind for garment in gap.only} if len(gap.only) > 1 else set()
    shares = {each.id: closes(others[each.id], gap) for each in rest if others[each.id].kind not in kinds}
    reaching = [each for each in rest if shares.get(each.id, 0.0) >= state.tables.judging.coverage.closes_from]
    found = []
    for record in sorted(reaching, key=lambda one: -shares[one.id]):
        best = best_of.get(record.id)
        if best:
            said = _closes_said(others[record.id], gap, shares[record.id], state.voice)
            found.append((-round(100 * shares[record.id]) // 25, best[2], -best[1], Closing(record, best[0], best[2], said)))
    found.sort(key=lambda each: each[:3])
    return [each[3] for each in found[:OFFERED]]


def _closes_said(garment: Garment, gap: Gap, share: float, voice: Voice) -> str:
    """How much of the hole it closes, and from where to where it reaches."""
    ranges = garment.reach.get(gap.place, ())
    said = "closes it" if share >= ALL_OF_IT else f"reaches {100 * share:.0f} % of it"
    if not ranges:
        return said
    return f"{said}: {gap.place} {voice.body_range(min(low for low, _ in ranges), max(high for _, high in ranges))}"
