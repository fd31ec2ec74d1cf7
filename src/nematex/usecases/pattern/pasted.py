"""A pasted envelope in the pattern form: which of its garments fills it, and where what was not read is put.

What somebody typed stays. Of an envelope of several garments each is a form, and a pattern, of its own.
"""

from __future__ import annotations

import re
from collections.abc import Collection, Mapping
from dataclasses import replace
from itertools import count

from nematex.core.codes import code_key
from nematex.core.pattern.envelope import read_envelope
from nematex.core.pattern.paste import Draft, read_paste
from nematex.core.tables import Tables
from nematex.usecases.pattern.form import as_texts, label_of

HELD, DONE = "held", "done"  # fields: of which garment of the envelope the form is; which are kept already, with commas
# Where a line or piece that was not read may be put, with its name on the page.
PLACES = {
    name: label_of(name).casefold()
    for name in (
        "recommended", "avoid", "details", "parts", "options", "sizes", "requirements", "notions", "name", "house",
        "garment", "season", "licence", "notes",
    )
}  # fmt: skip
WITH_COMMAS, ONE_WORD = ("details", "notions"), ("name", "house", "garment", "season")
_FREE = r"\s*[,;]?\s*"


def paste_into(
    typed: Mapping[str, str], tables: Tables, taken: Collection[str], garment: str = ""
) -> tuple[dict[str, str], Draft]:
    """The form with the pasted envelope read into it, and the draft with where each line went.

    `garment`: which of several garments it is to hold; the first, or the one it holds, where none is said. Where the
    envelope has no code, or a garment of several one that is taken, a code is made that is not among the keys `taken`.
    """
    whole = read_paste(typed.get("envelope", ""), tables)
    held = typed.get(HELD, "")
    draft = _of_garment(whole, garment or held)
    left = _without_filled(typed, _of_garment(whole, held)) if held and garment and garment != held else dict(typed)
    values = _filled(draft, left)
    if not values.get("code") and values.get("name"):
        values["code"] = made_code(values.get("house") or values["name"], taken)
    if whole.garments:
        values[HELD] = draft.texts["garment"]
        if code_key(values["code"]) in taken:
            stem = values["code"]
            values["code"] = next(code for number in count(2) if code_key(code := f"{stem}-{number}") not in taken)
    return values, draft


def others_of(draft: Draft, values: Mapping[str, str]) -> list[str]:
    """The garments of the envelope that this form does not hold and that are not kept yet."""
    over = {draft.texts.get("garment"), *values.get(DONE, "").split(",")}
    return [each.texts["garment"] for each in draft.garments if each.texts["garment"] not in over]


def _of_garment(whole: Draft, garment: str) -> Draft:
    found = next((each for each in whole.garments if each.texts["garment"] == garment), None)
    return replace(found, lines=whole.lines, garments=whole.garments) if found else whole


def _texts(draft: Draft) -> dict[str, str]:
    return {**as_texts(draft.as_row()), "for": draft.texts.get("for", "")}


def _filled(draft: Draft, typed: Mapping[str, str]) -> dict[str, str]:
    """What the envelope fills in; a field that was typed already stays as it is."""
    found = _texts(draft)
    return {name: typed.get(name) or found.get(name, "") for name in {*found, *typed}}


def _without_filled(typed: Mapping[str, str], draft: Draft) -> dict[str, str]:
    """The form without what another garment's reading had filled in."""
    found = _texts(draft)
    by_reading = {name for name, text in found.items() if text and _same(text, typed.get(name, ""))} | {"code"}
    return {name: "" if name in by_reading else text for name, text in typed.items()}


def _same(one: str, other: str) -> bool:
    """Whether two texts are the same but for how a browser ends lines."""
    return one.split() == other.split()


def place_lines(values: Mapping[str, str], draft: Draft, tables: Tables) -> dict[str, str]:
    """The form with each line and piece that was not read where it was put (`line-3`, `piece-3-0`: "notions").

    A line of which a part is there already stays once; a piece that is put elsewhere leaves the field it stood in.
    """
    placed = dict(values)
    pieces = pieces_of(draft, tables)
    for line in draft.lines:
        if line in draft.unread:
            if (place := values.get(f"line-{line.number}", "")) in PLACES:
                _put(placed, place, line.text.strip())
                line.field = PLACES[place]
            continue
        for at, piece in enumerate(pieces.get(line.number, ())):
            if (place := values.get(f"piece-{line.number}-{at}", "")) in PLACES and place != line.field:
                placed[line.field] = re.sub(_FREE + re.escape(piece), "", placed.get(line.field, ""), count=1).strip(" ,;")
                _put(placed, place, piece)
    return placed


def pieces_of(draft: Draft, tables: Tables) -> dict[int, list[str]]:
    """Of each line about cloths of which something was not read: its number, and those words."""
    found = {line.number: _unread(line.text, tables) for line in draft.lines if line.field in ("recommended", "avoid")}
    return {number: pieces for number, pieces in found.items() if pieces}


def _unread(text: str, tables: Tables) -> list[str]:
    found = (text[heap.start : heap.end].strip(" ,;.") for heap in read_envelope(text, tables).heaps if heap.kind == "unread")
    return [piece for piece in found if piece]


def _put(placed: dict[str, str], place: str, text: str) -> None:
    there = placed.get(place, "")
    if text in there:
        return
    between = " " if place in ONE_WORD else ", " if place in WITH_COMMAS else "\n"
    placed[place] = f"{there}{between}{text}" if there else text


def made_code(of: str, taken: Collection[str]) -> str:
    """A code from the first letters of a house or name, with the first number that is free: 'Orrel Patterns' → OP-01."""
    letters = "".join(word[0] for word in re.findall(r"[^\W\d_]+", of))[:3].upper() or "P"
    return next(code for number in count(1) if code_key(code := f"{letters}-{number:02d}") not in taken)
