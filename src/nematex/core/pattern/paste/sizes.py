"""Size labels: '8 10 12', 'UK 8-16', 'XS, S, M, L', '0–16', '1X 2X 3X'. Common practice, no source."""

from __future__ import annotations

import re

_LETTERS = ("XXS", "XS", "S", "M", "L", "XL", "2XL", "3XL", "4XL", "5XL", "6XL")
_SAME = {"XXL": "2XL", "XXXL": "3XL", "XXXXL": "4XL"}
_LABEL = r"(?:\d{1,3} ?(?:1/2|½)|\d{1,3}[WPT]?|X{1,4}[SL]|[1-6]XL?|[SML])"
_ONE = re.compile(rf"^{_LABEL}$", re.IGNORECASE)
_DOUBLE = re.compile(rf"^{_LABEL}/{_LABEL}$", re.IGNORECASE)
_IN_LETTERS = re.compile(r"^\s*A[\s,|/]+B(?:[\s,|/]+[C-H])*\s*$")
_SPAN = re.compile(rf"^(?P<low>{_LABEL})\s*(?:-|–|—|to|bis)\s*(?P<high>{_LABEL})$", re.IGNORECASE)
_LEAD = re.compile(r"^\s*(?:uk|us|eu|au|misses|size|sizes|age|ages)\s+", re.IGNORECASE)
_PIECES = re.compile(r"[,;|\t]|\s+(?:and|&|or|\+|/)\s+|\s{2,}")
_AGES = re.compile(
    r"^(?P<low>\d{1,2})\s*(?P<first>months?|mths?|m|years?|yrs?|y)?\s*(?:-|–|to)\s*(?P<high>\d{1,2})\s*(?P<last>months?|mths?|years?|yrs?)$",
    re.IGNORECASE,
)
MONTHS = (0, 3, 6, 9, 12, 18, 24)  # the sizes of babies: common practice, no source


def _ages(text: str) -> list[str] | None:
    """'3 months to 10 years' → 3m 6m 9m 12m 18m 2y … 10y; None where it is no span of ages."""
    found = _AGES.match(text)
    if not found:
        return None
    low, high = int(found["low"]), int(found["high"])
    in_months = (found["first"] or found["last"]).casefold().startswith("m")
    if found["last"].casefold().startswith("m"):
        return [f"{age}m" for age in MONTHS if low <= age <= high] or None
    if not in_months:
        return [f"{age}y" for age in range(low, high + 1)] if low < high <= 18 else None
    young = [f"{age}m" for age in MONTHS if low <= age < 24]
    return young + [f"{age}y" for age in range(2, high + 1)] if high <= 18 else None


def _numbers(low: int, high: int) -> list[str]:
    """The sizes between two numbers: even or European ones go by twos."""
    step = 2 if (high - low) % 2 == 0 and (low % 2 == 0 or low > 30) and (high > 8 or low == 0) else 1
    return [str(number) for number in range(low, high + 1, step)]


def _span(low: str, high: str) -> list[str] | None:
    if low.isdigit() and high.isdigit():
        if low == "00":  # below 0 there is one size more
            return ["00", *_numbers(0, int(high))] if 0 < int(high) <= 200 else None
        return _numbers(int(low), int(high)) if 0 <= int(low) < int(high) <= 200 else None
    names = [_SAME.get(name.upper(), name.upper()) for name in (low, high)]
    if all(name in _LETTERS for name in names):
        first, last = map(_LETTERS.index, names)
        return list(_LETTERS[first : last + 1]) if first < last else None
    return None


def _piece(text: str) -> list[str] | None:
    text = _LEAD.sub("", text.strip().strip(".:")).strip()
    if not text:
        return []
    if _ONE.match(text):
        return [text.upper()]
    if ages := _ages(text):
        return ages
    span = _SPAN.match(text)
    if span:
        return _span(span["low"], span["high"])
    words = text.split()
    if len(words) > 1 and all(_ONE.match(word) or _DOUBLE.match(word) for word in words):
        return [word.upper() for word in words]
    if _DOUBLE.match(text):
        return [text.upper()]
    return None


def _bracketed(match: re.Match[str]) -> str:
    """'8 (10-12) 14' groups sizes; any other bracket is a remark, as what 'S (10-12)' is elsewhere."""
    return f", {match['inside']}, " if not match["letter"] and _piece(match["inside"]) else f"{match['letter'] or ''} "


def read_sizes(text: str) -> list[str] | None:
    """The labels that a text lists, each once; None if it is no list of sizes."""
    found: list[str] = []
    if _IN_LETTERS.match(text):
        return re.findall(r"[A-H]", text)  # 'Sizes A B C'
    if text.count("/") > 1 and not text.strip().count(" "):
        text = text.replace("/", ", ")  # '8/10/12/14'
    text = re.sub(r"(?P<letter>\b(?:X{0,4}[SL]|M|[1-6]XL?)\s*)?\((?P<inside>[^)]*)\)", _bracketed, text)
    for piece in _PIECES.split(text):
        labels = _piece(piece)
        if labels is None:
            return None
        found += labels
    return list(dict.fromkeys(found)) or None


def overlapping(text: str) -> list[list[str]] | None:
    """'0-16 and 12-32' → two bands, each whole; None where the text is no such pair of spans."""
    spans = [_piece(piece) for piece in _PIECES.split(re.sub(r"\([^)]*\)", " ", text)) if piece.strip()]
    if len(spans) < 2 or any(not span or len(span) < 2 for span in spans):
        return None
    bands = [span for span in spans if span]
    return bands if set(bands[0]) & set(bands[1]) else None


def size_groups(cells: list[str]) -> list[list[str]] | None:
    """A heading whose columns stand for several sizes each: ['8-12', '14-18'] → two groups."""
    groups = [_piece(cell) for cell in cells if cell.strip()]
    if not groups or any(not group for group in groups):
        return None
    return [group for group in groups if group]
