"""The formats that lists come in: each a row here and a small module beside. The first that owns a file reads it."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from nematex.usecases.files.csv_text import SheetText, read_sheet
from nematex.usecases.files.json_text import is_json, json_rows, json_sheet
from nematex.usecases.files.ods_text import check_ods, is_ods, ods_sheet
from nematex.usecases.files.xlsx_text import check_xlsx, is_xlsx, xlsx_sheet


@dataclass(frozen=True, slots=True)
class Format:
    """How a format is told and read. `check` is the quick look before anything is unpacked; each raises FieldFault.

    `sheet` takes the name of a sheet of a workbook, or nothing.

    `objects` is for a format that holds values and not cells.
    """

    name: str
    owns: Callable[[bytes], bool]
    check: Callable[[bytes, str], object]
    sheet: Callable[[bytes, str, str], SheetText]
    objects: Callable[[bytes, str], list[dict[str, Any]]] | None = None


FORMATS = (
    Format("ODS", is_ods, check_ods, ods_sheet),
    Format("XLSX", is_xlsx, check_xlsx, xlsx_sheet),
    Format("JSON", is_json, json_rows, json_sheet, json_rows),
    Format("CSV", lambda _: True, read_sheet, read_sheet),
)


def format_of(content: bytes) -> Format:
    """The format of a file, by what is in it."""
    return next(each for each in FORMATS if each.owns(content))


def sheet_from_file(content: bytes, filename: str, which: str = "") -> SheetText:
    """A list's rows as text, whatever its format and from the sheet of this name; raises FieldFault naming the file."""
    return format_of(content).sheet(content, filename, which)
