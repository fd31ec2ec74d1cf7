"""A supplier's file as rows of text: encoding and separator found, and what is no list refused in words."""

from __future__ import annotations

import csv
import io
from dataclasses import dataclass, replace

from charset_normalizer import from_bytes

from nematex.core.errors import FieldFault

MAX_BYTES = 8 * 2**20
MAX_ROWS = 20_000
MAX_COLUMNS = 80
MOST_SHEETS = 30
CHOICES = "send a CSV text file (commas, semicolons or tabs) with a line of column names"


@dataclass(frozen=True)
class SheetText:
    """The rows of a list: header, body with the line number of each row, and how it was read.

    `name` is the sheet of a workbook, `sheets` those that could be read instead.
    """

    header: list[str]
    rows: list[tuple[int, list[str]]]
    encoding: str
    separator: str
    name: str = ""
    sheets: tuple[str, ...] = ()


MARKS = ((b"\xef\xbb\xbf", "utf-8-sig"), (b"\xff\xfe", "utf-16"), (b"\xfe\xff", "utf-16"))
PROGRAMS = (b"%PDF", b"\x89PNG", b"\xff\xd8\xff\xe0", b"GIF8", b"\xd0\xcf\x11\xe0")


def _as(content: bytes, encoding: str) -> str | None:
    """The text in this encoding; None where it is not in it."""
    try:
        return content.decode(encoding)
    except UnicodeDecodeError:
        return None


def _decode(content: bytes, filename: str) -> tuple[str, str]:
    """The text and its encoding: by its mark, else UTF-8, else what western price lists are written in, else a guess."""
    if not content.strip():
        raise FieldFault("file", filename, f"is empty; {CHOICES}")
    if len(content) > MAX_BYTES:
        raise FieldFault(
            "file", filename, f"has {len(content) / 2**20:.0f} MB; at most {MAX_BYTES // 2**20} MB are read: split the list"
        )
    marked = next((encoding for mark, encoding in MARKS if content.startswith(mark)), "")
    if marked and (text := _as(content, marked)) is not None:
        return text, marked
    if b"\0" in content[:4096] or content[:4] in PROGRAMS:
        raise FieldFault("file", filename, f"is not text; {CHOICES}")
    if (text := _as(content, "utf-8")) is not None:
        return text, "utf-8"
    # Western price lists that are not UTF-8 are nearly always Windows-1252; the guesser is asked only beyond that.
    text = _as(content, "cp1252")
    if text is not None and not any(ord(letter) < 32 and letter not in "\t\r\n" for letter in text[:4096]):
        return text, "windows-1252"
    best = from_bytes(content[: 2**18]).best()
    if best is None:
        raise FieldFault("file", filename, f"is in an encoding that was not recognised; save it as UTF-8, then {CHOICES}")
    return content.decode(best.encoding, errors="replace"), best.encoding


def read_sheet(content: bytes, filename: str, _which: str = "") -> SheetText:
    """Rows of a CSV text; raises FieldFault naming the file and what to send instead."""
    text, encoding = _decode(content, filename)
    start = text.lstrip()[:200].casefold()
    if start.startswith(("<!doctype", "<html", "<?xml", "<table")):
        raise FieldFault("file", filename, f"is a web page and not a list; {CHOICES}")
    lines = text.splitlines()
    lead = next((line for line in lines if line.strip()), "")
    if lead.casefold().startswith("sep=") and len(lead.strip()) == 5:
        separator = lead.strip()[4]
        text = text.split(lead, 1)[1]
    else:
        counts = {mark: sum(line.count(mark) for line in lines[:30]) for mark in (";", "\t", ",", "|")}
        in_lead = {mark: lead.count(mark) for mark in counts}
        separator = max(counts, key=lambda mark: (in_lead[mark] > 0, in_lead[mark], counts[mark]))
    try:
        reader = csv.reader(io.StringIO(text, newline=""), delimiter=separator, strict=False)
        numbered = [(reader.line_num, [cell.strip() for cell in row]) for row in reader]
    except csv.Error as fault:
        raise FieldFault("file", filename, f"cannot be read as CSV: {fault}; {CHOICES}") from None
    return sheet_of(numbered, filename, encoding, separator)


def sheet_of(numbered: list[tuple[int, list[str]]], filename: str, encoding: str, separator: str) -> SheetText:
    """Numbered rows as a sheet: the heading found, empty rows left out, every row as long as the heading."""
    body = [(number, row) for number, row in numbered if any(row)]
    start_at = _header_at(body)
    if start_at is None or len(body) <= start_at + 1:
        raise FieldFault("file", filename, f"holds no rows below a line of column names; {CHOICES}")
    if len(body) > MAX_ROWS:
        raise FieldFault("file", filename, f"holds {len(body)} rows; at most {MAX_ROWS} are read: split the list")
    wide = max(len(row) for _, row in body[start_at:])
    full = [(n, row + [""] * (wide - len(row))) for n, row in body[start_at:]]
    kept = [at for at in range(wide) if any(row[at] for _, row in full)][:MAX_COLUMNS]  # spreadsheets have empty columns
    header, *rows = ((n, [row[at] for at in kept]) for n, row in full)
    return SheetText(header[1], rows, encoding, separator)


def chosen_sheet(sheets: list[tuple[str, list[list[str]]]], which: str, filename: str, kind: str) -> SheetText:
    """The named sheet of a workbook, else the one that holds most; the others are named. Raises FieldFault."""
    found: dict[str, SheetText] = {}
    refused: FieldFault | None = None
    for name, rows in sheets:
        try:
            found[name] = sheet_of(list(enumerate(rows, 1)), filename, kind, kind)
        except FieldFault as fault:
            refused = refused or fault
    if not found:
        raise refused or FieldFault("file", filename, "holds no rows; send a sheet with a line of column names")
    fullest = max(found, key=lambda name: len(found[name].rows) * len(found[name].header))
    name = which if which in found else fullest
    return replace(found[name], name=name, sheets=tuple(found))


def _header_at(body: list[tuple[int, list[str]]]) -> int | None:
    """The fullest of the first rows that holds no bare number: a title above the column names is less full."""
    full = {
        at: sum(map(bool, row))
        for at, (_, row) in enumerate(body[:15])
        if not any(cell.replace(".", "").replace(",", "").isdigit() for cell in row)
    }
    best = max(full, key=lambda at: full[at], default=None)
    return best if best is not None and full[best] >= 2 else None
