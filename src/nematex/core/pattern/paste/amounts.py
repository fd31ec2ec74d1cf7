"""Amounts of cloth: '115 cm  2.6 2.6 2.7 m', '2½ yd of 45 in', 'Sizes 8–14: 2.5 m at 140 cm wide'.

A width is 70 to 320 cm, or 30 to 70 in; what else the line holds are lengths.
"""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass

from nematex.core.pattern.paste.facts import USUAL_STARS
from nematex.core.pattern.paste.sizes import read_sizes
from nematex.core.quantity.scan import Figure, last_unit, once

_SPAN = re.compile(r"(\d{2,3})\s*(?:-|–|/|to)\s*(\d{2,3})\s*(?=cm|in\b|inch|\"|″|”)", re.IGNORECASE)
_SIZE = r"(?:\d{1,3}(?!\d|\.\d|\s*(?:m|cm|yds?|in|\"|”)\b)|X{0,4}[SML]|[1-6]XL?)"
_LIST = rf"{_SIZE}(?:\s*(?:-|–|to|bis|,|and|und|&)\s*{_SIZE})*"
_SIZES = re.compile(
    rf"\(?\b(?:sizes?|gr(?:öße|ößen|osse|ossen|\.)?)\s+(?P<said>{_LIST})(?![\w.])\)?\s*:?|\((?P<bracketed>{_LIST})\)|"
    rf"\bfor\s+(?P<behind>(?:X{{0,4}}[SML]|[1-6]XL?)\b(?:\s*(?:-|–|to)\s*(?:X{{0,4}}[SML]|[1-6]XL?)\b)?)",
    re.IGNORECASE,
)
BARE_CM = {90, 107, 110, 112, 114, 115, 120, 130, 135, 137, 138, 140, 142, 145, 147, 148, 150, 152, 155, 160, 280, 300}
BARE_IN = {35, 36, 39, 41, 42, 44, 45, 48, 50, 52, 54, 56, 58, 60, 62}
LONGEST_M = 15.0


@dataclass(frozen=True, slots=True)
class Amounts:
    """Lengths in m at one width in cm; the sizes that the line itself names."""

    width_cm: float
    lengths_m: tuple[float, ...]
    sizes: tuple[str, ...]
    with_nap: bool


_CALLED_WIDTH = re.compile(r"(?:\bwidth|\bbreite|\bwide)\s*(?:of|is|von)?\s*:?\s*$", re.IGNORECASE)


def _in_cm(each: Figure, text: str) -> Figure:
    """'Width: 1.40 m': a width that is said in metres."""
    if each.unit == "m" and 0.7 <= each.value <= 3.2 and _CALLED_WIDTH.search(text[: each.start]):
        return Figure(each.value * 100, "cm", each.start, each.end)
    return each


def _is_width(each: Figure, metric: bool, narrow: bool) -> bool:
    if each.unit == "cm":
        return (45 if narrow else 70) <= each.value <= 320
    if each.unit == "in":
        return (18 if narrow else 30) <= each.value <= 70
    return not each.unit and each.value in (BARE_CM if metric else BARE_CM | BARE_IN)


def _width(found: list[Figure], text: str, metric: bool, narrow: bool) -> Figure | None:
    """The figure that is the width: the one called so, else the one after 'at' or 'of', else the first that can be."""
    can = [each for each in found if _is_width(each, metric, narrow)]
    for each in can:
        if re.match(r"\s*[-–]?\s*(?:wide|width|breit|breite)\b", text[each.end :], re.IGNORECASE):
            return each
    for each in can:
        if re.search(r"(?:\bat|\bof|\bon|\bin|\bbei|\bauf|\bbreite:?|\bwidth:?|@|x|×)\s*$", text[: each.start], re.IGNORECASE):
            return each
    return can[0] if can else None


def length_m(each: Figure, usual: str) -> float:
    """In m; a bare number above 15 is in cm."""
    unit = each.unit or ("cm" if usual == "m" and each.value > LONGEST_M else usual)
    return round(each.value * {"m": 1.0, "yd": 0.9144, "cm": 0.01, "in": 0.0254, "mm": 0.001}[unit], 4)


STARS = re.compile(r"(?<!\*)\*{1,3}(?!\*)")


def _with_nap(text: str, stars: Mapping[int, bool]) -> bool:
    """Whether the amount is with nap: in words, or by the stars beside it."""
    if re.search(r"without nap|no nap|w/o nap|ohne strich", text, re.IGNORECASE):
        return False
    starred = STARS.search(text)
    said = re.search(r"\bnap\b|\bone.way\b|\bmit strich", text, re.IGNORECASE)
    return bool(said) or bool(starred and stars.get(len(starred[0]), False))


def read_amounts(
    text: str, usual: str = "", only: bool = False, stars: Mapping[int, bool] = USUAL_STARS, narrow: bool = False
) -> Amounts | None:
    """The amounts of one line; None where it holds none.

    `usual` is the section's unit of length. With `only`, inside a table of amounts, a length needs no unit. `stars` is
    what stars beside a width mean; `narrow` lets a width be that of interfacing.
    """
    named = _SIZES.search(text)
    sizes = tuple(read_sizes(named["said"] or named["bracketed"] or named["behind"]) or ()) if named else ()
    body = text[: named.start()] + " " + text[named.end() :] if named and sizes else text
    body = _SPAN.sub(lambda match: f"{match[1]} ", body)
    found = [_in_cm(each, body) for each in once(body) if each.unit != "mm"]
    metric = usual != "yd" and not any(each.unit in ("in", "yd") for each in found)
    width = _width(found, body, metric, narrow)
    rest = [each for each in found if each is not width]
    if width is None:
        return None
    said = last_unit(body[width.end :])
    unit = said if said in ("m", "yd", "cm") else usual
    if not unit:
        imperial = width.unit == "in" or (not width.unit and width.value < 70)
        unit = "yd" if imperial else "m"
    if not rest or (not only and not any(each.unit in ("m", "yd", "cm") for each in rest) and len(rest) < 2):
        return None
    lengths = tuple(length_m(each, unit) for each in rest)
    if any(not 0.05 <= length <= LONGEST_M for length in lengths):
        return None
    wide = width.cm("in" if width.value < 70 else "cm")
    return Amounts(round(wide, 1), lengths, sizes, _with_nap(text, stars))
