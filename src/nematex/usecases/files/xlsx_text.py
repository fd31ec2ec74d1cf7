"""A spreadsheet (XLSX) as rows of text, opened with care: it is a zip archive that may claim to be anything."""

from __future__ import annotations

import io
from datetime import date, datetime
from typing import Any

from nematex.core.errors import FieldFault
from nematex.core.signs import without_controls
from nematex.usecases.files.archive import is_archive, parts_of
from nematex.usecases.files.csv_text import MAX_COLUMNS, MAX_ROWS, MOST_SHEETS, SheetText, chosen_sheet


def is_xlsx(content: bytes) -> bool:
    """Any archive that no other format owns is taken for one, and refused in words where it is none."""
    return is_archive(content)


def check_xlsx(content: bytes, filename: str) -> None:
    """Refuse what is no XLSX before anything is unpacked."""
    if "xl/workbook.xml" not in {part.filename for part in parts_of(content, filename)}:
        raise FieldFault("file", filename, "is an archive but no spreadsheet; send XLSX, ODS, CSV or JSON")


def _text(value: Any) -> str:
    if value is None:
        return ""
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, float):
        return repr(round(value, 6)).removesuffix(".0")
    if isinstance(value, datetime):
        return value.date().isoformat()
    if isinstance(value, date):
        return value.isoformat()
    # A line break inside a cell would break the row.
    return " ".join(str(value).split())


def xlsx_rows(content: bytes, filename: str) -> list[tuple[str, list[list[str]]]]:
    """Each sheet that holds rows, by name; formulas by the values saved with them. Raises FieldFault."""
    from openpyxl import load_workbook

    check_xlsx(content, filename)
    try:
        book = load_workbook(io.BytesIO(content), read_only=True, data_only=True, keep_links=False)
        sheets, total = [], 0
        for sheet in book.worksheets[:MOST_SHEETS]:
            sheet.reset_dimensions()
            rows: list[list[str]] = []
            for row in sheet.iter_rows(values_only=True, max_col=MAX_COLUMNS):
                rows.append([_text(cell) for cell in row])
                total += 1
                if total > MAX_ROWS + 20:
                    raise FieldFault("file", filename, f"has more than {MAX_ROWS} rows; split the list and send the parts")
            if any(cell for row in rows for cell in row):
                sheets.append((sheet.title, rows))
    except FieldFault:
        raise
    except Exception as fault:  # a damaged file can break the library anywhere
        raise FieldFault("file", filename, f"cannot be opened as a spreadsheet: {fault}") from fault
    return sheets


def xlsx_sheet(content: bytes, filename: str, which: str = "") -> SheetText:
    return chosen_sheet(xlsx_rows(content, filename), which, filename, "XLSX")


def _safe(cell: str) -> str:
    """A text that is no formula, without signs that no spreadsheet can hold."""
    cell = without_controls(cell)
    return f"'{cell}" if cell.startswith("=") else cell


def xlsx_bytes(columns: list[str], rows: list[list[str | float | None]], title: str) -> bytes:
    """A spreadsheet with one sheet; texts that look like formulas stay texts."""
    from openpyxl import Workbook  # it weighs as much as half a room: only who writes or reads a spreadsheet has it

    book = Workbook(write_only=True)
    sheet = book.create_sheet(title)
    sheet.append(columns)
    for row in rows:
        sheet.append([_safe(cell) if isinstance(cell, str) else cell for cell in row])
    out = io.BytesIO()
    book.save(out)
    return out.getvalue()
