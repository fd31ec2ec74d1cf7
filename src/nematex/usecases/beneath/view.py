"""What goes beneath and into a pairing: the ways to line it, linings from the shelf, interfacing, thread, notions."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from nematex.core.amount.length import amount
from nematex.core.amount.receipt import Amount
from nematex.core.amount.several import lining_m, lining_table
from nematex.core.beneath.interfacing import Interfaced, interfacing
from nematex.core.beneath.lining import RESPECTS, Way, colour_word, linings, ways
from nematex.core.beneath.notions import Notion, of_view, read_notions
from nematex.core.beneath.thread import Thread, thread
from nematex.core.cloth.columns import of_use
from nematex.core.cloth.estimates import Cloth
from nematex.core.colour.difference import read_hex
from nematex.core.judging.verdict import Verdict
from nematex.core.pattern.facts import Wish
from nematex.store.records import ClothRecord, PatternRecord
from nematex.tables import colour_names
from nematex.usecases.held.drawer import Drawer
from nematex.usecases.held.shelf import Shelf
from nematex.usecases.held.state import State

SHOWN = 8
LINED = ("full lining", "partial lining", "underlining")
WANTED = ("advised", "as the pattern has it", "possible")


@dataclass(frozen=True)
class LiningRow:
    """One cloth as a lining: the whole, what is not quite right, its colour in words."""

    record: ClothRecord
    cloth: Cloth
    verdict: Verdict
    wanting: tuple[str, ...]
    colour: str


@dataclass(frozen=True)
class Beneath:
    """Everything for one pairing; `main` is what the garment takes of the cloth itself."""

    ways: list[Way]
    linings: list[LiningRow]
    wants_a_lining: bool
    interfacing: Interfaced | None
    thread: Thread | None
    notions: list[Notion]
    main: Amount | None


def _grounds(shelf: Shelf, record: ClothRecord) -> np.ndarray:
    """ΔE00 from the cloth's ground to each cloth of the shelf; NaN where a colour is not known."""
    if not record.colours:
        return np.full(len(shelf.records), np.nan)
    off = shelf.filed.distance(read_hex(record.colours[0]))
    return np.where(np.isfinite(off), off, np.nan)


def candidate_linings(shelf: Shelf, drawer: Drawer, record: ClothRecord, cloth: Cloth, slides: bool) -> list[LiningRow]:
    """The best of the shelf, itself left out: what is made for it before what would only do, prints last, then by how well.

    None that would show as a contrast, and no cloth that costs much more than the one over it.
    """
    found = linings(cloth, shelf.columns, _grounds(shelf, record), slides, drawer.tables)
    rule = drawer.tables.judging.lining
    dear = np.array([_dearer(other, record, rule.dearer) for other in shelf.records], dtype=np.bool_)
    made_for_it = of_use(shelf.columns, "lining", drawer.tables)
    contrast = (found.colour_off > rule.contrast_from) & (cloth.sheer.best > 0)  # it shows through
    printed = found.checks["print"] != Verdict.SUITS
    never = (found.verdict == Verdict.AGAINST) | ~shelf.settled | contrast | dear & ~made_for_it
    rows = []
    for at in map(int, np.lexsort((-found.score, printed, ~made_for_it))):
        if never[at] or shelf.records[at].id == record.id:
            continue
        wanting = tuple(RESPECTS[name] for name, codes in found.checks.items() if codes[at] != Verdict.SUITS)
        off = float(found.colour_off[at])
        rows.append(LiningRow(shelf.records[at], shelf.cloths[at], Verdict(int(found.verdict[at])), wanting, colour_word(off)))
        if len(rows) == SHOWN:
            break
    return rows


def _dearer(lining: ClothRecord, record: ClothRecord, times: float) -> bool:
    """Whether a lining costs much more than the cloth over it, in one currency."""
    if not lining.price_per_m or not record.price_per_m or lining.currency != record.currency:
        return False
    return bool(lining.price_per_m > times * float(record.price_per_m))


def wants_a_lining(found: list[Way]) -> bool:
    """Whether any way of lining is advised or possible: an opaque cloth on most garments wants none."""
    return any(way.stand in WANTED for way in found if way.name in LINED)


def beneath(state: State, pattern: PatternRecord, record: ClothRecord, cloth: Cloth, wish: Wish) -> Beneath:
    """Everything that goes with one pairing."""
    tables, asked = state.tables, state.drawer.demand(pattern, wish)
    main = amount(cloth, pattern.facts, wish, tables, state.voice.units)
    table_m = lining_table(pattern.facts, wish)
    drafted_m = lining_m(pattern.facts, wish, tables) if main else None
    found = ways(cloth, asked, main.length_m if main else None, table_m, tables, state.voice.units, drafted_m)
    lined = wants_a_lining(found)
    return Beneath(
        found,
        candidate_linings(state.shelf, state.drawer, record, cloth, asked.made.slides) if lined else [],
        lined,
        interfacing(cloth, asked, tables),
        thread(cloth, record.colours[0], colour_names()) if record.colours else None,
        of_view(read_notions(pattern.facts.notions), wish.view),
        main,
    )
