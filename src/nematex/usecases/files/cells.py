"""A value as the cell of a table, safe for spreadsheets."""

from __future__ import annotations

import csv
import io
import json
import re
from typing import Any


def safe_cell(cell: str) -> str:
    """A cell that a spreadsheet would run as a formula is quoted."""
    return f"'{cell}" if cell[:1] in ("=", "+", "-", "@", "\t") and not re.fullmatch(r"[+-]?[\d.,]+", cell) else cell


def as_cell(value: Any) -> str:
    """The value as text: yes and no, numbers without a needless point, lists as JSON."""
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


def csv_text(columns: list[str], rows: list[dict[str, Any]]) -> str:
    """Rows as CSV under these columns."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(columns)
    writer.writerows([as_cell(row[name]) for name in columns] for row in rows)
    return out.getvalue()


def sheet_cells(columns: list[str], rows: list[dict[str, Any]]) -> list[list[str | float | None]]:
    """Rows as the cells of a spreadsheet: numbers stay numbers."""
    return [[row[name] if isinstance(row[name], float) else as_cell(row[name]) or None for name in columns] for row in rows]
