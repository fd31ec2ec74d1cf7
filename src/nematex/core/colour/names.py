"""A word for a colour. Apart from colour.py, so that the tables can be read without the numeric libraries."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class ColourName:
    """A word for a colour, its family, and the sRGB triple it stands for."""

    name: str
    family: str
    srgb: tuple[int, int, int]
