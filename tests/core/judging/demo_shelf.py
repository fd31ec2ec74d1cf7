"""The made-up shop's cloths and patterns by their names, read from the files it ships with."""

from __future__ import annotations

import csv
from collections.abc import Iterator
from importlib.resources import files
from pathlib import Path

from nematex.core.cloth.estimates import Cloth, placed_cloth
from nematex.core.pattern.facts import Pattern
from nematex.core.tables import Tables
from nematex.usecases.cloth.lists.guessing import guess_columns, with_heading
from nematex.usecases.cloth.lists.price_list import Reading, read_rows
from nematex.usecases.files.formats import sheet_from_file
from nematex.usecases.pattern.exchange import read_patterns


def cloths(tables: Tables) -> dict[str, Cloth]:
    sheet = with_heading(sheet_from_file(_file("cloths.csv"), "cloths.csv", ""), tables)
    rows = read_rows(Reading(sheet, guess_columns(sheet, tables), tables))
    return {row.record.facts.name: placed_cloth(row.record.facts, tables) for row in rows if row.record}


def patterns(tables: Tables) -> dict[str, Pattern]:
    records, faults = read_patterns(_file("patterns.json"), "patterns.json", tables)
    assert not faults
    return {record.facts.name: record.facts for record in records}


def judged() -> Iterator[tuple[str, str, str]]:
    """Pattern, cloth, and the one verdict that a hand gives the two."""
    with (Path(__file__).parent / "judged_demo.csv").open(encoding="utf-8") as rows:
        for row in csv.DictReader(rows):
            for cloth in row["cloths"].split("|"):
                yield row["pattern"], cloth, row["verdict"]


def _file(name: str) -> bytes:
    return files("nematex.demo").joinpath(name).read_bytes()
