"""Numbers with their units, found in any text: the one grammar of quantities, for lists, forms, envelopes and filters.

A number is whole, decimal (point or comma), with a fraction in either writing ('2 1/2', '32-1/2', '2½'), or a fraction
alone. A fraction's denominator is one that tapes and envelopes use, so that '44/45' is two widths. Linear in the text:
no pattern here holds a repeated group inside a repeated group.
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass

from nematex.core.quantity.units import CM_PER_INCH, CM_PER_YARD

SIGNS = {"¼": 0.25, "½": 0.5, "¾": 0.75, "⅛": 0.125, "⅜": 0.375, "⅝": 0.625, "⅞": 0.875, "⅓": 1 / 3, "⅔": 2 / 3}
MOST_DIGITS = 12  # a longer number is none that cloth or money has
TO_CM = {"mm": 0.1, "cm": 1.0, "m": 100.0, "in": CM_PER_INCH, "ft": 12 * CM_PER_INCH, "yd": CM_PER_YARD}

# Unit → the words for it, as they follow a number.
WORDS = {
    "mm": "mm|millimetres?|millimeters?",
    "cm": "cms?|centimetres?|centimeters?",
    "m": "m|mtrs?|metres?|meters?",
    "in": "ins?|inch|inches|\"|''|”|“|″",
    "ft": "ft|foot|feet",
    "yd": "yds?|yards?",
    "gsm": r"gsm|g ?/ ?m2|g ?/ ?m²|g ?/ ?sqm|g ?/ ?qm|g per m2|g m-?2|grams? per square metre|grammes? per square metre",
    "g/m": r"g ?/ ?lm|g ?/ ?m|g per m|g ?/ ?running metre",
    "g": "grams?|grammes?|gr|g",
    "oz": r"oz ?/ ?yd2|oz ?/ ?yd²|oz ?/ ?sq ?yd|oz ?/ ?yd|oz|ounces?",
    "%": "%|percent|per cent|pct",
}
_SIGN = "".join(SIGNS)
_PLAIN = r"\d+(?:[.,]\d+)?"
_FRACTION = r"\d{1,2}/(?:64|32|16|12|10|8|6|5|4|3|2)(?!\d)"
_VALUE = rf"\d+(?:[ \u00a0]{{1,3}}|-){_FRACTION}|{_FRACTION}|{_PLAIN}[ \u00a0]?[{_SIGN}]|{_PLAIN}|[{_SIGN}]"
_GROUPED = r"\d{1,3}(?:[ \u00a0]\d{3}){1,3}(?:[.,]\d+)?(?!\d)"
_UNIT = "|".join(words for words in WORDS.values())
_UNITS = [(name, re.compile(words, re.IGNORECASE)) for name, words in WORDS.items()]
_TAIL = rf"[ \u00a0]{{0,3}}(?P<unit>{_UNIT})?(?!\w)"
_BEFORE = r"(?<![\w.,])(?<![A-Za-z]-)"
_FIGURE = re.compile(rf"{_BEFORE}(?P<value>{_VALUE}){_TAIL}", re.IGNORECASE)
_IN_CELLS = re.compile(rf"{_BEFORE}(?P<value>{_GROUPED}|{_VALUE}){_TAIL}", re.IGNORECASE)
_UNIT_WORD = re.compile(rf"(?<!\w)(?:{_UNIT})(?!\w)", re.IGNORECASE)
_SPAN = re.compile(r"\s*(?:-|–|to|and)\s*", re.IGNORECASE)


@dataclass(frozen=True, slots=True)
class Figure:
    """A number, its unit ("" where it has none) and where it stands in the text."""

    value: float
    unit: str
    start: int
    end: int

    def cm(self, usual: str) -> float:
        """A length in cm; without a unit of its own it is taken in the usual one."""
        return self.value * TO_CM[self.unit or usual]


def unit_of(word: str | None) -> str:
    """The unit that a word means; "" where there is none."""
    text = (word or "").strip()
    return next((name for name, words in _UNITS if words.fullmatch(text)), "")


def _value(text: str) -> float:
    """What a number comes to, in either writing of fractions."""
    for sign, part in SIGNS.items():
        if sign in text:
            whole = text.replace(sign, "").strip()
            return (_value(whole) if whole else 0.0) + part
    whole, slash, bottom = text.rpartition("/")
    if not slash:
        return float(re.sub(r"[ \u00a0]", "", text).replace(",", "."))
    parts = re.split(r"[ \u00a0-]+", whole)
    return float(parts[0] if len(parts) > 1 else 0) + float(parts[-1]) / float(bottom)


def scan(text: str, grouped: bool = False) -> Iterator[Figure]:
    """Every number of a text in its order; with `grouped`, '1 250' is one number, as in a cell of a list."""
    for match in (_IN_CELLS if grouped else _FIGURE).finditer(text):
        if sum(map(str.isdigit, match["value"])) <= MOST_DIGITS:
            yield Figure(_value(match["value"]), unit_of(match["unit"]), match.start(), match.end())


def spans(text: str, figures: list[Figure]) -> list[tuple[Figure, ...]]:
    """Figures that are the two ends of a range ('148-150 cm', '44/45 in') as pairs, the others alone."""
    found: list[tuple[Figure, ...]] = []
    rest = iter(figures)
    last = next(rest, None)
    for figure in rest:
        if last is not None and _is_span(text[last.end : figure.start], last, figure):
            found.append((last, figure))
            last = None
        else:
            if last is not None:
                found.append((last,))
            last = figure
    return found + ([(last,)] if last is not None else [])


def _is_span(between: str, low: Figure, high: Figure) -> bool:
    if low.unit and low.unit != high.unit:
        return False
    if _SPAN.fullmatch(between):
        return True
    # '44/45 in': envelopes and suppliers write neighbouring widths so.
    return between.strip() == "/" and not low.unit and low.value < high.value <= 1.15 * low.value


def repeats(text: str, first: Figure, second: Figure) -> bool:
    """Whether the second says the first again in the other system: '84 cm / 33 in', '84 (33)', '150cm/60\"'."""
    between = text[first.end : second.start].strip()
    if between not in ("/", "(", "|", "or", "=", "- /"):
        return False
    if first.unit and second.unit:
        if first.unit == second.unit or not {first.unit, second.unit} <= set(TO_CM):
            return False
        one, other = first.cm("cm"), second.cm("cm")
        return abs(one - other) < 0.06 * max(one, other)
    for mine, its in ((CM_PER_INCH, 1.0), (1.0, CM_PER_INCH)):
        if abs(first.value * mine - second.value * its) < 0.04 * first.value * mine:
            return True
    return False


def lengths(text: str) -> Iterator[Figure]:
    """The numbers that are lengths or bare."""
    return (figure for figure in scan(text) if figure.unit in TO_CM or not figure.unit)


def once(text: str) -> list[Figure]:
    """The lengths and bare numbers of a text, each measurement once."""
    found: list[Figure] = []
    for figure in lengths(text):
        if not (found and repeats(text, found[-1], figure)):
            found.append(figure)
    return found


def last_unit(text: str) -> str:
    """The last unit that a line names."""
    words = _UNIT_WORD.findall(text)
    return unit_of(words[-1]) if words else ""
