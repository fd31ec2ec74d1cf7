"""A spreadsheet (XLSX) as rows of text, opened with care: it is a zip archive that may claim to be anything."""

from __future__ import annotations

import io
import zipfile
from datetime import date, datetime
from typing import Any

from openpyxl import Workbook, load_workbook
from openpyxl.utils.exceptions import InvalidFileException

from nematex.core.errors import FieldFault
from nematex.usecases.files.archive import is_archive, parts_of
from nematex.usecases.files.csv_text import MAX_COLUMNS, MAX_ROWS, SheetText, sheet_of


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


def xlsx_rows(content: bytes, filename: str) -> list[list[str]]:
    """The rows of the first sheet that holds any; formulas by the values saved with them. Raises FieldFault."""
    check_xlsx(content, filename)
    try:
        book = load_workbook(io.BytesIO(content), read_only=True, data_only=True, keep_links=False)
        for sheet in book.worksheets:
            sheet.reset_dimensions()
            rows = []
            for row in sheet.iter_rows(values_only=True, max_col=MAX_COLUMNS):
                rows.append([_text(cell) for cell in row])
                if len(rows) > MAX_ROWS + 20:
                    raise FieldFault("file", filename, f"has more than {MAX_ROWS} rows; split the list and send the parts")
            if any(cell for row in rows for cell in row):
                return rows
    except FieldFault:
        raise
    except (InvalidFileException, zipfile.BadZipFile, LookupError, ValueError, OSError, SyntaxError, RuntimeError) as fault:
        raise FieldFault("file", filename, f"cannot be opened as a spreadsheet: {fault}") from fault
    raise FieldFault("file", filename, "holds no rows; send a sheet with a line of column names")


def xlsx_sheet(content: bytes, filename: str) -> SheetText:
    return sheet_of(list(enumerate(xlsx_rows(content, filename), 1)), filename, "XLSX", "XLSX")


def xlsx_bytes(columns: list[str], rows: list[list[str | float | None]], title: str) -> bytes:
    """A spreadsheet with one sheet; texts that look like formulas stay texts."""
    book = Workbook(write_only=True)
    sheet = book.create_sheet(title)
    sheet.append(columns)
    for row in rows:
        sheet.append([cell if not isinstance(cell, str) or not cell.startswith("=") else f"'{cell}" for cell in row])
    out = io.BytesIO()
    book.save(out)
    return out.getvalue()
