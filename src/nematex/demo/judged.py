"""600 pairings of the made-up shop with the one verdict that a hand gives each: common practice, no source.

Written down by the product's own hand before the rules of kinship and use were made: it shows where the two part, no truth.
"""

from __future__ import annotations

import csv
from collections.abc import Iterator
from functools import lru_cache
from importlib.resources import files

from nematex.core.cloth.estimates import Cloth, placed_cloth
from nematex.core.pattern.facts import Pattern, Wish
from nematex.core.tables import Tables
from nematex.usecases.assess.calibration import Judged, by_reason
from nematex.usecases.cloth.lists.guessing import guess_columns, with_heading
from nematex.usecases.cloth.lists.price_list import Reading, read_rows
from nematex.usecases.files.formats import sheet_from_file
from nematex.usecases.pattern.exchange import read_patterns


def judged_by_hand(tables: Tables) -> list[Judged]:
    """The pairings as calibration takes them."""
    cloths, patterns = demo_cloths(tables), demo_patterns(tables)
    return [Judged(f"{c} for {p}", cloths[c], patterns[p], Wish(), (verdict,)) for p, c, verdict in _rows()]


@lru_cache(maxsize=2)
def agreement(tables: Tables) -> dict[str, tuple[int, int]]:
    """Of the reasons that the rules give, how many of these hands share, of how many."""
    return by_reason(judged_by_hand(tables), tables)


def demo_cloths(tables: Tables) -> dict[str, Cloth]:
    """The made-up shop's cloths by their names."""
    sheet = with_heading(sheet_from_file(_file("cloths.csv"), "cloths.csv", ""), tables)
    rows = read_rows(Reading(sheet, guess_columns(sheet, tables), tables))
    return {row.record.facts.name: placed_cloth(row.record.facts, tables) for row in rows if row.record}


def demo_patterns(tables: Tables) -> dict[str, Pattern]:
    """Its patterns by their names."""
    records, _ = read_patterns(_file("patterns.json"), "patterns.json", tables)
    return {record.facts.name: record.facts for record in records}


def _rows() -> Iterator[tuple[str, str, str]]:
    for row in csv.DictReader(_file("judged.csv").decode().splitlines()):
        for cloth in row["cloths"].split("|"):
            yield row["pattern"], cloth, row["verdict"]


def _file(name: str) -> bytes:
    return files("nematex.demo").joinpath(name).read_bytes()
