"""A JSON list of objects, as the export writes it."""

from __future__ import annotations

import json
from typing import Any

from nematex.core.errors import FieldFault
from nematex.core.sent_json import read_sent
from nematex.usecases.files.cells import as_cell
from nematex.usecases.files.csv_text import MAX_ROWS, SheetText

BLANK = b"\xef\xbb\xbf \r\n\t"


def is_json(content: bytes) -> bool:
    return content[:64].lstrip(BLANK).startswith(b"[")


def json_rows(content: bytes, filename: str) -> list[dict[str, Any]]:
    """The objects of the list; raises FieldFault."""
    try:
        rows = read_sent(content.decode("utf-8-sig"))
    except (UnicodeDecodeError, json.JSONDecodeError, RecursionError, ValueError) as fault:
        raise FieldFault("file", filename, f"is not JSON: {str(fault)[:200]}") from None
    if not isinstance(rows, list) or not rows or not all(isinstance(row, dict) for row in rows):
        raise FieldFault("file", filename, "must be a JSON list of objects, as the export writes it")
    if len(rows) > MAX_ROWS:
        raise FieldFault("file", filename, f"holds {len(rows)} rows; at most {MAX_ROWS} are read: split the list")
    return rows


def json_sheet(content: bytes, filename: str, _which: str = "") -> SheetText:
    """The same as rows of text, a column for each name."""
    rows = json_rows(content, filename)
    header = list(dict.fromkeys(name for row in rows for name in row))
    body = [(number, [as_cell(row.get(name)) for name in header]) for number, row in enumerate(rows, 1)]
    return SheetText(header, body, "utf-8", "JSON")
