"""Walks the lines of a pasted envelope once, remembering which section, view, band and sizes it is in.

Common practice, no source: a blank line ends a run of text, a heading ends what stood before it, a second list of
sizes begins a second band. Each kind of line has a file of its own.
"""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import replace
from functools import partial

from nematex.core.cloth.lexicon import key
from nematex.core.pattern.envelope import read_envelope
from nematex.core.pattern.paste import facts
from nematex.core.pattern.paste.amount_rows import amounts_line, lengths_in, only_width, width_and_length
from nematex.core.pattern.paste.columns import column_header, column_row
from nematex.core.pattern.paste.design import detail_of, is_prose, pieces
from nematex.core.pattern.paste.draft import Draft, Line
from nematex.core.pattern.paste.garments import garments_of
from nematex.core.pattern.paste.measure_rows import measurement_line, said_again
from nematex.core.pattern.paste.open_state import TABLES, TEXTS, Open
from nematex.core.pattern.paste.options import note_lining, take
from nematex.core.pattern.paste.prose import read_prose
from nematex.core.pattern.paste.reckoned import fill_between
from nematex.core.pattern.paste.rows import rows_of, sizes_first
from nematex.core.pattern.paste.sections import begin_table
from nematex.core.pattern.paste.several import shares
from nematex.core.pattern.paste.size_rows import bare_sizes, on_sizes
from nematex.core.pattern.paste.unsaid_views import name_views
from nematex.core.pattern.paste.view_lines import on_views, use_line, view_line
from nematex.core.pattern.paste.width_columns import width_columns, width_row
from nematex.core.pattern.paste.words import heading, lead_and_rest, plain
from nematex.core.quantity.scan import once
from nematex.core.tables import Tables

LONGEST_TITLE, LONGEST_ROW, LONGEST_PROSE, LONGEST_PARTED = 80, 600, 1000, 20_000
_CODE = re.compile(r"\b[A-Z]{1,4}[- ]?\d{1,5}[A-Z]?\b|(?<=#)\d{2,6}\b")
_SENTENCE_END = re.compile(r"(?<=[a-zäöüß])[.!]\s+(?=[A-ZÄÖÜ])")
_SENTENCE = re.compile(
    r"\b(?:suitable|suggested|recommended|designed|made for|works? best|best in|ideal|perfect (?:in|for)|use|choose)\b",
    re.IGNORECASE,
)
# What is done with the words of a heading and what follows it; other headings begin a run of text.
HEADINGS: dict[str, Callable[[Open, Line, str, str], bool]] = {
    "sizes": on_sizes,
    "views": on_views,
    **{name: partial(begin_table, name=name) for name in TABLES},
    "difficulty": facts.on_difficulty,
    "stretch": facts.on_stretch,
    "sold_as": facts.on_sold_as,
    "parts": facts.on_parts,
    "nap": facts.on_nap,
    "widest": facts.on_widest,
    "structure": facts.on_structure,
    "wearer": facts.on_wearer,
}


_CLOTH_OF_VIEW = re.compile(r"(?:fabric|cloth|stoff)\s+(?P<name>[A-H])\b", re.IGNORECASE)


def cloth_of_view(at: Open, line: Line, text: str) -> bool:
    """'Fabric B 140 cm: 2.8 m': where the envelope has such views it is no second cloth; what follows is of all again."""
    found = _CLOTH_OF_VIEW.match(text)
    if found is None or not at.has_view(found["name"].upper()) or not lengths_in(text):
        return False
    before = at.views
    begin_table(at, line, "", f"View {text[found.start('name') :]}", "requirements")
    at.views = before
    return True


def heading_line(at: Open, line: Line, text: str) -> bool:
    """A heading, and what follows it on its line."""
    found = heading(text, at.tables)
    if found is None:
        return False
    kind, lead, rest = found
    step = HEADINGS.get(kind)
    if step and len(text) > LONGEST_ROW:
        line.fault = f"is {len(text)} letters long; a row of a table has at most {LONGEST_ROW}"
        return True
    if step:
        return step(at, line, lead, rest)
    if kind in ("recommended", "notions"):
        at.section, before = "", at.section  # '1 button' below a table of amounts is no metre
        if amounts_line(at, line, text):
            at.section = before
            return True
    if kind == "recommended" and only_width(rest) and not read_envelope(rest, at.tables).cloths:
        return begin_table(at, line, lead, rest, "requirements")  # 'Fabric: 150 cm' heads amounts
    at.section, at.views = kind, []
    if rest:
        take(at, line, kind, rest)
    line.field = line.field or kind
    if rest and kind in ONE_LINE:
        at.section = ""
    return True


def part_line(at: Open, line: Line, text: str) -> bool:
    """'Sleeves: dotted tulle' and 'Sleeves in dotted tulle: 0.8 m of 140 cm' speak of one part's cloth."""
    lead, rest = lead_and_rest(text)
    words = plain(lead).split(" in ")
    part = at.tables.parts.find(words[0]) if lead else None
    if part is None or at.section == "views":
        return False
    use, at.use = at.use, "main" if part.name == "body" else "contrast"
    amounts = amounts_line(at, line, rest)
    at.use = use
    if amounts:
        if len(words) > 1:
            at.draft.add_text("recommended", lead.strip() + ".")
        return True
    if not read_envelope(rest, at.tables).cloths:
        return False
    at.draft.add_text("recommended", text if text.endswith(".") else f"{text}.")
    line.field = "recommended"
    return True


def _line(at: Open, line: Line, text: str) -> None:
    steps = STEPS if len(text) <= LONGEST_ROW else (heading_line,)  # a longer line is prose, or nothing
    if any(step(at, line, text) for step in steps):
        return
    if at.section == "lining" and is_prose(text) and not read_envelope(text, at.tables).cloths:
        at.section = ""  # a sentence about the design is no more of the lining's table
    if at.section in TEXTS:
        take(at, line, at.section, text)
    elif is_prose(text) and _says_nothing(at, text):
        line.field = "no bearing"
    elif _is_list_of_cloths(at, text):
        take(at, line, "recommended", text)
    elif is_prose(text) and not _SENTENCE.search(text) and read_prose(at, text):
        line.field = "details"
    elif at.draft.texts.get("name") or _begun(at, line) or len(text) > LONGEST_TITLE or _SENTENCE.search(text):
        _loose(at, line, text)
    else:
        _title(at, line, text)


def _is_list_of_cloths(at: Open, text: str) -> bool:
    """Whether a line without a heading names cloths, and little else: 'French terry, sweatshirting with 20 % stretch'."""
    if len(text) > LONGEST_PROSE:
        return False
    reading = read_envelope(text, at.tables)
    named = [clause for clause in reading.clauses if clause.kind in ("cloth", "structure")]
    limits = [clause for clause in reading.clauses if clause.kind in ("cross", "both", "length", "gsm")]
    if not named or garments_of(text, at.tables) or len(reading.unread) > len(named):
        return False
    return len(named) > 1 or bool(limits) or bool(at.draft.texts.get("name"))


def _says_nothing(at: Open, text: str) -> bool:
    """'A classic for every season.' is understood, and has no bearing on the cloth."""
    words = read_envelope(text, at.tables).heaps if len(text) <= LONGEST_PROSE else []
    designed = garments_of(text, at.tables) or any(detail_of(piece, at.tables) for piece in pieces(text))
    return bool(words) and all(word.kind == "idle" for word in words) and not designed


def _begun(at: Open, line: Line) -> bool:
    """Whether it is too late for a title: tables or cloths have been read, or it is not near the top."""
    read = bool(at.draft.sizes or at.draft.requirements or at.draft.texts.get("recommended"))
    return line.number > 3 or (line.number > 1 and read)


def _title(at: Open, line: Line, text: str) -> None:
    """'BR-50 Godwit wide trousers by Brindlecote': code, name, house and kind of garment."""
    code = _CODE.search(text)
    if code:
        at.draft.texts["code"] = code[0]
        text = (text[: code.start()] + " " + text[code.end() :]).strip(" #-–,:")
    text = _without_level(at, text)
    if (sentence := _SENTENCE_END.search(text)) and len(text[: sentence.start()].split()) > 1:
        text = text[: sentence.start()]  # 'Whinchat skirt. A flippy little skirt!'
    name, _, house = text.partition(" by ")
    if not house and " | " in name:
        name, _, house = name.partition(" | ")
    at.draft.texts["name"] = " ".join(name.split()).strip(" -–,")
    if house:
        at.draft.texts["house"] = house.strip()
    read_prose(at, text, title=True)
    line.field = "name"


def _without_level(at: Open, text: str) -> str:
    """'Godwit trousers · easy': a level that stands apart is taken from the title."""
    pieces = [piece.strip() for piece in re.split(r"\s[·•|/–-]\s|\s*\(|\)", text) if piece.strip()]
    levels = at.tables.paste_words["level"]
    level = next((piece for piece in pieces[1:] if key(piece) in levels), None)
    if level is None:
        return text
    at.draft.texts.setdefault("difficulty", levels[key(level)])
    return " · ".join(piece for piece in pieces if piece != level)


def _loose(at: Open, line: Line, text: str) -> None:
    """A sentence without a heading: what it says of the cloth, of lining, or of its parts."""
    if len(text) > LONGEST_PROSE:
        return
    low = text.casefold()
    reading = read_envelope(text, at.tables)
    if re.match(r"not suitable|unsuitable|avoid|do not", low):
        take(at, line, "recommended" if at.draft.texts.get("recommended") else "avoid", text)
    elif _SENTENCE.search(text) and (reading.cloths or reading.structures or reading.weights):
        take(at, line, "recommended", text)
        at.section = "recommended"
    elif re.search(r"\blined\b", low):
        note_lining(at, text)
        line.field = "lining"
    else:
        line.field = "details" if read_prose(at, text) else ""


def nap_legend(at: Open, line: Line, text: str) -> bool:
    """'*** with or without nap': what the stars beside the widths mean."""
    if not facts.LEGEND.search(text) or once(text):
        return False
    line.field = "nap"
    return True


def stretch_line(at: Open, line: Line, text: str) -> bool:
    """'4" must stretch to 5 1/2"': the least stretch, as a stretch gauge on an envelope says it."""
    percent = facts.pulled_pct(text)
    if percent is None:
        return False
    at.draft.numbers["min_stretch_cross_pct"], line.field = percent, "stretch"
    return True


# What a line says whole: the next one is not more of it.
ONE_LINE = ("name", "code", "house", "garment", "difficulty", "season", "sold_as")

# Tried in this order; the first that knows the line takes it.
STEPS: tuple[Callable[[Open, Line, str], bool], ...] = (
    column_row,
    width_row,
    width_columns,
    column_header,
    facts.audience,
    facts.level,
    nap_legend,
    use_line,
    view_line,
    stretch_line,
    width_and_length,
    cloth_of_view,
    heading_line,
    part_line,
    measurement_line,
    amounts_line,
    bare_sizes,
    said_again,
)


def read_paste(text: str, tables: Tables) -> Draft:
    """Read a pasted envelope; what was not understood is in `unread`, and rows that do not fit say why.

    Of an envelope of several garments the draft is the first one's, and `garments` has each one's own.
    """
    lines = [Line(number, raw) for number, raw in enumerate(text.replace("\r", "").replace("\u00a0", " ").split("\n"), 1)]
    parted = shares(lines, tables) if len(text) <= LONGEST_PARTED else []
    if not parted:
        return _read(lines, facts.stars_of(text), tables)
    drafts = [_read(list(each.lines), facts.stars_of(text), tables, each.garment) for each in parted]
    if len({draft.texts.get("name", "") for draft in drafts}) < len(drafts):
        for draft in drafts:
            name, garment = draft.texts.get("name", ""), draft.texts["garment"]
            draft.texts["name"] = f"{name}, {garment}" if name else garment
    return replace(drafts[0], lines=_as_pasted(lines, drafts), garments=drafts)


def _read(lines: list[Line], stars: dict[int, bool], tables: Tables, garment: str = "") -> Draft:
    at = Open(tables, stars=stars)
    at.draft.lines = lines
    if garment:
        at.draft.texts["garment"] = garment
    for line in sizes_first(lines, tables):
        if line.said.strip():
            for row in rows_of(line.said, tables):
                _line(at, line, row)
        elif line.row is not None:
            line.field = "garment"  # a garment's name above its block
        else:
            at.columns, at.widths = [], []
            at.section = at.section if at.section in TABLES and at.section != "lining" else ""
    name_views(at.draft)
    fill_between(at.draft)
    return at.draft


def _as_pasted(lines: list[Line], drafts: list[Draft]) -> list[Line]:
    """Each line as it was pasted, with the fields and faults of all garments that it was read for."""
    found: dict[int, Line] = {line.number: line for line in lines}
    for each in (line for draft in drafts for line in draft.lines):
        line = found[each.number]
        line.field, line.fault = line.field or each.field, line.fault or each.fault
    return lines
