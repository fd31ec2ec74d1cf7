"""Size labels: '8 10 12', 'UK 8-16', 'XS, S, M, L', '0–16', '1X 2X 3X'. Common practice, no source."""

from __future__ import annotations

import re

_LETTERS = ("XXS", "XS", "S", "M", "L", "XL", "2XL", "3XL", "4XL", "5XL", "6XL")
_SAME = {"XXL": "2XL", "XXXL": "3XL", "XXXXL": "4XL"}
_LABEL = r"(?:\d{1,3}[WPT]?|X{1,4}[SL]|[1-6]XL?|[SML])"
_ONE = re.compile(rf"^{_LABEL}$", re.IGNORECASE)
_SPAN = re.compile(rf"^(?P<low>{_LABEL})\s*(?:-|–|—|to|bis)\s*(?P<high>{_LABEL})$", re.IGNORECASE)
_LEAD = re.compile(r"^\s*(?:uk|us|eu|au|misses|size|sizes|age|ages)\s+", re.IGNORECASE)
_PIECES = re.compile(r"[,;|\t]|\s+(?:and|&|or|\+)\s+|\s{2,}")


def _numbers(low: int, high: int) -> list[str]:
    """The sizes between two numbers: even or European ones go by twos."""
    step = 2 if (high - low) % 2 == 0 and (low % 2 == 0 or low > 30) and (high > 8 or low == 0) else 1
    return [str(number) for number in range(low, high + 1, step)]


def _span(low: str, high: str) -> list[str] | None:
    if low.isdigit() and high.isdigit():
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
    span = _SPAN.match(text)
    if span:
        return _span(span["low"], span["high"])
    words = text.split()
    if len(words) > 1 and all(_ONE.match(word) for word in words):
        return [word.upper() for word in words]
    if re.fullmatch(rf"{_LABEL}/{_LABEL}", text, re.IGNORECASE):
        return [text.upper()]
    return None


def read_sizes(text: str) -> list[str] | None:
    """The labels that a text lists, each once; None if it is no list of sizes."""
    found: list[str] = []
    text = re.sub(r"\([^)]*\)", " ", text)
    for piece in _PIECES.split(text):
        labels = _piece(piece)
        if labels is None:
            return None
        found += labels
    return list(dict.fromkeys(found)) or None


def size_groups(cells: list[str]) -> list[list[str]] | None:
    """A heading whose columns stand for several sizes each: ['8-12', '14-18'] → two groups."""
    groups = [_piece(cell) for cell in cells if cell.strip()]
    if not groups or any(not group for group in groups):
        return None
    return [group for group in groups if group]
