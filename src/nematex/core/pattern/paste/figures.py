"""Numbers on an envelope: whole, decimal, with fractions in either writing, with or without a unit.

Lengths come out in cm. Where one measurement is given in both systems ("84 cm / 33 in"), the first counts.
"""

from __future__ import annotations

import re
from dataclasses import dataclass

from nematex.core.quantity.units import CM_PER_INCH, CM_PER_YARD

_SIGNS = {"¼": 0.25, "½": 0.5, "¾": 0.75, "⅛": 0.125, "⅜": 0.375, "⅝": 0.625, "⅞": 0.875, "⅓": 1 / 3, "⅔": 2 / 3}
_SIGN = "".join(_SIGNS)
_VALUE = rf"(?:\d+\s+\d/\d\d?|\d+-\d/\d\d?|\d/\d\d?|\d+(?:[.,]\d+)?\s?[{_SIGN}]|\d+(?:[.,]\d+)?|[{_SIGN}])"
_UNIT = r"(?:centimet(?:re|er)s?|millimet(?:re|er)s?|met(?:re|er)s?|inch(?:es)?|yards?|cms?|mm|ins?\b|yds?|m\b|\"|''|”|″)"
_FIGURE = re.compile(rf"(?<![\w.,])(?<![A-Za-z]-)(?P<value>{_VALUE})\s*(?P<unit>{_UNIT})?(?!\w)", re.IGNORECASE)
_UNIT_WORD = re.compile(rf"(?<![\w]){_UNIT}(?![\w])", re.IGNORECASE)
TO_CM = {"cm": 1.0, "mm": 0.1, "m": 100.0, "in": CM_PER_INCH, "yd": CM_PER_YARD}


@dataclass(frozen=True, slots=True)
class Figure:
    """A number, its unit (cm, mm, m, in, yd or "") and where it stands in the text."""

    value: float
    unit: str
    start: int
    end: int

    def cm(self, usual: str) -> float:
        """In cm; without a unit of its own it is taken in the usual one."""
        return self.value * TO_CM[self.unit or usual]


def unit_of(word: str | None) -> str:
    """The unit that a word means; "" where there is none."""
    if not word:
        return ""
    low = word.casefold()
    if low.startswith(("cm", "centi")):
        return "cm"
    if low.startswith(("mm", "milli")):
        return "mm"
    if low.startswith("y"):
        return "yd"
    return "m" if low.startswith("m") else "in"


def _value(text: str) -> float:
    text = text.strip().replace(",", ".")
    sign = next((each for each in _SIGNS if each in text), None)
    if sign:
        whole = text.replace(sign, "").strip()
        return (float(whole) if whole else 0.0) + _SIGNS[sign]
    parts = re.split(r"[\s-]+", text)
    total = 0.0
    for part in parts:
        top, _, bottom = part.partition("/")
        total += float(top) / float(bottom) if bottom and float(bottom) else float(top)
    return total


def all_figures(text: str) -> list[Figure]:
    """Every number of a text in its order."""
    return [
        Figure(_value(match["value"]), unit_of(match["unit"]), match.start(), match.end()) for match in _FIGURE.finditer(text)
    ]


def _repeats(text: str, first: Figure, second: Figure) -> bool:
    """Whether the second says the first again in the other system: '84 cm / 33 in', '84 (33)', '150cm/60\"'."""
    between = text[first.end : second.start].strip()
    if between not in ("/", "(", "|", "or", "=", "- /"):
        return False
    if first.unit and second.unit:
        one, other = first.cm("cm"), second.cm("cm")
        return first.unit != second.unit and abs(one - other) < 0.06 * max(one, other)
    for a, b in ((CM_PER_INCH, 1.0), (1.0, CM_PER_INCH)):
        if abs(first.value * a - second.value * b) < 0.04 * first.value * a:
            return True
    return False


def figures(text: str) -> list[Figure]:
    """The numbers of a text, each measurement once."""
    found: list[Figure] = []
    for each in all_figures(text):
        if found and _repeats(text, found[-1], each):
            continue
        found.append(each)
    return found


def line_unit(text: str) -> str:
    """The last unit that a line names."""
    words = _UNIT_WORD.findall(text)
    return unit_of(words[-1]) if words else ""
