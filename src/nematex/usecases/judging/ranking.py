"""What goes with this? A pattern's cloths or a cloth's patterns, best first, with the counts of each verdict."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from functools import partial

import numpy as np
import numpy.typing as npt

from nematex.core.amount.length import Amount, amount, least_length_m
from nematex.core.cloth.columns import SET_ASIDE, ClothColumns, columns
from nematex.core.cloth.estimates import Cloth
from nematex.core.cloth.facts import STRUCTURES
from nematex.core.errors import UnknownChoice
from nematex.core.judging.demand import Demand
from nematex.core.judging.judge import NAMES, CheckAnswer, Judgement, judge
from nematex.core.judging.pairing import Pairing, pair
from nematex.core.judging.saying.aloud import sentence
from nematex.core.judging.verdict import Verdict
from nematex.core.pattern.facts import LOOKS, SCHOOLS, Wish
from nematex.core.quantity.arrays import Mask
from nematex.core.quantity.said import Units
from nematex.store.records import ClothRecord, PatternRecord
from nematex.usecases.cloth.shelf import Shelf
from nematex.usecases.shop import Shop
from nematex.usecases.state import State

PAGE = 20


@dataclass(frozen=True)
class Filters:
    """How a ranking is narrowed; empty means all."""

    q: str = ""
    structure: str = ""
    verdict: str = ""
    in_stock: bool = False
    set_aside: bool = False
    page: int = 1


@dataclass(frozen=True)
class Ranked:
    """One row of a ranking."""

    cloth_record: ClothRecord
    pattern_record: PatternRecord
    cloth: Cloth
    verdict: Verdict
    score: float
    checks: dict[str, CheckAnswer]
    amount: Amount | None
    sentence: str


@dataclass(frozen=True)
class Ranking:
    """One page of rows, and what lies beyond it."""

    rows: list[Ranked]
    counts: dict[str, int]
    total: int
    page: int
    pages: int
    demand: Demand | None = None


def read_wish(given: Mapping[str, str]) -> Wish:
    """The presenter's choices from a form or address; raises UnknownChoice."""
    look, school = given.get("look") or "balanced", given.get("school") or "hand"
    if look not in LOOKS:
        raise UnknownChoice("look", look, LOOKS, "look")
    if school not in SCHOOLS:
        raise UnknownChoice("school", school, SCHOOLS, "school")
    mixed = given.get("options")
    return Wish(
        given.get("view") or None,
        given.get("size") or None,
        given.get("part") or None,
        look,
        school,
        None if mixed is None else tuple(name for name in mixed.split("|") if name),
    )


def fitting_wish(record: PatternRecord, wish: Wish) -> Wish:
    """The wish with only those of view, size and part that this pattern has."""
    rows = record.facts.requirements
    views = record.facts.views
    sizes = {size for row in rows for size in row.sizes}
    parts = {part.name for part in record.facts.parts}
    options = {option.name for option in record.facts.options}
    return replace(
        wish,
        view=wish.view if wish.view in views else None,
        size=wish.size if wish.size in sizes else None,
        part=wish.part if wish.part in parts else None,
        options=tuple(name for name in wish.options if name in options) if wish.options is not None and options else None,
    )


def _row(judged: Judgement, record: ClothRecord, cloth: Cloth, place: int, pattern: PatternRecord, units: Units) -> Ranked:
    checks = {name: judged.explain(name, cloth, place, units) for name in NAMES}
    return Ranked(
        record,
        pattern,
        cloth,
        Verdict(int(judged.verdict[place])),
        float(judged.score[place]),
        checks,
        amount(cloth, judged.demand.pattern, judged.demand.wish, judged.tables),
        sentence(checks),
    )


def _counts(verdicts: npt.NDArray[np.int8]) -> dict[str, int]:
    numbers = np.bincount(verdicts, minlength=len(Verdict))
    return {verdict.word: int(numbers[verdict]) for verdict in Verdict}


def rank_cloths(shop: Shop, state: State, pattern: PatternRecord, wish: Wish, filters: Filters) -> Ranking:
    """The shelf against one pattern, best first."""
    shelf, drawer = state.shelf, state.drawer
    asked = drawer.demand(pattern, wish)
    judged = judge(shelf.columns, asked, drawer.tables)
    keep = _kept(shelf, pattern, judged, filters)
    counts = _counts(judged.verdict[keep])
    if filters.verdict:
        keep &= judged.verdict == Verdict.from_word(filters.verdict)
    ranked = judged.order()
    order = ranked[keep[ranked]]
    page, pages = _page(len(order), filters.page)
    units = state.voice.units

    def row(place: int) -> Ranked:
        record, cloth = shelf.records[place], shelf.cloths[place]
        rests_on = (record, cloth, pattern, asked, drawer.tables)
        key = ("row", record.id, pattern.id, wish, units)
        return shop.memory.of(key, rests_on, lambda: _row(judged, record, cloth, place, pattern, units))

    rows = [row(int(place)) for place in order[(page - 1) * PAGE : page * PAGE]]
    return Ranking(rows, counts, len(order), page, pages, asked)


def _kept(shelf: Shelf, pattern: PatternRecord, judged: Judgement, filters: Filters) -> Mask:
    """Which cloths the filters leave."""
    keep: Mask = np.ones(len(shelf.records), dtype=np.bool_)
    if not filters.set_aside:
        keep &= ~shelf.columns.used_for(*SET_ASIDE) | judged.named
    if filters.structure:
        keep &= shelf.columns.structure == STRUCTURES.index(filters.structure)
    if filters.in_stock:
        keep &= shelf.stock_m >= least_length_m(pattern.facts)
    if filters.q:
        keep &= shelf.holding(filters.q)
    return keep


def _page(total: int, asked: int) -> tuple[int, int]:
    """The page asked for, kept within the pages there are, and how many there are."""
    pages = max(1, -(-total // PAGE))
    return min(max(asked, 1), pages), pages


def rank_patterns(shop: Shop, state: State, record: ClothRecord, cloth: Cloth, wish: Wish, filters: Filters) -> Ranking:
    """The drawer against one cloth, best first."""
    drawer, tables, units = state.drawer, state.tables, state.voice.units
    one: list[ClothColumns] = []  # made when the first pattern has to be judged anew

    def judged(pattern: PatternRecord, own: Wish) -> Judgement:
        if not one:
            one.append(columns([cloth], tables))
        return judge(one[0], drawer.demand(pattern, own), tables)

    def verdict(pattern: PatternRecord, own: Wish) -> tuple[Verdict, float]:
        found = judged(pattern, own)
        return Verdict(int(found.verdict[0])), float(found.score[0])

    found = []
    for pattern in drawer.holding(filters.q):
        own = fitting_wish(pattern, wish)
        rests_on = (cloth, pattern, tables)
        key = ("verdict", record.id, pattern.id, own)
        found.append((pattern, own, *shop.memory.of(key, rests_on, partial(verdict, pattern, own))))
    counts = _counts(np.array([verdict for _, _, verdict, _ in found], dtype=np.int8))
    if filters.verdict:
        found = [each for each in found if each[2].word == filters.verdict]
    found.sort(key=lambda each: -each[3])
    page, pages = _page(len(found), filters.page)

    def row(pattern: PatternRecord, own: Wish) -> Ranked:
        rests_on = (record, cloth, pattern, drawer.demand(pattern, own), tables)
        key = ("row", record.id, pattern.id, own, units)
        return shop.memory.of(key, rests_on, lambda: _row(judged(pattern, own), record, cloth, 0, pattern, units))

    rows = [row(pattern, own) for pattern, own, _, _ in found[(page - 1) * PAGE : page * PAGE]]
    return Ranking(rows, counts, len(found), page, pages)


def one_pairing(shop: Shop, state: State, pattern: PatternRecord, cloth: Cloth, wish: Wish) -> Pairing:
    """Everything about one pairing; raises FieldFault where the pattern cannot be judged."""
    asked, units = state.drawer.demand(pattern, wish), state.voice.units
    key = ("pairing", pattern.id, id(cloth), wish, units)
    return shop.memory.of(key, (cloth, asked, state.tables), lambda: pair(cloth, asked, state.tables, units))


def both_schools(state: State, pattern: PatternRecord, cloth: Cloth, wish: Wish) -> dict[str, Verdict]:
    """The verdict under either school: both are honoured, so both are shown."""
    one = columns([cloth], state.tables)
    asked = {school: state.drawer.demand(pattern, replace(wish, school=school)) for school in SCHOOLS}
    return {school: Verdict(int(judge(one, each, state.tables).verdict[0])) for school, each in asked.items()}
