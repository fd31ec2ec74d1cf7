"""Looking along the shelf and through the drawer: filtered, sorted, paged lists."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import date
from itertools import islice

import numpy as np
import numpy.typing as npt

from nematex.core.cloth.estimates import Cloth
from nematex.core.cloth.facts import STRUCTURES
from nematex.core.codes import code_key
from nematex.core.paging import PAGE, Page, page_of, turned_to
from nematex.core.quantity.arrays import Floats, Mask
from nematex.store.records import ClothRecord, PatternRecord
from nematex.usecases.cloth.shelf_filter import ShelfFilter, filter_choices
from nematex.usecases.held.drawer import Drawer
from nematex.usecases.held.shelf import Shelf
from nematex.usecases.held.shelf_columns import NEAR
from nematex.usecases.judging.ranking import Filters

OFFERED = 200  # so many cloths a list to choose from holds


def _of_word(shelf: Shelf, name: str, word: str) -> Mask:
    """Which cloths have this word in this property; all where it is no property of words."""
    if name == "structure":
        return np.array(shelf.columns.structure == STRUCTURES.index(word))
    if name == "season":
        return np.array([word in seasons for seasons in shelf.filed.seasons], dtype=np.bool_)
    if name in shelf.filed.words:
        return np.array(shelf.filed.words[name] == list(filter_choices(shelf.tables)[name]).index(word))
    return np.ones(len(shelf.records), dtype=np.bool_)


def kept(shelf: Shelf, chosen: ShelfFilter) -> Mask:
    """Which cloths fit every part of the filter; a value that is not known fits no bound."""
    columns, filed = shelf.columns, shelf.filed
    keep = np.ones(len(shelf.records), dtype=np.bool_)
    for name, word in chosen.words.items():
        keep &= _of_word(shelf, name, word)
    bounds: tuple[tuple[float | None, Floats, bool], ...] = (
        (chosen.weight_from, columns.weight.best, True),
        (chosen.weight_to, columns.weight.best, False),
        (chosen.stretch_from, columns.stretch_cross.best, True),
        (chosen.width_from, columns.width.best, True),
        (chosen.stock_from, shelf.stock_m, True),
        (chosen.price_to, filed.price_on(date.today()), False),
    )
    for bound, values, least in bounds:
        if bound is not None:
            keep &= (values >= bound) if least else (values <= bound)
    if chosen.near:
        keep &= filed.distance(chosen.near) <= NEAR
    if chosen.needs:
        keep &= filed.needs
    if chosen.new_since:
        keep &= filed.arrived >= chosen.new_since.toordinal()
    if chosen.fibre:
        keep &= np.array([bool(each.fibres and each.fibres.share(chosen.fibre)) for each in shelf.cloths], dtype=np.bool_)
    if chosen.codes is not None:
        keep &= np.array([code_key(record.code) in chosen.codes for record in shelf.records], dtype=np.bool_)
    if chosen.q:
        keep &= shelf.holding(chosen.q)
    return keep


def cloth_named(shelf: Shelf, text: str) -> ClothRecord | None:
    """The cloth of this code, else the first of this name; None where there is none."""
    code, name = code_key(text), text.strip().casefold()
    by_code = next((record for record in shelf.records if code_key(record.code) == code), None)
    return by_code or next((record for record in shelf.records if record.facts.name.casefold() == name), None)


def _sort_keys(shelf: Shelf, chosen: ShelfFilter) -> Floats | None:
    """Ascending keys for the sort asked for; None is the order of the shelf, which is by name."""
    columns, filed = shelf.columns, shelf.filed
    match chosen.sort:
        case "lightest":
            return columns.weight.best
        case "heaviest":
            return -columns.weight.best
        case "softest":
            return columns.bending_length.best
        case "stiffest":
            return -columns.bending_length.best
        case "widest":
            return -columns.width.best
        case "cheapest":
            return filed.price_on(date.today())  # NaN sorts last
        case "most in stock":
            return -shelf.stock_m
        case "newest":
            return -filed.arrived.astype(np.float64)
        case "nearest colour" if chosen.near:
            return filed.distance(chosen.near)
    return None


def found_cloths(shelf: Shelf, chosen: ShelfFilter) -> npt.NDArray[np.intp]:
    """Positions on the shelf of all that fit, sorted."""
    places = np.flatnonzero(kept(shelf, chosen))
    keys = _sort_keys(shelf, chosen)
    return places if keys is None else places[np.argsort(keys[places], kind="stable")]


def browse_cloths(shelf: Shelf, chosen: ShelfFilter) -> Page[tuple[ClothRecord, Cloth]]:
    """One page of those that fit."""
    places = found_cloths(shelf, chosen)
    page, pages = turned_to(len(places), chosen.page)
    rows = [(shelf.records[at], shelf.cloths[at]) for at in map(int, places[(page - 1) * PAGE : page * PAGE])]
    return Page(rows, len(places), page, pages)


def browse_patterns(drawer: Drawer, chosen: Filters) -> Page[PatternRecord]:
    """A page of the patterns that hold the words and are of the structure asked for."""
    found = drawer.holding(chosen.q)
    fitting = [record for record in found if not chosen.structure or record.facts.structure == chosen.structure]
    return page_of(fitting, chosen.page)


def offered_cloths(shelf: Shelf, words: str, chosen: Iterable[int]) -> list[ClothRecord]:
    """The cloths that a list offers: those already chosen, and the first that the words find."""
    always = set(chosen)
    first = [record for record in shelf.records if record.id in always]
    found = (shelf.records[int(place)] for place in np.flatnonzero(shelf.holding(words)))
    return first + list(islice((record for record in found if record.id not in always), OFFERED))
