"""Notions as the envelope lists them: what, how many, how large, for which views.

'View A: 10 buttons 15 mm; 1 zip 20 cm (8 in); 1.5 m elastic 2 cm wide' → three rows. Lengths in cm.
"""

from __future__ import annotations

import re
from dataclasses import dataclass

from nematex.core.pattern.facts import is_for_view
from nematex.core.quantity.scan import Figure, once

KINDS = (
    "button", "zip", "zipper", "elastic", "interfacing", "thread", "bias binding", "ribbon", "cord", "snap",
    "press stud", "hook and eye", "buckle", "rib", "ribbing", "tape", "shoulder pad", "toggle", "eyelet", "bead", "pompom",
    "boning", "d-ring", "rivet", "hook", "lace", "piping", "wadding", "sequin", "popper", "drawstring",
    "shirring elastic", "binding",
)  # fmt: skip
SAME = {"zipper": "zip", "popper": "snap", "press stud": "snap", "ribbing": "rib", "binding": "bias binding"}
_VIEW = re.compile(r"^\s*views?\s+([A-Z0-9](?:\s*(?:,|&|and)\s*[A-Z0-9])*)\s*[:–-]\s*", re.IGNORECASE)


@dataclass(frozen=True, slots=True)
class Notion:
    """One row: its kind ("" where not recognised), how many, length and size in cm, the views, and its own words."""

    words: str
    kind: str = ""
    count: int | None = None
    length_cm: float | None = None
    size_cm: float | None = None
    views: tuple[str, ...] = ()


def _pieces(text: str) -> list[str]:
    """Commas and semicolons part the rows, but a comma before a size belongs to its row."""
    found: list[str] = []
    for piece in re.split(r"[;\n]|,(?=\s)|(?<=[a-z])\s+and\s+(?=\d|[a-z])", text):
        if found and re.match(r"^\s*\d+(?:[.,]\d+)?\s*(?:mm|cm|in|\")\s*(?:wide)?\s*\)?$", piece):
            found[-1] += f",{piece}"
        elif piece.strip(" ."):
            found.append(piece)
    return [piece.strip(" .") for piece in found]


def _kind(words: str) -> str:
    low = words.casefold()
    found = [kind for kind in KINDS if re.search(rf"\b{re.escape(kind)}(?:s|es)?\b", low)]
    best = max(found, key=len, default="")
    return SAME.get(best, best)


COUNTED = {
    "one": 1, "two": 2, "three": 3, "four": 4, "five": 5, "six": 6, "seven": 7, "eight": 8, "nine": 9, "ten": 10,
    "eleven": 11, "twelve": 12, "a pair of": 2, "pair of": 2, "a dozen": 12,
}  # fmt: skip
_COUNT = re.compile(rf"^\s*(?P<word>{'|'.join(sorted(COUNTED, key=len, reverse=True))})\b", re.IGNORECASE)
_OF_VIEWS = re.compile(
    r"\(?\s*(?:for\s+)?(?:views?\s+)(?P<named>[A-Z](?:\s*(?:,|&|and)\s*[A-Z])*)\s*\)?|\((?P<bare>[A-Z](?:\s*(?:,|&|and)\s*[A-Z])*)\)"
)
NARROW_CM = 8.0  # what comes by length and is narrower than this says its width first: '1/4" elastic 1 1/8 yd'
BY_LENGTH = ("elastic", "ribbon", "bias binding", "tape", "cord", "lace", "piping", "shirring elastic", "rib")


def _row(words: str, views: tuple[str, ...]) -> Notion:
    of = _OF_VIEWS.search(words)
    if of and not views:
        views = tuple(re.findall(r"[A-Z]", re.sub(r"\band\b", " ", of["named"] or of["bare"])))
    kind, found = _kind(words), once(words)
    said = _COUNT.match(words)
    count: int | None = COUNTED[said["word"].casefold()] if said else None
    length: float | None = None
    size: float | None = None
    for each in found:
        if not each.unit and each.value == int(each.value) and count is None:
            count = int(each.value)
        elif _is_size(each, words, kind):
            size = round(each.cm("cm"), 2)
        elif each.unit and length is None:
            length = round(each.cm("cm"), 1)
    return Notion(words, kind, count, length, size, views)


def _is_size(each: Figure, words: str, kind: str) -> bool:
    """Widths and diameters: what is called wide, what is in mm, and what a button or bead measures."""
    wide = re.match(r"\s*-?\s*(?:wide|width)", words[each.end :], re.IGNORECASE)
    named = re.match(rf"\s*-?\s*(?:wide\s+)?{re.escape(kind)}", words[each.end :], re.IGNORECASE) if kind in BY_LENGTH else None
    if named and each.unit in ("in", "cm") and each.cm("cm") <= NARROW_CM:
        return True
    return bool(wide) or each.unit == "mm" or (kind in ("button", "bead", "snap", "eyelet") and each.unit in ("cm", "in"))


def read_notions(text: str) -> list[Notion]:
    """Every notion of a text, in its order."""
    found = []
    for line in text.splitlines():
        viewed = _VIEW.match(line)
        views = tuple(name.upper() for name in re.findall(r"\b[A-Za-z0-9]\b", viewed[1])) if viewed else ()
        body = line[viewed.end() :] if viewed else line
        found += [_row(piece, views) for piece in _pieces(body)]
    return found


def of_view(notions: list[Notion], view: str | None) -> list[Notion]:
    """Those of one view; those without a view belong to all."""
    return [each for each in notions if is_for_view(view, each.views)]
