"""The quantities that a pattern asks and a cloth has."""

from __future__ import annotations

from enum import Enum


class Quantity(Enum):
    """What a window is about, by its name among a cloth's estimates: with unit and the places it is said with."""

    WEIGHT = ("weight", "g/m²", 0)
    THICKNESS = ("thickness", "mm", 2)
    BENDING_LENGTH = ("bending_length", "cm", 1)
    STRETCH_ACROSS = ("stretch_cross", "%", 0)
    STRETCH_ALONG = ("stretch_length", "%", 0)
    WIDTH = ("width", "cm", 0)
    SHARE = ("breathing", "%", 0)

    def __init__(self, attribute: str, unit: str, places: int) -> None:
        self.attribute = attribute
        self.unit = unit
        self.places = places
