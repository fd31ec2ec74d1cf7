"""Measurements as they are typed: a percentage or a mark pulled, a bending length or the overhang it is half of."""

from __future__ import annotations

import re

from nematex.core.cloth.measuring.bending import bending_length_cm
from nematex.core.cloth.measuring.stretch import stretch_pct
from nematex.core.quantity.reader import LONGEST, read_length_cm, read_percent
from nematex.core.quantity.scan import scan


def read_stretch_pct(text: str, field: str) -> float:
    """A percentage, or a marked length pulled: '25 %' or '10 to 12.5 cm'."""
    found = list(scan(text[:LONGEST]))
    if len(found) == 2 and found[1].unit == "cm" and found[0].unit in ("", "cm"):
        between = text[found[0].end : found[1].start].strip().casefold()
        if between in ("to", "→", "->", ">"):
            return round(stretch_pct(found[0].value, found[1].value), 1)
    return read_percent(text, field)


_ACROSS = re.compile(r"\b(?:across|crosswise|cross|weft|width|widthwise|horizontal)\b")
_ALONG = re.compile(r"\b(?:along|lengthwise|length|warp|vertical)\b")
_BOTH = re.compile(r"\b(?:4|four)[ -]?way\b|\bboth (?:ways|directions)\b|\bin both\b")
_WAYS = re.compile(r"\b(?:2|two|1|one)[ -]?way\b|\bstretch\b")


def read_stretches_pct(text: str, field: str) -> tuple[float | None, float | None]:
    """(across, along) in percent: '25 %', '60% across 15% along', '70% 4 way'. Raises FieldFault."""
    said = text[:LONGEST].casefold()
    both = bool(_BOTH.search(said))
    said = _WAYS.sub(" ", _BOTH.sub(" ", said))
    found: dict[str, float] = {}
    parts = re.split(r"[,;/&]|\band\b", said)
    if any(_ACROSS.search(part) and _ALONG.search(part) for part in parts):  # '60% across 15% along'
        parts = re.split(r"(?<=across)|(?<=along)|(?<=cross)|(?<=weft)|(?<=warp)|(?<=width)|(?<=length)", said)
    for part in parts:
        for name, words in (("across", _ACROSS), ("along", _ALONG)):
            if words.search(part):
                found[name] = read_percent(words.sub(" ", part).strip(" x×&+"), field)
    if found:
        return found.get("across"), found.get("along")
    across = read_stretch_pct(said.strip(" ,;+"), field)
    return across, across if both else None


def read_bending_length_cm(text: str, field: str) -> float:
    """A bending length, or the overhang it is half of: '2.3 cm' or 'overhang 4.6 cm'."""
    said = text.strip().casefold()
    if said.startswith("overhang"):
        return bending_length_cm(read_length_cm(said.removeprefix("overhang"), field))
    return read_length_cm(text, field)
