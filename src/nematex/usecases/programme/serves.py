"""Who a programme serves: the bodies its patterns reach, what else it shows, and what would close a hole."""

from __future__ import annotations

from collections import Counter
from dataclasses import dataclass

import numpy as np

from nematex.core.amount.length import least_length_m
from nematex.core.judging.matrix import Matrix
from nematex.core.judging.verdict import Verdict
from nematex.core.set.coverage import (
    PLACES,
    Gap,
    Garment,
    Range,
    closes,
    gaps,
    garment_of,
    of_one_kind,
    wanted_range,
)
from nematex.store.records import ClothRecord, PatternRecord, Programme
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State
from nematex.usecases.judging.matrix_view import garment_cloths
from nematex.usecases.judging.whole_matrix import at_hand
from nematex.usecases.quantity.saying import Voice

OFFERED, HOLES = 3, 4
PLAIN = ("", "solid")


@dataclass(frozen=True)
class Closing:
    """A pairing that would close a hole: the share of it that is reached, in per cent."""

    pattern: PatternRecord
    cloth: ClothRecord
    verdict: Verdict
    share_pct: int


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
class Spread:
    """One respect of the set: what there is and how often, and what is missing in words ("" where nothing is)."""

    name: str
    counts: list[tuple[str, int]]
    missing: str


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
    shown = [garment_of(each.facts.name, each.facts, state.tables) for each in patterns]
    wearers = {each.facts.wearer for each in patterns}
    rest = [each for each in state.drawer.records if each not in patterns and each.facts.wearer in wearers]
    others = {each.id: garment_of(each.facts.name, each.facts, state.tables) for each in rest}
    judged = at_hand(shop, state)
    taken, rule = {pick.cloth_id for pick in programme.picks}, state.tables.judging.coverage
    found = []
    for place in PLACES:
        wanted = wanted_range([*shown, *others.values()], place)
        sized = [garment for garment in shown if garment.reach.get(place)]
        if wanted is None or not any(place in garment.reach for garment in shown):
            continue
        holes = [
            Hole(gap, words, _closings(state, gap, rest, others, judged, taken))
            for gap, words in [
                *((gap, gap_said(gap, state.voice)) for gap in gaps(sized, place, wanted, rule)),
                *((gap, kind_said(gap, state.voice)) for gap in of_one_kind(sized, place, wanted, rule)),
            ][:HOLES]
        ]
        found.append(Serves(place, wanted, sized, holes))
    unsized = [garment.name for garment in shown if not garment.reach]
    return WholeSet(found, _spreads(state, programme, patterns), unsized, judged is not None)


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
    judged: Matrix | None,
    taken: set[int],
) -> list[Closing]:
    """Patterns that reach most of the hole, each with its best cloth that is in stock and not yet in the set."""
    if judged is None:
        return []
    kinds = {garment.kind for garment in gap.only} if len(gap.only) > 1 else set()
    shares = {each.id: closes(others[each.id], gap) for each in rest if others[each.id].kind not in kinds}
    reaching = [each for each in rest if shares.get(each.id, 0.0) >= state.tables.judging.coverage.closes_from]
    found = []
    for record in sorted(reaching, key=lambda one: -shares[one.id]):
        best = _best_cloth(state, record, judged, taken)
        if best:
            found.append((best[1], Closing(record, best[0], best[2], round(100 * shares[record.id]))))
    found.sort(key=lambda each: (-each[1].share_pct // 25, each[1].verdict, -each[0]))
    return [each for _, each in found[:OFFERED]]


def _best_cloth(
    state: State, record: PatternRecord, judged: Matrix, taken: set[int]
) -> tuple[ClothRecord, float, Verdict] | None:
    """The best cloth of a pattern that is no lining, is in stock and is not in the set yet; with score and verdict."""
    shelf, place = state.shelf, state.drawer.place[record.id]
    enough = garment_cloths(state) & (np.nan_to_num(shelf.stock_m) >= least_length_m(record.facts))
    for at in judged.best_cloths(place, len(shelf.records)):
        cloth = shelf.records[int(at)]
        if enough[at] and cloth.id not in taken:
            return cloth, float(judged.score[place, at]), Verdict(int(judged.verdict[place, at]))
    return None


def _spreads(state: State, programme: Programme, patterns: list[PatternRecord]) -> list[Spread]:
    """Kinds, makes, structures and prints: what there is, and what the shop has but the set has not."""
    ids = dict.fromkeys(pick.cloth_id for pick in programme.picks)
    cloths = [found for each in ids if (found := state.cloth(each)) is not None]
    every = state.drawer.records
    kinds = Counter(garment_of("", each.facts, state.tables).kind for each in patterns)
    makes, offered = Counter(each.difficulty for each in patterns if each.difficulty), {each.difficulty for each in every}
    structures = Counter(str(cloth.structure or "not known") for _, cloth in cloths)
    prints = Counter("plain" if record.print_kind in PLAIN else "print" for record, _ in cloths)
    stocked = Counter(str(cloth.structure) for cloth in state.shelf.cloths)
    return [
        Spread("garments", kinds.most_common(), "All of one kind." if len(kinds) == 1 and len(patterns) > 2 else ""),
        Spread("makes", makes.most_common(), "Nothing easy." if "easy" in offered and "easy" not in makes and makes else ""),
        Spread("cloths", structures.most_common(), _missing(structures, stocked)),
        Spread("plain and print", prints.most_common(), _all_alike(prints)),
    ]


def _missing(there: Counter[str], stocked: Counter[str]) -> str:
    absent = [each for each in ("knit", "woven") if stocked[each] and not there[each]]
    return f"No {absent[0]}." if len(absent) == 1 else ""


def _all_alike(prints: Counter[str]) -> str:
    if len(prints) != 1 or sum(prints.values()) < 3:
        return ""
    return "All plain: nothing carries the colours." if "plain" in prints else "All prints: nothing plain to rest on."
