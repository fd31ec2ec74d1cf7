"""What goes with this? A pattern's cloths or a cloth's patterns, best first, with the counts of each verdict."""

from __future__ import annotations

from collections.abc import Collection, Mapping
from dataclasses import dataclass, replace
from functools import partial

import numpy as np
import numpy.typing as npt

from nematex.core.amount.length import amount, least_length_m
from nematex.core.amount.many import lengths_m
from nematex.core.amount.receipt import Amount
from nematex.core.cloth.columns import SET_ASIDE, ClothColumns, columns
from nematex.core.cloth.estimates import Cloth, placed_cloth
from nematex.core.cloth.facts import STRUCTURES
from nematex.core.errors import UnknownChoice
from nematex.core.judging.demand import Demand
from nematex.core.judging.judge import NAMES, CheckAnswer, Judgement, judge
from nematex.core.judging.matrix import Scores, matrix
from nematex.core.judging.pairing import Pairing, explain
from nematex.core.judging.saying.aloud import each_its_own, spoken
from nematex.core.judging.verdict import Verdict
from nematex.core.paging import turned_to
from nematex.core.pattern.chosen import fitting
from nematex.core.pattern.facts import LOOKS, SCHOOLS, USUAL_SCHOOL, Wish
from nematex.core.quantity.arrays import Codes, Mask
from nematex.core.quantity.said import Units
from nematex.core.tables import Tables
from nematex.store.records import ClothRecord, PatternRecord
from nematex.usecases.held.shelf import Shelf
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State
from nematex.usecases.judging.whole_matrix import of_cloth

PAGE = 20
ROUNDING_M = 1e-6
MOST_HACKS = 20  # that an address is read for
AT_ONCE = 300  # cloths: up to here all of them cost a pattern hardly more than one, and are judged and kept together


@dataclass(frozen=True)
class Filters:
    """How a ranking is narrowed; empty means all."""

    q: str = ""
    structure: str = ""
    verdict: str = ""
    in_stock: bool = False
    set_aside: bool = False
    garment: str = ""
    difficulty: str = ""
    season: str = ""
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
    spoken: tuple[str, ...]


@dataclass(frozen=True)
class Ranking:
    """One page of rows, and what lies beyond it."""

    rows: list[Ranked]
    counts: dict[str, int]
    total: int
    page: int
    pages: int
    said: list[str]  # of each row what is said aloud, none of it twice
    demand: Demand | None = None


def hacks_of(given: Mapping[str, str]) -> tuple[str, ...]:
    """The changes to the pattern in an address, as they are written."""
    return tuple(text for text in (given.get("hacks") or "").split("|")[:MOST_HACKS] if text)


def read_wish(given: Mapping[str, str]) -> Wish:
    """The presenter's choices from a form or address; raises UnknownChoice."""
    look, school = given.get("look") or "balanced", given.get("school") or USUAL_SCHOOL
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
        hacks_of(given),
    )


def is_plain(wish: Wish) -> bool:
    """Whether it chooses nothing that a pattern might not have."""
    return not (wish.view or wish.size or wish.part) and wish.options is None


def fitting_wish(record: PatternRecord, wish: Wish) -> Wish:
    """The wish in this pattern's own names; what it has not is left out."""
    if is_plain(wish):
        return wish
    return fitting(record.facts, wish)


def _row(
    judged: Judgement,
    record: ClothRecord,
    cloth: Cloth,
    place: int,
    pattern: PatternRecord,
    units: Units,
    of_cloth: bool = True,
) -> Ranked:
    checks = {name: judged.explain(name, cloth, place, units) for name in NAMES}
    return Ranked(
        record,
        pattern,
        cloth,
        judged.verdict_of(place),
        judged.score_of(place),
        checks,
        amount(cloth, judged.demand.pattern, judged.demand.wish, judged.tables, units),
        tuple(spoken(checks, cloth, judged.demand, judged.tables, of_cloth)),
    )


def _counts(verdicts: npt.NDArray[np.int8]) -> dict[str, int]:
    numbers = np.bincount(verdicts, minlength=len(Verdict))
    return {verdict.word: int(numbers[verdict]) for verdict in Verdict}


def rank_cloths(
    shop: Shop,
    state: State,
    pattern: PatternRecord,
    wish: Wish,
    filters: Filters,
    among: Mask | None = None,
    most: int = PAGE,
) -> Ranking:
    """The shelf against one pattern, best first; `among` leaves out what another filter of the shelf does not fit.

    `most`: how many of the page are explained.
    """
    shelf, drawer = state.shelf, state.drawer
    asked = drawer.demand(pattern, wish)
    judged = _shelf_judged(shop, state, pattern, asked)
    keep = _kept(shelf, pattern, judged, filters, wish)
    if among is not None:
        keep &= among
    counts = _counts(judged.verdict[keep])
    if filters.verdict:
        keep &= judged.verdict == Verdict.from_word(filters.verdict)
    ranked = judged.order()
    order = ranked[keep[ranked]]
    page, pages = turned_to(len(order), filters.page, PAGE)
    units = state.voice.units

    def row(place: int) -> Ranked:
        record, cloth = shelf.records[place], shelf.cloths[place]
        rests_on = (record, cloth, pattern, asked, drawer.tables)
        key = ("row", record.id, pattern.id, wish, units)
        return shop.memory.of(key, rests_on, lambda: _row(judged, record, cloth, place, pattern, units))

    rows = [row(int(place)) for place in order[(page - 1) * PAGE : page * PAGE][:most]]
    said = each_its_own((row.cloth_record.facts.name, row.spoken) for row in rows)
    return Ranking(rows, counts, len(order), page, pages, said, asked)


def _kept(shelf: Shelf, pattern: PatternRecord, judged: Judgement, filters: Filters, wish: Wish) -> Mask:
    """Which cloths the filters leave."""
    keep: Mask = np.ones(len(shelf.records), dtype=np.bool_)
    if not filters.set_aside:
        keep &= ~shelf.columns.used_for(*SET_ASIDE) | judged.named
    if filters.structure:
        keep &= shelf.columns.structure == STRUCTURES.index(filters.structure)
    if filters.in_stock:
        takes = lengths_m(shelf.columns, pattern.facts, wish, judged.tables)
        keep &= shelf.stock_m >= (least_length_m(pattern.facts) if takes is None else takes - ROUNDING_M)
    if filters.q:
        keep &= shelf.holding(filters.q)
    return keep


def _enough(shelf: Shelf, place: int, pattern: PatternRecord, wish: Wish, tables: Tables) -> bool:
    """Whether there is as much of a cloth as the pattern takes of it, in the size chosen, else in the largest."""
    takes = amount(shelf.cloths[place], pattern.facts, wish, tables)
    return takes is None or bool(shelf.stock_m[place] >= takes.length_m)


def _of_drawer(state: State, filters: Filters) -> list[PatternRecord]:
    """The patterns that the filters leave."""
    return [
        pattern
        for pattern in state.drawer.holding(filters.q)
        if filters.garment in ("", pattern.facts.garment)
        and filters.difficulty in ("", pattern.difficulty)
        and (not filters.season or filters.season in pattern.season)
        and filters.structure in ("", pattern.facts.structure)
    ]


def _shelf_judged(shop: Shop, state: State, pattern: PatternRecord, asked: Demand) -> Judgement:
    """The whole shelf against one pattern; of a small shop it is remembered."""
    if len(state.shelf.records) > AT_ONCE:
        return judge(state.shelf.columns, asked, state.tables)
    key, rests_on = ("shelf", pattern.id, asked.wish), (state.shelf, asked, state.tables)
    return shop.judgements.of(key, rests_on, lambda: judge(state.shelf.columns, asked, state.tables))


def _judged(shop: Shop, state: State, pattern: PatternRecord, cloth: Cloth, wish: Wish) -> tuple[Judgement, int]:
    """A judgement that holds this cloth, and its place in it; remembered while nothing changes."""
    asked = state.drawer.demand(pattern, wish)
    if len(state.shelf.records) <= AT_ONCE and (place := state.shelf.place_of(cloth)) is not None:
        return _shelf_judged(shop, state, pattern, asked), place

    def work_out() -> Judgement:
        return judge(shop.memory.of(("column", id(cloth)), (cloth, state.tables), one), asked, state.tables)

    def one() -> ClothColumns:
        return columns([cloth], state.tables).single(0)

    return shop.judgements.of((pattern.id, id(cloth), wish), (cloth, asked, state.tables), work_out), 0


def _verdicts(shop: Shop, state: State, found: list[tuple[PatternRecord, Wish]], cloth_id: int) -> tuple[Codes, Scores]:
    """Verdict and score of each: out of the whole matrix where it holds them, else judged one by one."""
    place, plain = state.shelf.place[cloth_id], Wish()
    if all(own == plain for own in {id(own): own for _, own in found}.values()):
        judged = of_cloth(shop, state, place)
        lines = [state.drawer.place[pattern.id] for pattern, _ in found]
    else:
        column = state.shelf.columns.take(np.array([place], dtype=np.intp))
        asked = [partial(state.drawer.demand, pattern, own) for pattern, own in found]
        judged, lines = matrix(column, asked, state.tables, threads=1), list(range(len(found)))
    return judged.verdict[lines, 0], judged.score[lines, 0]


def rank_patterns(
    shop: Shop,
    state: State,
    record: ClothRecord,
    wish: Wish,
    filters: Filters,
    rows: int = PAGE,
    among: Collection[int] | None = None,
) -> Ranking:
    """The drawer against one cloth, best first; so many rows to a page, and only the patterns `among` these ids."""
    tables, units = state.tables, state.voice.units
    cloth = state.shelf.cloths[state.shelf.place[record.id]]
    drawer = (pattern for pattern in _of_drawer(state, filters) if among is None or pattern.id in among)
    plain = is_plain(wish)
    fitting = [(pattern, wish if plain else fitting_wish(pattern, wish)) for pattern in drawer]
    if wish.size:
        fitting = [(pattern, own) for pattern, own in fitting if own.size]
    if filters.in_stock:
        place = state.shelf.place[record.id]
        fitting = [(pattern, own) for pattern, own in fitting if _enough(state.shelf, place, pattern, own, tables)]
    verdicts, scores = _verdicts(shop, state, fitting, record.id)
    counts, order = _counts(verdicts), np.argsort(-scores, kind="stable")
    if filters.verdict:
        wanted = np.array([verdict.word == filters.verdict for verdict in Verdict])
        order = order[wanted[verdicts[order]]]
    page, pages = turned_to(len(order), filters.page, rows)

    def row(pattern: PatternRecord, own: Wish) -> Ranked:
        rests_on = (record, cloth, pattern, state.drawer.demand(pattern, own), tables)

        def work_out() -> Ranked:
            judged, at = _judged(shop, state, pattern, cloth, own)
            return _row(judged, record, cloth, at, pattern, units, of_cloth=False)

        return shop.memory.of(("row of a cloth", record.id, pattern.id, own, units), rests_on, work_out)

    shown = [row(*fitting[at]) for at in order[(page - 1) * rows : page * rows]]
    said = each_its_own((row.pattern_record.facts.name, row.spoken) for row in shown)
    return Ranking(shown, counts, len(order), page, pages, said)


def one_pairing(shop: Shop, state: State, pattern: PatternRecord, cloth: Cloth, wish: Wish) -> Pairing:
    """Everything about one pairing; raises FieldFault where the pattern cannot be judged."""
    asked, units, tables = state.drawer.demand(pattern, wish), state.voice.units, state.tables

    def work_out() -> Pairing:
        judged, at = _judged(shop, state, pattern, cloth, wish)
        return explain(judged, cloth, at, tables, units)

    return shop.memory.of(("pairing", pattern.id, id(cloth), wish, units), (cloth, asked, tables), work_out)


def each_school(shop: Shop, state: State, pattern: PatternRecord, cloth: Cloth, wish: Wish) -> dict[str, Verdict]:
    """The verdict under each school: all are honoured, so all are shown."""
    judged = {school: _judged(shop, state, pattern, cloth, replace(wish, school=school)) for school in SCHOOLS}
    return {school: one.verdict_of(at) for school, (one, at) in judged.items()}


def by_colourway(state: State, pattern: PatternRecord, record: ClothRecord, wish: Wish) -> list[tuple[str, str, Verdict]]:
    """Of the colourways that show more or less than the cloth itself: name, how it shows, and the verdict in it."""
    told = [way for way in record.colourways if way.sheer and way.sheer != record.facts.sheer]
    if not told:
        return []
    cloths = [placed_cloth(replace(record.facts, sheer=way.sheer), state.tables) for way in told]
    judged = judge(columns(cloths, state.tables), state.drawer.demand(pattern, wish), state.tables)
    return [(way.name, way.sheer, Verdict(int(code))) for way, code in zip(told, judged.verdict, strict=True)]
