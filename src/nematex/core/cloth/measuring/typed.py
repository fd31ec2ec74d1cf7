"""Measurements as they are typed: a percentage or a mark pulled, a bending length or the overhang it is half of."""

from __future__ import annotations

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


def read_bending_length_cm(text: str, field: str) -> float:
    """A bending length, or the overhang it is half of: '2.3 cm' or 'overhang 4.6 cm'."""
    said = text.strip().casefold()
    if said.startswith("overhang"):
        return bending_length_cm(read_length_cm(said.removeprefix("overhang"), field))
    return read_length_cm(text, field)
