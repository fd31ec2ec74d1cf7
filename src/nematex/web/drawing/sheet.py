"""The sheet that a garment is drawn on, and the common middle size: lengths in cm."""

from __future__ import annotations

from dataclasses import dataclass, field
from functools import lru_cache

from nematex.core.hang.hem import Hang, hang
from nematex.core.hang.silhouettes import SILHOUETTES, cut_of
from nematex.web.drawing.curves import Point, outline

SHOULDER: Point = (19.0, 4.5)
UNDERARM: Point = (23.5, 23.0)
WAIST_CM, HIP_BELOW_CM = 42.0, 20.0
WAIST_HALF, HIP_HALF, LOOSE_HALF = 17.5, 24.0, 27.0
TIERS = 3
FLAT_SKIRT, FLAT_SLEEVE = 1.45, 1.35  # the model's round radius as half the width of a garment that is drawn flat


@dataclass
class Sheet:
    """What is drawn so far; `behind` lies under the body."""

    behind: list[str] = field(default_factory=list)
    panels: list[str] = field(default_factory=list)
    lines: list[str] = field(default_factory=list)
    dots: list[Point] = field(default_factory=list)


@lru_cache(maxsize=256)
def hung(name: str, length_cm: float, gather: float | None, tenths: int) -> Hang:
    """The model's answer for a bending length in tenths of a cm, within its limits."""
    low, high = SILHOUETTES[name].length_cm[1:]
    return hang(cut_of(name, min(max(length_cm, low), high), gather), min(max(tenths / 10, 0.3), 9.0))


def pocket(sheet: Sheet, x: float, y: float) -> None:
    for side in (1, -1):
        corners = [(x - 6, y), (x + 6, y), (x + 6, y + 13), (x, y + 15), (x - 6, y + 13)]
        sheet.panels.append(outline([(side * a, b) for a, b in corners]))
