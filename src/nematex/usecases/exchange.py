"""Cloths and patterns out as CSV and JSON, and patterns in again. What goes out comes in the same."""

from __future__ import annotations

import csv
import io
import json
from dataclasses import asdict
from typing import Annotated, Any, Literal

from pydantic import Field, ValidationError

from nematex.core.errors import FieldFault
from nematex.core.tables import Tables
from nematex.store.records import ClothRecord, PatternRecord
from nematex.tables import properties
from nematex.usecases.assess.pairing import pattern_facts
from nematex.usecases.assess.schema import PatternIn, ShortText, Text
from nematex.usecases.cloth.colourways import say_bolts, say_colourways
from nematex.usecases.cloth.lists.csv_text import SheetText, read_sheet, sheet_of
from nematex.usecases.cloth.lists.price_list import RowFault, safe_cell
from nematex.usecases.cloth.lists.xlsx_text import is_archive, xlsx_bytes, xlsx_rows
from nematex.usecases.cloth.values import value_of

LISTS = ("details", "parts", "requirements", "options", "sizes", "edge_fixes", "reading_fixes")
PATTERN_COLUMNS = (
    "code", "name", "house", "garment", "structure", "recommended", "avoid", "min_stretch_cross_pct",
    "min_stretch_length_pct", "details", "parts", "lined", "nightwear", "for", "widest_piece_cm", "requirements",
    "options", "sizes", "difficulty", "season", "sold_as", "notions", "notes", "licence", "envelope", "edge_fixes",
    "reading_fixes",
)  # fmt: skip
OF_SHOP = ("code", "house", "difficulty", "season", "notes", "sold_as", "licence", "envelope")


def flat_cloth(record: ClothRecord) -> dict[str, Any]:
    """A cloth as one flat row, under the names that the import knows."""
    row = {name: value_of(record, prop) for name, prop in properties().items()}
    for name in ("price_per_m", "sale_price_per_m"):
        price = row[name]
        row[name] = format(price.normalize(), "f") if price is not None else None
    row["colours"] = " ".join(record.colours)
    row["colourways"], row["bolts"] = say_colourways(record.colourways), say_bolts(record.bolts)
    row["arrived"] = record.arrived.isoformat() if record.arrived else None
    row["known"] = json.dumps(dict(record.facts.known)) if record.facts.known else None
    return row


def _cell(value: Any) -> str:
    if value is None:
        return ""
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, float):
        return repr(value).removesuffix(".0")
    if isinstance(value, (list, dict)):
        return json.dumps(value, ensure_ascii=False)
    text = str(value)
    return f"'{text}" if text.startswith("'") else safe_cell(text)


def _csv(columns: list[str], rows: list[dict[str, Any]]) -> str:
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(columns)
    writer.writerows([_cell(row[name]) for name in columns] for row in rows)
    return out.getvalue()


def cloths_csv(records: list[ClothRecord]) -> str:
    return _csv(list(properties()), [flat_cloth(record) for record in records])


def cloths_json(records: list[ClothRecord]) -> str:
    return json.dumps([flat_cloth(record) for record in records], ensure_ascii=False, indent=1)


def cloths_xlsx(records: list[ClothRecord]) -> bytes:
    """The same columns as the CSV; numbers stay numbers."""
    columns = list(properties())
    rows = [flat_cloth(record) for record in records]
    cells = [[row[name] if isinstance(row[name], float) else _cell(row[name]) or None for name in columns] for row in rows]
    return xlsx_bytes(columns, cells, "cloths")


def sheet_from_file(content: bytes, filename: str) -> SheetText:
    """A CSV text, an XLSX spreadsheet, or a JSON list of flat objects, as a sheet."""
    if is_archive(content):
        return sheet_of(list(enumerate(xlsx_rows(content, filename), 1)), filename, "XLSX", "XLSX")
    lead = content[:64].lstrip(b"\xef\xbb\xbf \r\n\t")
    if not lead.startswith(b"["):
        return read_sheet(content, filename)
    rows = json_rows(content, filename)
    header = list(dict.fromkeys(name for row in rows for name in row))
    body = [(at, [_cell(row.get(name)) for name in header]) for at, row in enumerate(rows, 1)]
    return SheetText(header, body, "utf-8", "JSON")


def json_rows(content: bytes, filename: str) -> list[dict[str, Any]]:
    """A JSON list of objects; raises FieldFault."""
    try:
        rows = json.loads(content.decode("utf-8-sig"))
    except (UnicodeDecodeError, json.JSONDecodeError, RecursionError) as fault:
        raise FieldFault("file", filename, f"is not JSON: {fault}") from None
    if not isinstance(rows, list) or not rows or not all(isinstance(row, dict) for row in rows):
        raise FieldFault("file", filename, "must be a JSON list of objects, as the export writes it")
    return rows


class PatternFile(PatternIn):
    """A pattern as it is exchanged: the assess input, and what the shop knows of it."""

    code: ShortText
    name: ShortText
    house: ShortText = ""
    difficulty: ShortText = ""
    season: ShortText = ""
    notes: Text = ""
    sold_as: Literal["", "paper", "PDF", "paper and PDF"] = ""
    licence: Text = ""
    envelope: Annotated[str, Field(max_length=20000)] = ""


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
    return _csv(list(PATTERN_COLUMNS), _pattern_rows(records))


def patterns_xlsx(records: list[PatternRecord]) -> bytes:
    """The same columns as the CSV."""
    rows: list[list[str | float | None]] = [
        [_cell(row[name]) or None for name in PATTERN_COLUMNS] for row in _pattern_rows(records)
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
        **{name: getattr(data, name) for name in OF_SHOP if name != "code"},
    )


def _from_cells(header: list[str], cells: list[str]) -> dict[str, Any]:
    """A CSV row as JSON values: lists are written as JSON in their cells."""
    row: dict[str, Any] = {}
    for name, cell in zip(header, cells, strict=True):
        if not cell:
            continue
        if name in LISTS:
            row[name] = json.loads(cell)
        elif name in ("lined", "nightwear"):
            row[name] = cell.casefold() in ("yes", "true", "1")
        elif name.endswith(("_cm", "_pct")):
            row[name] = float(cell.replace(",", "."))
        else:
            row[name] = cell.removeprefix("'")
    return row


def read_patterns(content: bytes, filename: str, tables: Tables) -> tuple[list[PatternRecord], list[RowFault]]:
    """Patterns from a CSV, XLSX or JSON file; faults are returned by row and column, one bad row never stops the rest."""
    if is_archive(content):
        sheet: SheetText | None = sheet_of(list(enumerate(xlsx_rows(content, filename), 1)), filename, "XLSX", "XLSX")
    else:
        sheet = None if content[:64].lstrip(b"\xef\xbb\xbf \r\n\t").startswith(b"[") else read_sheet(content, filename)
    raw: list[tuple[int, Any]] = (
        [(number, cells) for number, cells in sheet.rows] if sheet else list(enumerate(json_rows(content, filename), 1))
    )
    records, faults = [], []
    for number, given in raw:
        try:
            records.append(pattern_record(_from_cells(sheet.header, given) if sheet else given, tables))
        except ValidationError as fault:
            for error in fault.errors(include_url=False):
                where = ".".join(str(step) for step in error["loc"])
                faults.append(RowFault(number, where, str(error["input"])[:60], error["msg"].lower()))
        except FieldFault as fault:
            faults.append(RowFault(number, fault.field, str(fault.value)[:60], fault.rule))
        except ValueError as fault:
            faults.append(RowFault(number, "row", "", f"cannot be read: {fault}"))
    return records, faults
