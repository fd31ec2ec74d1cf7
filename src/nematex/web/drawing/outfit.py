"""An outfit drawn: what is worn beneath on one figure, what lies over it beside."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from nematex.core.pattern.look import BOTTOMS
from nematex.store.records import ClothRecord
from nematex.web.drawing.garment import Figure
from nematex.web.drawing.sheet import WAIST_CM

BESIDE_CM = 6.0


@dataclass(frozen=True)
class Piece:
    """One garment of an outfit: its drawing, its cloth, and where its middle and top lie in cm."""

    figure: Figure
    cloth: ClothRecord
    x: float
    y: float


@dataclass(frozen=True)
class OutfitDrawing:
    """Pieces in the order in which they are drawn, and the box around them in cm."""

    pieces: tuple[Piece, ...]
    box: tuple[float, float, float, float]


def outfit_drawing(worn: Sequence[tuple[Figure, ClothRecord, str, str]]) -> OutfitDrawing:
    """Of garments as (drawing, cloth, kind, layer): bottoms first, so that a top hangs over its waistband."""
    pieces: list[Piece] = []
    right = 0.0
    order = ("bottom", "whole", "sleep", "top", "over", "beside")
    for figure, cloth, kind, layer in sorted(worn, key=lambda each: order.index(each[3])):
        x = 0.0
        if layer in ("over", "beside"):
            x = right + BESIDE_CM - figure.box[0]
        pieces.append(Piece(figure, cloth, x, WAIST_CM if kind in BOTTOMS else 0.0))
        right = max(right, x + figure.box[0] + figure.box[2])
    left = min((each.x + each.figure.box[0] for each in pieces), default=0.0)
    top = min((each.y + each.figure.box[1] for each in pieces), default=0.0)
    low = max((each.y + each.figure.box[1] + each.figure.box[3] for each in pieces), default=1.0)
    return OutfitDrawing(tuple(pieces), (left, top, max(right - left, 1.0), low - top))
