"""A pasted text as rows: leading dots are cells, a line may hold several rows, and sizes may stand below what they head."""

from __future__ import annotations

import re

from nematex.core.cloth.lexicon import key
from nematex.core.pattern.paste.amount_rows import WIDTH_AND_LENGTH, lengths_in, width_said
from nematex.core.pattern.paste.draft import Line
from nematex.core.pattern.paste.sizes import read_sizes
from nematex.core.pattern.paste.words import heading, lead_and_rest, measurement, views_of
from nematex.core.quantity.scan import lengths, once
from nematex.core.tables import Tables

# '140 cm.....2.0..2.1': dots that lead the eye stand between cells.
_LEADERS = re.compile(r"(?<=\S)\s*(?:\.{2,}|…+|_{3,}|·{2,})\s*(?=\S)")
_NEXT = re.compile(r"(?<=[A-Za-z0-9)\"”])(?<!\b[Gg]r)\.\s+(?=[A-ZÄÖÜ])")

_NEXT_VIEW = re.compile(r"[.;]\s+(?=(?:view|modell|version)s?\s+[A-Z0-9]\b)", re.IGNORECASE)
_A_VIEW = re.compile(r"\b(?:view|version|modell|variante)\s+[A-Z]\b", re.IGNORECASE)
_BARE_VIEW = re.compile(r"(?<![\w/-])(?P<name>[A-H])\s+(?=\d[\d.,/ ½¼¾⅛⅜⅝⅞]*\s*(?:m|yds?|cm)\b)")  # 'A 1.6 m, B 2.1 m'
LONGEST_LINE = 300
LONGEST_TITLE = 4  # words
PROSE = ("recommended", "avoid", "details", "notions")  # what follows these is theirs to its end


def rows_of(text: str, tables: Tables) -> list[str]:
    """The rows that a line holds: 'Dress A: 150 cm 2.4 m. Tunic B: 150 cm 1.9 m.' is two; prose stays whole."""
    whole = _LEADERS.sub("\t", text.strip())
    views = [row for row in _NEXT_VIEW.split(whole) if row.strip()]
    if len(views) > 1 and all(views_of(row, tables) for row in views):
        return views
    if viewed := _by_views(whole):
        return viewed
    rows = [whole] if WIDTH_AND_LENGTH.search(whole) else [row.strip() for row in _NEXT.split(whole) if row.strip()]
    told = [_is_told(row, tables) for row in rows]
    title = len(rows[0].split()) <= LONGEST_TITLE
    return rows if len(rows) > 1 and all(told[1:]) and (told[0] or title) else [whole]


def _by_views(text: str) -> list[str]:
    """'Fabric needed: View A 1.8 m, View B 2.2 m (150 cm wide)': a row for each view, with the width that is said once."""
    if len(set(_BARE_VIEW.findall(text[:LONGEST_LINE]))) > 1 and not _A_VIEW.search(text):
        text = _BARE_VIEW.sub(r"View \g<name> ", text)
    starts = [found.start() for found in _A_VIEW.finditer(text[:LONGEST_LINE])]
    if len(starts) < 2:
        return []
    pieces = [text[start:end].strip(" ,;") for start, end in zip(starts, [*starts[1:], len(text)], strict=True)]
    if not all(lengths_in(piece) for piece in pieces):
        return []
    widths = {width for piece in pieces if (width := width_said(piece))}
    if len(widths) == 1:
        pieces = [piece if width_said(piece) else f"{piece} {next(iter(widths))}" for piece in pieces]
    head = text[: starts[0]].strip()
    return [head, *pieces] if head else pieces


def _is_told(row: str, tables: Tables) -> bool:
    """Whether a sentence is a row of its own: an amount, a heading with what follows it, a level."""
    found = heading(row, tables)
    return _has_amount(row) or key(row) in tables.paste_words["level"] or (found is not None and found[0] not in PROSE)


def _has_amount(row: str) -> bool:
    found = once(row)
    return len(found) > 1 and any(each.unit in ("m", "yd") for each in found)


def sizes_first(lines: list[Line], tables: Tables) -> list[Line]:
    """The lines in the order in which they are read: where the only list of sizes stands below its rows, it comes first."""
    heads = [line for line in lines if _is_list_of_sizes(line.said, tables)]
    if len(heads) != 1:
        return lines
    above = lines[: lines.index(heads[0])]
    if not any(_waits_for_sizes(line.said, tables) for line in above):
        return lines
    return [heads[0], *(line for line in lines if line is not heads[0])]


def _is_list_of_sizes(text: str, tables: Tables) -> bool:
    found = heading(text.strip(), tables) if text.strip() else None
    return found is not None and found[0] == "sizes" and bool(read_sizes(found[2]))


def _waits_for_sizes(text: str, tables: Tables) -> bool:
    """A row of measurements, or of amounts."""
    first = next(iter(lengths(text)), None)
    lead = lead_and_rest(text)[0] or (text[: first.start] if first else "")
    return bool(lead and measurement(lead, tables)) or _has_amount(text)
