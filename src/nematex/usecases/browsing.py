"""Looking along the shelf and through the drawer: filtered, paged lists."""

from __future__ import annotations

from dataclasses import dataclass

from nematex.core.cloth import Cloth
from nematex.core.lexicon import key
from nematex.store.records import ClothRecord, PatternRecord
from nematex.usecases.ranking import Filters
from nematex.usecases.shelf import Drawer, Shelf

PAGE = 40


@dataclass(frozen=True)
class ClothPage:
    """One page of the shelf."""

    rows: list[tuple[ClothRecord, Cloth]]
    total: int
    page: int
    pages: int


def browse_cloths(shelf: Shelf, chosen: Filters) -> ClothPage:
    words = key(chosen.q).split()
    kept = [
        at
        for at, text in enumerate(shelf.search_keys)
        if all(word in text for word in words)
        and (not chosen.structure or shelf.cloths[at].structure == chosen.structure)
        and (not chosen.in_stock or (shelf.records[at].stock_m or 0) > 0)
    ]
    pages = max(1, -(-len(kept) // PAGE))
    page = min(max(chosen.page, 1), pages)
    rows = [(shelf.records[at], shelf.cloths[at]) for at in kept[(page - 1) * PAGE : page * PAGE]]
    return ClothPage(rows, len(kept), page, pages)


def browse_patterns(drawer: Drawer, chosen: Filters) -> list[PatternRecord]:
    words = key(chosen.q).split()
    return [
        record
        for record in drawer.records
        if all(word in key(f"{record.code} {record.facts.name} {record.facts.garment} {record.house}") for word in words)
        and (not chosen.structure or record.facts.structure == chosen.structure)
    ]
