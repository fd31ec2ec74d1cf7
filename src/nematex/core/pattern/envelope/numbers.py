"""Numbers on an envelope: least stretch and areal mass, lifted out before the words are read.

Each found number becomes a Figure and its words are replaced by a mark (§0, §1 …) in the text.
"""

from __future__ import annotations

import re
from dataclasses import dataclass

from nematex.core.quantity.estimate import Range
from nematex.core.quantity.units import gsm_from_oz_yd2

_NUMBER = r"(?<![\d.])(\d{1,6}(?:\.\d{1,6})?)(?!\d)"
_LEAST = (
    r"(?:(?:with|has|have|having|of|a|an|needs?|requires?|must have)\s+)*"
    r"(?:(?:at least|a minimum of|minimum of|minimum|min\.?|no less than|not less than|more than|over|>=?|≥|approx\.?|"
    r"approximately|about|around|between)\s*)*"
)
_WAY = r"(?:(?:four|two|4|2|both)[- ]?way\s+)?"
_AXIS = (
    r"(?:across the grain|across the width|crosswise|cross[- ]?grain|across|widthwise|widthways|width|horizontally|horizontal|"
    r"lengthwise|lengthways|length|along the grain|along|vertically|vertical|(?:in )?both (?:ways|directions)|"
    r"(?:in )?all directions)"
)
_STRETCH = [
    re.compile(
        rf"(?P<lead>{_LEAST}){_NUMBER}\s*%?\s*(?:(?:-|to|and)\s*{_NUMBER}\s*)?%\s*(?:or more|\+|minimum|plus)?\s*(?:of\s+)?"
        rf"(?P<way>{_WAY})(?P<before>{_AXIS})?\s*(?:of\s+)?stretch(?:iness)?(?:\s+(?P<after>{_AXIS}))?"
    ),
    re.compile(
        rf"(?P<way>{_WAY})(?P<before>{_AXIS})?\s*stretch\s*(?:factor|percentage|content)?\s*(?:of|:|is)?\s*(?P<lead>{_LEAST}){_NUMBER}\s*%?\s*"
        rf"(?:(?:-|to|and)\s*{_NUMBER}\s*)?%\s*(?:or more|\+|minimum|plus)?(?:\s*(?P<after>{_AXIS}))?"
    ),
    re.compile(rf"(?P<lead>{_LEAST}){_NUMBER}\s*%?\s*(?:(?:-|to)\s*{_NUMBER}\s*)?%\s*(?P<way>)(?P<before>)(?P<after>{_AXIS})"),
]
_STRETCHES_TO = re.compile(
    rf"{_NUMBER}\s*(?:cm|in|inch|inches|\")?\s*(?:of (?:cloth|fabric|knit)\s*)?(?:should|must|will|can|has to|to)?\s*"
    rf"stretch(?:es|ing)?\s*(?:out\s*)?to\s*(?:at least\s*)?{_NUMBER}\s*(?:cm|inches|inch|in\b|\")?"
)
_UNIT = r"(gsm|g/m2|g/m²|g/sqm|g per m2|g m-2|gram(?:s|mes)? per square metre|oz/yd2|oz/yd²|oz/sq yd|oz|ounces?)"
_MASS_SPAN = re.compile(rf"(?:between\s+)?{_NUMBER}\s*(?:{_UNIT}\s*)?(?:-|to|and)\s*{_NUMBER}\s*{_UNIT}")
_MASS_ONE = re.compile(
    r"(?P<word>up to|under|below|max(?:imum)?(?: of)?|no more than|not more than|not above|"
    r"not? heavier than|not? lighter than|not below|"
    r"not? less than|less than|<=?|lighter than|at least|"
    r"over|above|from|min(?:imum)?(?: of)?|more than|heavier than|>=?|about|around|approx\.?|approximately)?\s*"
    rf"{_NUMBER}\s*{_UNIT}(?:\s*(?P<tail>or less|or lighter|or under|and under|or more|or heavier|and up|and above))?"
)
_AT_MOST = (
    "no heavier",
    "not heavier",
    "up to",
    "under",
    "below",
    "max",
    "no more",
    "not more",
    "not above",
    "less",
    "<",
    "lighter",
)
_AT_LEAST = ("at least", "over", "above", "from", "min", "more", "heavier", ">")
_NOT_LESS = ("no lighter", "not lighter", "no less", "not less", "not below")


@dataclass(frozen=True, slots=True)
class Figure:
    """A number with what it speaks of: `cross`, `length`, `both` (least stretch, %) or `gsm` (a range)."""

    kind: str
    stretch_pct: float = 0.0
    gsm: Range | None = None
    words: str = ""


def _axis(words: str | None) -> str | None:
    if not words:
        return None
    if re.search(r"\b(?:both|all)\b", words):
        return "both"
    return "length" if re.search(r"length|along|vertical", words) else "cross"


def _stretch(match: re.Match[str]) -> Figure:
    numbers = [float(part) for part in match.groups() if part and re.fullmatch(r"\d+(?:\.\d+)?", part)]
    way = match["way"] or ""
    axis = _axis(match["after"]) or _axis(match["before"])
    if axis is None:
        axis = "both" if re.search(r"four|4|both", way) else "cross"
    return Figure(axis, stretch_pct=min(numbers), words=match.group().strip())


def _to_gsm(value: float, unit: str) -> float:
    return gsm_from_oz_yd2(value) if unit.startswith("o") else value


def _mass(match: re.Match[str], about: float) -> Figure:
    value = _to_gsm(float(match[2]), match[3])
    word, tail = match["word"] or "", match["tail"] or ""
    if word.startswith(_AT_MOST) or "less" in tail or "lighter" in tail or "under" in tail:
        span = Range(0.0, value)
    elif word.startswith((*_AT_LEAST, *_NOT_LESS)) or tail:
        span = Range(value, float("inf"))
    else:
        span = Range(value * (1 - about), value * (1 + about))
    return Figure("gsm", gsm=span, words=match.group().strip())


def _mass_span(match: re.Match[str]) -> Figure:
    unit = match[4]
    low, high = sorted((_to_gsm(float(match[1]), match[2] or unit), _to_gsm(float(match[3]), unit)))
    return Figure("gsm", gsm=Range(low, high), words=match.group().strip())


def lift_figures(text: str, about: float) -> tuple[str, list[Figure]]:
    """The text with its figures replaced by marks, and the figures in the order of their marks.

    `about` is how far a number without "up to" or "at least" reaches to either side, as a share of it.
    """
    figures: list[Figure] = []

    def keep(figure: Figure) -> str:
        figures.append(figure)
        return f" §{len(figures) - 1} "

    text = _MASS_SPAN.sub(lambda match: keep(_mass_span(match)), text)
    text = _MASS_ONE.sub(lambda match: keep(_mass(match, about)), text)
    text = _STRETCHES_TO.sub(
        lambda match: (
            keep(Figure("cross", stretch_pct=round(100 * (float(match[2]) / float(match[1]) - 1), 1), words=match.group()))
            if float(match[2]) > float(match[1]) > 0
            else match.group()
        ),
        text,
    )
    for pattern in _STRETCH:
        text = pattern.sub(lambda match: keep(_stretch(match)), text)
    return text, figures
