"""The whole drawer against the whole shelf: best of each, what nothing suits, and any block of it as a grid."""

from __future__ import annotations

import csv
import io
from dataclasses import dataclass
from functools import partial

import numpy as np
import numpy.typing as npt

from nematex.core.amount import least_length_m
from nematex.core.columns import SET_ASIDE
from nematex.core.lexicon import key
from nematex.core.matrix import matrix
from nematex.core.pattern import Wish
from nematex.core.verdict import Codes, Mask, Verdict
from nematex.store.records import ClothRecord, PatternRecord
from nematex.usecases.hands import latest
from nematex.usecases.price_list import safe_cell
from nematex.usecases.ranking import demand_of
from nematex.usecases.shelf import Shop
from nematex.usecases.whole_matrix import known, whole

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
    school: str = "hand"
    pattern_page: int = 1
    cloth_page: int = 1

    @property
    def wish(self) -> Wish:
        return Wish(look=self.look, school=self.school)


def _chosen_patterns(shop: Shop, asked: Asked) -> list[PatternRecord]:
    words = key(asked.pattern_words).split()
    return [
        record
        for record in shop.drawer().records
        if (not asked.patterns or record.id in asked.patterns)
        and all(word in key(f"{record.facts.name} {record.facts.garment} {record.house} {record.code}") for word in words)
    ]


def _chosen_cloths(shop: Shop, asked: Asked) -> list[int]:
    """Positions on the shelf."""
    shelf = shop.shelf()
    keep: Mask = np.ones(len(shelf.records), dtype=np.bool_)
    if asked.cloths:
        keep = np.zeros(len(shelf.records), dtype=np.bool_)
        keep[[shelf.place[each] for each in asked.cloths if each in shelf.place]] = True
    elif len(keep):
        keep = ~shelf.columns.used_for(*SET_ASIDE)
    if asked.in_stock:
        keep &= shelf.stock_m > 0
    if words := key(asked.cloth_words).split():
        keep &= np.array([all(word in text for word in words) for text in shelf.search_keys], dtype=np.bool_)
    return [int(at) for at in np.flatnonzero(keep)]


def grid(shop: Shop, asked: Asked) -> Grid:
    """One block of at most 40 patterns by 40 cloths."""
    shelf, _drawer = shop.shelf(), shop.drawer()
    patterns, places = _chosen_patterns(shop, asked), _chosen_cloths(shop, asked)
    rows = patterns[(asked.pattern_page - 1) * BLOCK : asked.pattern_page * BLOCK]
    block = np.array(places[(asked.cloth_page - 1) * BLOCK : asked.cloth_page * BLOCK], dtype=np.intp)
    cloths = [shelf.records[at] for at in block]
    verdicts = _block(shop, asked, rows, block)
    hands = latest(shop)
    made = []
    for record, codes in zip(rows, verdicts.tolist(), strict=True):
        cells = []
        for cloth, code in zip(cloths, codes, strict=True):
            word, said = WORDS[code], hands.get((cloth.id, record.id))
            hand = said.verdict if said and said.verdict != word else ""
            cells.append(Cell(cloth.id, cloth.facts.name, word, word.replace(" ", "-"), hand))
        made.append(GridRow(record, cells))
    return Grid(made, cloths, len(patterns), len(places))


def _block(shop: Shop, asked: Asked, rows: list[PatternRecord], block: npt.NDArray[np.intp]) -> Codes:
    """The verdicts of some patterns and cloths: taken from the whole matrix where it is known, else worked out."""
    shelf, drawer = shop.shelf(), shop.drawer()
    kept = known(shop) if asked.wish == Wish() else None
    if kept is not None:
        line = {record.id: at for at, record in enumerate(drawer.records)}
        found: Codes = kept.verdict[[line[record.id] for record in rows]][:, block]
        return found
    demands = [partial(demand_of, each, drawer, asked.wish) for each in rows]
    return matrix(shelf.columns.take(block), demands, drawer.tables, threads=1).verdict


def _garment_cloths(shop: Shop) -> Mask:
    shelf = shop.shelf()
    return ~shelf.columns.used_for(*SET_ASIDE) if shelf.records else np.zeros(0, dtype=np.bool_)


def best_for_patterns(shop: Shop, page: int) -> tuple[list[Best], int]:
    """The ten best cloths of each pattern, a page at a time; linings and trims are left out."""
    shelf, drawer, found, offered = shop.shelf(), shop.drawer(), whole(shop), _garment_cloths(shop)
    rows = []
    for at, record in list(enumerate(drawer.records))[(page - 1) * BLOCK : page * BLOCK]:
        order = [int(cloth) for cloth in found.best_cloths(at, len(offered)) if offered[cloth]][:BEST]
        rows.append(Best(record, [(shelf.records[c], Verdict(int(found.verdict[at, c]))) for c in order]))
    return rows, len(drawer.records)


def best_for_cloths(shop: Shop, page: int) -> tuple[list[Best], int]:
    """The ten best patterns of each cloth, a page at a time."""
    shelf, drawer, found, offered = shop.shelf(), shop.drawer(), whole(shop), _garment_cloths(shop)
    places = [int(at) for at in np.flatnonzero(offered)]
    rows = []
    for at in places[(page - 1) * BLOCK : page * BLOCK]:
        order = [int(each) for each in found.best_patterns(at, BEST)]
        rows.append(Best(shelf.records[at], [(drawer.records[p], Verdict(int(found.verdict[p, at]))) for p in order]))
    return rows, len(places)


def left_out(shop: Shop) -> tuple[list[ClothRecord], list[PatternRecord]]:
    """Cloths that nothing suits, and patterns for which no cloth that suits is in stock in the amount they take."""
    shelf, drawer, found, offered = shop.shelf(), shop.drawer(), whole(shop), _garment_cloths(shop)
    if not shelf.records or not drawer.records:
        return [], list(drawer.records)
    lonely = [shelf.records[int(at)] for at in found.suited_by_nothing() if offered[int(at)]]
    least = np.array([least_length_m(record.facts) for record in drawer.records])
    enough = (shelf.stock_m[None, :] >= least[:, None]) & offered[None, :]
    return lonely, [drawer.records[int(at)] for at in found.without_cloth(enough)]


def grid_csv(shop: Shop, asked: Asked) -> str:
    """All chosen patterns against all chosen cloths, a verdict in each cell; the hands' in brackets."""
    shelf, drawer = shop.shelf(), shop.drawer()
    patterns, places = _chosen_patterns(shop, asked), np.array(_chosen_cloths(shop, asked), dtype=np.intp)
    demands = [partial(demand_of, each, drawer, asked.wish) for each in patterns]
    found = matrix(shelf.columns.take(places), demands, drawer.tables)
    hands = latest(shop)
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    cloths = [shelf.records[at] for at in places]
    writer.writerow(["code", "pattern", *(safe_cell(f"{cloth.code} {cloth.facts.name}") for cloth in cloths)])
    for line, record in enumerate(patterns):
        words = []
        for at, cloth in enumerate(cloths):
            hand = hands.get((cloth.id, record.id))
            word = Verdict(int(found.verdict[line, at])).word
            words.append(f"{word} (by hand {hand.verdict})" if hand else word)
        writer.writerow([safe_cell(record.code), safe_cell(record.facts.name), *words])
    return out.getvalue()


def best_csv(shop: Shop, of_cloths: bool) -> str:
    """The ten best of every pattern, or of every cloth: one row each, best first."""
    gather = best_for_cloths if of_cloths else best_for_patterns
    first, total = gather(shop, 1)
    rows = first + [row for page in range(2, -(-total // BLOCK) + 1) for row in gather(shop, page)[0]]
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(["code", "name", *(f"{name} {place}" for place in range(1, BEST + 1) for name in ("best", "verdict"))])
    for row in rows:
        found = [text for one, verdict in row.found for text in (safe_cell(f"{one.code} {one.facts.name}"), verdict.word)]
        writer.writerow([safe_cell(row.of.code), safe_cell(row.of.facts.name), *found])
    return out.getvalue()


def left_out_csv(shop: Shop) -> str:
    """Cloths that nothing suits, and patterns without cloth in stock."""
    cloths, patterns = left_out(shop)
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(["left out", "code", "name"])
    writer.writerows(["cloth that nothing suits", safe_cell(each.code), safe_cell(each.facts.name)] for each in cloths)
    writer.writerows(["pattern without cloth", safe_cell(each.code), safe_cell(each.facts.name)] for each in patterns)
    return out.getvalue()
