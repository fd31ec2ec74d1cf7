"""What goes with this? A pattern's cloths or a cloth's patterns, best first, with the counts of each verdict."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace

import numpy as np
import numpy.typing as npt

from nematex.core.aloud import sentence
from nematex.core.amount import Amount, amount, least_length_m
from nematex.core.cloth import STRUCTURES, Cloth
from nematex.core.columns import SET_ASIDE, columns
from nematex.core.demand import Demand, demand
from nematex.core.errors import UnknownChoice
from nematex.core.judge import NAMES, CheckAnswer, Judgement, judge
from nematex.core.lexicon import key
from nematex.core.pairing import Pairing, pair
from nematex.core.pattern import LOOKS, SCHOOLS, Wish
from nematex.core.verdict import Verdict
from nematex.store.records import ClothRecord, PatternRecord
from nematex.usecases.shelf import Drawer, Shelf

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


def demand_of(record: PatternRecord, drawer: Drawer, wish: Wish) -> Demand:
    return demand(record.facts, wish, drawer.tables, drawer.readings[record.id])


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


def _row(judged: Judgement, record: ClothRecord, cloth: Cloth, at: int, pattern: PatternRecord) -> Ranked:
    checks = {name: judged.explain(name, cloth, at) for name in NAMES}
    return Ranked(
        record,
        pattern,
        cloth,
        Verdict(int(judged.verdict[at])),
        float(judged.score[at]),
        checks,
        amount(cloth, judged.demand.pattern, judged.demand.wish, judged.tables),
        sentence(cloth, judged.demand, checks, judged.tables),
    )


def _counts(verdicts: npt.NDArray[np.int8]) -> dict[str, int]:
    numbers = np.bincount(verdicts, minlength=len(Verdict))
    return {verdict.word: int(numbers[verdict]) for verdict in Verdict}


def rank_cloths(shelf: Shelf, drawer: Drawer, pattern: PatternRecord, wish: Wish, filters: Filters) -> Ranking:
    """The shelf against one pattern, best first."""
    asked = demand_of(pattern, drawer, wish)
    judged = judge(shelf.columns, asked, drawer.tables)
    keep = np.ones(len(shelf.records), dtype=np.bool_)
    if not filters.set_aside:
        keep &= ~shelf.columns.used_for(*SET_ASIDE) | judged.named
    if filters.structure:
        keep &= shelf.columns.structure == STRUCTURES.index(filters.structure)
    if filters.in_stock:
        least = least_length_m(pattern.facts)
        keep &= shelf.stock_m >= least
    if filters.q:
        words = key(filters.q).split()
        keep &= np.array([all(word in text for word in words) for text in shelf.search_keys], dtype=np.bool_)
    counts = _counts(judged.verdict[keep])
    if filters.verdict:
        keep &= judged.verdict == Verdict.from_word(filters.verdict)
    ranked = judged.order()
    order = ranked[keep[ranked]]
    pages = max(1, -(-len(order) // PAGE))
    page = min(max(filters.page, 1), pages)
    chosen = map(int, order[(page - 1) * PAGE : page * PAGE])
    rows = [_row(judged, shelf.records[at], shelf.cloths[at], at, pattern) for at in chosen]
    return Ranking(rows, counts, len(order), page, pages, asked)


def rank_patterns(drawer: Drawer, record: ClothRecord, cloth: Cloth, wish: Wish, filters: Filters) -> Ranking:
    """The drawer against one cloth, best first."""
    tables = drawer.tables
    one = columns([cloth], tables)
    judged = []
    for pattern in drawer.records:
        if filters.q and not all(
            word in key(f"{pattern.facts.name} {pattern.facts.garment} {pattern.house}") for word in key(filters.q).split()
        ):
            continue
        own = fitting_wish(pattern, wish)
        judged.append((pattern, judge(one, demand_of(pattern, drawer, own), tables)))
    counts = _counts(np.array([j.verdict[0] for _, j in judged], dtype=np.int8))
    if filters.verdict:
        judged = [(p, j) for p, j in judged if Verdict(int(j.verdict[0])).word == filters.verdict]
    judged.sort(key=lambda item: -float(item[1].score[0]))
    pages = max(1, -(-len(judged) // PAGE))
    page = min(max(filters.page, 1), pages)
    rows = [_row(j, record, cloth, 0, p) for p, j in judged[(page - 1) * PAGE : page * PAGE]]
    return Ranking(rows, counts, len(judged), page, pages)


def one_pairing(drawer: Drawer, pattern: PatternRecord, cloth: Cloth, wish: Wish) -> Pairing:
    """Everything about one pairing."""
    return pair(cloth, demand_of(pattern, drawer, wish), drawer.tables)


def both_schools(drawer: Drawer, pattern: PatternRecord, cloth: Cloth, wish: Wish) -> dict[str, Verdict]:
    """The verdict under either school: both are honoured, so both are shown."""
    tables = drawer.tables
    one = columns([cloth], tables)
    asked = {school: demand_of(pattern, drawer, replace(wish, school=school)) for school in SCHOOLS}
    return {school: Verdict(int(judge(one, each, tables).verdict[0])) for school, each in asked.items()}
