"""Colourways and bolts as one line of text, as a price list or a form holds them.

'navy #1d2746 #f3ecd9 12 m | white 3.5 m semi-sheer' and '12.5 m; 3 m navy'.
"""

from __future__ import annotations

import re
from collections.abc import Iterable

from nematex.core.cloth.facts import SHEERNESS
from nematex.core.errors import FieldFault
from nematex.core.quantity.reader import read_length_cm
from nematex.store.records import Bolt, Colourway

_COLOUR = r"#[0-9a-fA-F]{6}\b"
_LENGTH = r"(?<![\d.,])\d{1,9}(?:[.,]\d{1,6})?\s?(?:m|yds?|yards?|cm)\b"

MOST_SAYING = sorted(SHEERNESS, key=len, reverse=True)  # 'slightly sheer' before 'sheer'


def _metres(text: str, field: str) -> float:
    return round(read_length_cm(text, field, "m") / 100, 3)


def read_colourways(text: str, field: str) -> tuple[Colourway, ...]:
    """Colourways parted by bars; raises FieldFault."""
    found = []
    for part in (each.strip() for each in text.split("|")):
        if not part:
            continue
        colours = tuple(each.casefold() for each in re.findall(_COLOUR, part))
        rest = re.sub(_COLOUR, " ", part)
        stock = re.search(_LENGTH, rest)
        rest = re.sub(_LENGTH, " ", rest)
        shows = next((word for word in MOST_SAYING if re.search(rf"\b{word}\b", rest, re.IGNORECASE)), "")
        name = " ".join(re.sub(rf"\b{shows}\b", " ", rest, flags=re.IGNORECASE).split() if shows else rest.split())
        if not name:
            raise FieldFault(field, part[:60], "names no colourway; write it like: navy #1d2746 12 m | rust 3.5 m")
        found.append(Colourway(name[:60], colours, _metres(stock[0], field) if stock else None, sheer=shows))
    names = [each.name.casefold() for each in found]
    double = next((name for name in names if names.count(name) > 1), None)
    if double:
        raise FieldFault(field, double, "names a colourway twice")
    return tuple(found)


def read_bolts(text: str, field: str) -> tuple[Bolt, ...]:
    """Bolts parted by semicolons; raises FieldFault."""
    found = []
    for part in (each.strip() for each in text.split(";")):
        if not part:
            continue
        length = re.match(_LENGTH, part)
        if not length:
            raise FieldFault(field, part[:60], "is not a bolt; write it like: 12.5 m; 3 m navy")
        found.append(Bolt(_metres(length[0], field), part[length.end() :].strip()[:60]))
    return tuple(found)


def say_colourways(colourways: Iterable[Colourway]) -> str:
    """The colourways as the text that read_colourways reads."""
    return " | ".join(map(_say_colourway, colourways))


def _say_colourway(way: Colourway) -> str:
    stock = f"{way.stock_m:g} m" if way.stock_m is not None else ""
    return " ".join(filter(None, [way.name, *way.colours, stock, way.sheer]))


def say_bolts(bolts: Iterable[Bolt]) -> str:
    """The bolts as the text that read_bolts reads."""
    return "; ".join(f"{each.length_m:g} m {each.colourway}".strip() for each in bolts)
