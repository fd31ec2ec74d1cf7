"""Patterns out as CSV, XLSX and JSON, and in again. What goes out comes in the same."""

from __future__ import annotations

import json
from collections.abc import Callable
from dataclasses import asdict
from functools import partial
from typing import Annotated, Any, Literal

from pydantic import Field, ValidationError

from nematex.core.errors import FieldFault
from nematex.core.links import read_link
from nematex.core.tables import Tables
from nematex.store.records import PatternRecord
from nematex.usecases.assess.pairing import pattern_facts
from nematex.usecases.assess.schema import Clean, PatternIn, Text
from nematex.usecases.files.cells import as_cell, csv_text
from nematex.usecases.files.faults import RowFault
from nematex.usecases.files.formats import format_of
from nematex.usecases.files.xlsx_text import xlsx_bytes

LISTS = ("details", "parts", "requirements", "options", "sizes", "edge_fixes", "reading_fixes")
PATTERN_COLUMNS = (
    "code", "name", "house", "garment", "structure", "recommended", "avoid", "min_stretch_cross_pct",
    "min_stretch_length_pct", "details", "parts", "lined", "nightwear", "for", "widest_piece_cm", "requirements",
    "options", "sizes", "difficulty", "season", "sold_as", "notions", "notes", "licence", "link", "envelope", "edge_fixes",
    "reading_fixes",
)  # fmt: skip
OF_SHOP = ("code", "house", "difficulty", "season", "notes", "sold_as", "licence", "link", "envelope")


class PatternFile(PatternIn):
    """A pattern as it is exchanged: the assess input, and what the shop knows of it."""

    code: Annotated[str, Field(max_length=80), Clean]
    name: Annotated[str, Field(max_length=120), Clean]
    house: Annotated[str, Field(max_length=120), Clean] = ""
    garment: Annotated[str, Field(max_length=120), Clean] | None = None
    difficulty: Annotated[str, Field(max_length=40), Clean] = ""
    season: Annotated[str, Field(max_length=80), Clean] = ""
    notes: Text = ""
    sold_as: Literal["", "paper", "PDF", "paper and PDF"] = ""
    licence: Text = ""
    link: str = ""
    envelope: Annotated[str, Field(max_length=20000), Clean] = ""


def flat_pattern(record: PatternRecord) -> dict[str, Any]:
    """A pattern as JSON values."""
    row = {name: getattr(record, name) for name in OF_SHOP}
    row |= asdict(record.facts)
    row["for"] = row.pop("wearer")
    return {name: row[name] for name in PATTERN_COLUMNS}


def patterns_json(records: list[PatternRecord]) -> str:
    return json.dumps([flat_pattern(record) for record in records], ensure_ascii=False, indent=1)


def _pattern_rows(records: list[PatternRecord]) -> list[dict[str, Any]]:
    """Flat rows whose lists are written as JSON in their cells."""
    rows = []
    for record in records:
        row = flat_pattern(record)
        row |= {name: json.dumps(row[name], ensure_ascii=False) if row[name] else "" for name in LISTS}
        rows.append(row)
    return rows


def patterns_csv(records: list[PatternRecord]) -> str:
    return csv_text(list(PATTERN_COLUMNS), _pattern_rows(records))


def patterns_xlsx(records: list[PatternRecord]) -> bytes:
    """The same columns as the CSV."""
    rows: list[list[str | float | None]] = [
        [as_cell(row[name]) or None for name in PATTERN_COLUMNS] for row in _pattern_rows(records)
    ]
    return xlsx_bytes(list(PATTERN_COLUMNS), rows, "patterns")


def pattern_record(row: dict[str, Any], tables: Tables) -> PatternRecord:
    """A checked pattern; raises pydantic's ValidationError or FieldFault."""
    data = PatternFile.model_validate(row)
    if not (data.structure or data.recommended):
        raise FieldFault("structure", "", "is missing, and no recommended cloths are given; give one of them")
    return PatternRecord(
        code=data.code,
        facts=pattern_facts(data, tables),
        **{name: getattr(data, name) for name in OF_SHOP if name not in ("code", "link")},
        link=read_link(data.link),
    )


def _json(name: str, cell: str) -> Any:
    """A cell that holds a list as JSON; raises FieldFault."""
    try:
        return json.loads(cell)
    except (ValueError, RecursionError) as fault:
        raise FieldFault(name, cell[:60], f"is not JSON: {str(fault)[:120]}") from None


def _from_cells(header: list[str], cells: list[str]) -> dict[str, Any]:
    """A CSV row as JSON values: lists are written as JSON in their cells."""
    row: dict[str, Any] = {}
    for name, cell in zip(header, cells, strict=True):
        if not cell:
            continue
        if name in LISTS:
            row[name] = _json(name, cell)
        elif name in ("lined", "nightwear"):
            row[name] = cell.casefold() in ("yes", "true", "1")
        elif name.endswith(("_cm", "_pct")):
            row[name] = float(cell.replace(",", "."))
        else:
            row[name] = cell.removeprefix("'")
    return row


def _rows(content: bytes, filename: str) -> list[tuple[int, Callable[[], dict[str, Any]]]]:
    """Each row by its number, read when it is asked for: cells may hold what cannot be read."""
    kind = format_of(content)
    if kind.objects:
        return [(number, partial(dict, row)) for number, row in enumerate(kind.objects(content, filename), 1)]
    sheet = kind.sheet(content, filename, "")
    return [(number, partial(_from_cells, sheet.header, cells)) for number, cells in sheet.rows]


def read_patterns(content: bytes, filename: str, tables: Tables) -> tuple[list[PatternRecord], list[RowFault]]:
    """Patterns from a CSV, XLSX or JSON file; faults are returned by row and column, one bad row never stops the rest."""
    records, faults = [], []
    for number, read in _rows(content, filename):
        try:
            records.append(pattern_record(read(), tables))
        except ValidationError as fault:
            for error in fault.errors(include_url=False):
                where = ".".join(str(step) for step in error["loc"])
                faults.append(RowFault(number, where, str(error["input"])[:60], error["msg"].lower()))
        except FieldFault as fault:
            faults.append(RowFault(number, fault.field, str(fault.value)[:60], fault.rule))
        except ValueError as fault:
            faults.append(RowFault(number, "row", "", f"cannot be read: {fault}"))
    return records, faults
