"""The whole drawer against the whole shelf: best of each, what nothing suits, and any block of it as a grid."""

from __future__ import annotations

import csv
import io
from collections import defaultdict
from collections.abc import Mapping
from dataclasses import dataclass
from functools import partial

import numpy as np
import numpy.typing as npt

from nematex.core.amount.length import least_length_m
from nematex.core.cloth.columns import SET_ASIDE
from nematex.core.judging.matrix import matrix
from nematex.core.judging.verdict import Verdict
from nematex.core.pattern.facts import USUAL_SCHOOL, Wish
from nematex.core.quantity.arrays import Codes, Mask
from nematex.store.records import ClothRecord, Override, PatternRecord
from nematex.usecases.files.cells import safe_cell
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State
from nematex.usecases.judging.overrides import latest
from nematex.usecases.judging.whole_matrix import AT_ONCE, part, whole

WORDS = {int(verdict): verdict.word for verdict in Verdict}
BLOCK = 40
BEST = 10
KEPT = 60  # how many cloths without a pattern, and patterns without a cloth, are listed


@dataclass(frozen=True)
class Cell:
    """One pairing of the grid: the rules' verdict in a word, and the hands' where it is another."""

    cloth_id: int
    cloth_name: str
    word: str
    mark: str
    hand: str


@dataclass(frozen=True)
class GridRow:
    """One pattern of the grid with its cells."""

    pattern: PatternRecord
    cells: list[Cell]


@dataclass(frozen=True)
class Grid:
    """A block of the matrix and how it lies in the whole."""

    rows: list[GridRow]
    cloths: list[ClothRecord]
    patterns_total: int
    cloths_total: int


@dataclass(frozen=True)
class Best:
    """The best of one pattern or one cloth."""

    of: PatternRecord | ClothRecord
    found: list[tuple[ClothRecord | PatternRecord, Verdict]]


@dataclass(frozen=True)
class Asked:
    """Which block is asked for; ids narrow it, words search in it."""

    patterns: tuple[int, ...] = ()
    cloths: tuple[int, ...] = ()
    pattern_words: str = ""
    cloth_words: str = ""
    in_stock: bool = False
    look: str = "balanced"
    school: str = USUAL_SCHOOL
    pattern_page: int = 1
    cloth_page: int = 1

    @property
    def wish(self) -> Wish:
        return Wish(look=self.look, school=self.school)


def _chosen_patterns(state: State, asked: Asked) -> list[PatternRecord]:
    found = state.drawer.holding(asked.pattern_words)
    return [record for record in found if not asked.patterns or record.id in asked.patterns]


def _chosen_cloths(state: State, asked: Asked) -> list[int]:
    """Positions on the shelf."""
    shelf = state.shelf
    keep: Mask = np.ones(len(shelf.records), dtype=np.bool_)
    if asked.cloths:
        keep = np.zeros(len(shelf.records), dtype=np.bool_)
        keep[[shelf.place[each] for each in asked.cloths if each in shelf.place]] = True
    elif len(keep):
        keep = ~shelf.columns.used_for(*SET_ASIDE)
    if asked.in_stock:
        keep &= shelf.stock_m > 0
    if asked.cloth_words:
        keep &= shelf.holding(asked.cloth_words)
    return [int(place) for place in np.flatnonzero(keep)]


def grid(shop: Shop, state: State, asked: Asked) -> Grid:
    """One block of at most 40 patterns by 40 cloths."""
    patterns, places = _chosen_patterns(state, asked), _chosen_cloths(state, asked)
    rows = patterns[(asked.pattern_page - 1) * BLOCK : asked.pattern_page * BLOCK]
    block = np.array(places[(asked.cloth_page - 1) * BLOCK : asked.cloth_page * BLOCK], dtype=np.intp)
    cloths = [state.shelf.records[place] for place in block]
    verdicts = _block(shop, state, asked, rows, block)
    hands = latest(shop)
    made = []
    for record, codes in zip(rows, verdicts.tolist(), strict=True):
        cells = [_cell(cloth, record, WORDS[code], hands) for cloth, code in zip(cloths, codes, strict=True)]
        made.append(GridRow(record, cells))
    return Grid(made, cloths, len(patterns), len(places))


def _cell(cloth: ClothRecord, pattern: PatternRecord, word: str, hands: Mapping[tuple[int, int], Override]) -> Cell:
    said = hands.get((cloth.id, pattern.id))
    hand = said.verdict if said and said.verdict != word else ""
    return Cell(cloth.id, cloth.facts.name, word, word.replace(" ", "-"), hand)


def _block(
    shop: Shop, state: State, asked: Asked, rows: list[PatternRecord], block: npt.NDArray[np.intp], threads: int = 1
) -> Codes:
    """The verdicts of some patterns and cloths: taken from the whole matrix where it is known, else worked out."""
    if asked.wish == Wish():
        return part(shop, state, np.array([state.drawer.place[record.id] for record in rows], dtype=np.intp), block).verdict
    demands = [partial(state.drawer.demand, record, asked.wish) for record in rows]
    return matrix(state.shelf.columns.take(block), demands, state.tables, threads).verdict


def garment_cloths(state: State) -> Mask:
    """The cloths that are sold for garments."""
    shelf = state.shelf
    return ~shelf.columns.used_for(*SET_ASIDE) if shelf.records else np.zeros(0, dtype=np.bool_)


def offered_cloths(state: State) -> Mask:
    """The cloths that may be proposed for a garment: sold for one, and what they are said to be."""
    return garment_cloths(state) & state.shelf.settled


def best_for_patterns(shop: Shop, state: State, page: int) -> tuple[list[Best], int]:
    """The ten best cloths of each pattern, a page at a time; linings and trims are left out."""
    shelf, drawer, judged, offered = state.shelf, state.drawer, whole(shop, state), offered_cloths(state)
    rows = []
    for place, record in list(enumerate(drawer.records))[(page - 1) * BLOCK : page * BLOCK]:
        order = [int(cloth) for cloth in judged.best_cloths(place, len(offered)) if offered[cloth]][:BEST]
        rows.append(Best(record, [(shelf.records[cloth], Verdict(int(judged.verdict[place, cloth]))) for cloth in order]))
    return rows, len(drawer.records)


def best_for_cloths(shop: Shop, state: State, page: int) -> tuple[list[Best], int]:
    """The ten best patterns of each cloth, a page at a time."""
    shelf, drawer, judged = state.shelf, state.drawer, whole(shop, state)
    places = [int(place) for place in np.flatnonzero(garment_cloths(state))]
    rows = []
    for place in places[(page - 1) * BLOCK : page * BLOCK]:
        order = [int(pattern) for pattern in judged.best_patterns(place, BEST)]
        rows.append(
            Best(shelf.records[place], [(drawer.records[each], Verdict(int(judged.verdict[each, place]))) for each in order])
        )
    return rows, len(places)


def left_out(shop: Shop, state: State) -> tuple[list[ClothRecord], list[PatternRecord]]:
    """Cloths that nothing suits, and patterns for which no cloth that suits is in stock in the amount they take."""
    shelf, drawer, judged, offered = state.shelf, state.drawer, whole(shop, state), garment_cloths(state)
    if not shelf.records or not drawer.records:
        return [], list(drawer.records)
    lonely = [shelf.records[int(place)] for place in judged.suited_by_nothing() if offered[int(place)]]
    least = np.array([least_length_m(record.facts) for record in drawer.records])
    enough = (shelf.stock_m[None, :] >= least[:, None]) & offered[None, :]
    return lonely, [drawer.records[int(place)] for place in judged.without_cloth(enough)]


def grid_csv(shop: Shop, state: State, asked: Asked) -> str:
    """All chosen patterns against all chosen cloths, a verdict in each cell; the hands' in brackets."""
    shelf = state.shelf
    patterns, places = _chosen_patterns(state, asked), np.array(_chosen_cloths(state, asked), dtype=np.intp)
    if asked.wish == Wish() and len(patterns) * len(places) > AT_ONCE:
        whole(shop, state)  # it is kept for whoever asks next, as a part would not be
    verdicts = _block(shop, state, asked, patterns, places, threads=2)
    column = {shelf.records[place].id: at for at, place in enumerate(places)}
    hands: dict[int, list[tuple[int, str]]] = defaultdict(list)
    for (cloth_id, pattern_id), hand in latest(shop).items():
        if cloth_id in column:
            hands[pattern_id].append((column[cloth_id], hand.verdict))
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    cloths = [shelf.records[place] for place in places]
    writer.writerow(["code", "pattern", *(safe_cell(f"{cloth.code} {cloth.facts.name}") for cloth in cloths)])
    for record, codes in zip(patterns, verdicts, strict=True):
        words = [WORDS[code] for code in codes.tolist()]
        for at, verdict in hands[record.id]:
            words[at] += f" (by hand {verdict})"
        writer.writerow([safe_cell(record.code), safe_cell(record.facts.name), *words])
    return out.getvalue()


def best_csv(shop: Shop, state: State, of_cloths: bool) -> str:
    """The ten best of every pattern, or of every cloth: one row each, best first."""
    gather = best_for_cloths if of_cloths else best_for_patterns
    first, total = gather(shop, state, 1)
    rows = first + [row for page in range(2, -(-total // BLOCK) + 1) for row in gather(shop, state, page)[0]]
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(["code", "name", *(f"{name} {place}" for place in range(1, BEST + 1) for name in ("best", "verdict"))])
    for row in rows:
        found = [text for one, verdict in row.found for text in (safe_cell(f"{one.code} {one.facts.name}"), verdict.word)]
        writer.writerow([safe_cell(row.of.code), safe_cell(row.of.facts.name), *found])
    return out.getvalue()


def left_out_csv(shop: Shop, state: State) -> str:
    """Cloths that nothing suits, and patterns without cloth in stock."""
    cloths, patterns = left_out(shop, state)
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(["left out", "code", "name"])
    writer.writerows(["cloth that nothing suits", safe_cell(each.code), safe_cell(each.facts.name)] for each in cloths)
    writer.writerows(["pattern without cloth", safe_cell(each.code), safe_cell(each.facts.name)] for each in patterns)
    return out.getvalue()
