"""A spreadsheet in the open document format (ODS) as rows of text: one XML part of a zip archive, read as it streams.

Cells carry their values as attributes (office:value, office:date-value) and repeat by number (OpenDocument 1.2 part 1,
chapter 9, from memory).
"""

from __future__ import annotations

import io
import zipfile
from collections.abc import Iterator
from itertools import islice
from xml.etree.ElementTree import Element

from defusedxml.ElementTree import iterparse

from nematex.core.errors import FieldFault
from nematex.usecases.files.archive import is_archive, parts_of
from nematex.usecases.files.csv_text import MAX_COLUMNS, MAX_ROWS, MOST_SHEETS, SheetText, chosen_sheet

KIND = b"application/vnd.oasis.opendocument.spreadsheet"
TABLE = "{urn:oasis:names:tc:opendocument:xmlns:table:1.0}"
OFFICE = "{urn:oasis:names:tc:opendocument:xmlns:office:1.0}"
TEXT = "{urn:oasis:names:tc:opendocument:xmlns:text:1.0}"


def is_ods(content: bytes) -> bool:
    """An archive whose first part says so, as the format asks."""
    return is_archive(content) and KIND in content[:200]


def check_ods(content: bytes, filename: str) -> None:
    """Refuse what cannot be opened before anything is unpacked."""
    if "content.xml" not in {part.filename for part in parts_of(content, filename)}:
        raise FieldFault("file", filename, "is an ODS without its content; save it again, or send it as CSV")


def _times(element: Element, name: str, most: int) -> int:
    """How often a row or cell repeats: an empty sheet's last one claims a million."""
    text = element.get(f"{TABLE}{name}", "1")
    return min(int(text), most) if text.isdecimal() and len(text) < 9 else most


def _cell(cell: Element) -> str:
    kind = cell.get(f"{OFFICE}value-type")
    if kind in ("float", "percentage", "currency"):
        value = cell.get(f"{OFFICE}value", "").removesuffix(".0")
        return f"{float(value) * 100:g} %" if kind == "percentage" and value else value
    if kind == "date":
        return cell.get(f"{OFFICE}date-value", "")[:10]
    if kind == "boolean":
        return "yes" if cell.get(f"{OFFICE}boolean-value") == "true" else "no"
    return " ".join(" ".join("".join(line.itertext()) for line in cell.iter(f"{TEXT}p")).split())


def _row(row: Element) -> list[str]:
    cells: list[str] = []
    for cell in row:
        if cell.tag in (f"{TABLE}table-cell", f"{TABLE}covered-table-cell"):
            cells += [_cell(cell)] * _times(cell, "number-columns-repeated", MAX_COLUMNS - len(cells))
    return cells[:MAX_COLUMNS]


def _sheets(content: bytes, filename: str) -> Iterator[tuple[str, list[list[str]]]]:
    """The name and rows of each sheet; repeated rows count only where they hold something."""
    rows: list[list[str]] = []
    with zipfile.ZipFile(io.BytesIO(content)) as archive, archive.open("content.xml") as part:
        for _, element in iterparse(part, forbid_dtd=True):
            if element.tag == f"{TABLE}table-row":
                row = _row(element)
                times = _times(element, "number-rows-repeated", MAX_ROWS) if any(row) else 1
                rows += [row] * times
                element.clear()
                if len(rows) > MAX_ROWS + 20:
                    raise FieldFault("file", filename, f"has more than {MAX_ROWS} rows; split the list and send the parts")
            elif element.tag == f"{TABLE}table":
                if any(cell for row in rows for cell in row):
                    yield element.get(f"{TABLE}name", ""), rows
                rows = []


def ods_sheet(content: bytes, filename: str, which: str = "") -> SheetText:
    """The rows of the chosen sheet; formulas by the values saved with them. Raises FieldFault."""
    check_ods(content, filename)
    try:
        sheets = list(islice(_sheets(content, filename), MOST_SHEETS))
    except FieldFault:
        raise
    except Exception as fault:  # a damaged file can break the libraries anywhere
        raise FieldFault("file", filename, f"cannot be opened as a spreadsheet: {str(fault)[:200]}") from fault
    return chosen_sheet(sheets, which, filename, "ODS")
