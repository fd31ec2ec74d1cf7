"""Garments of our own drafting for tests of the lay, and the published sets that tile without a gap. Lengths in cm."""

from __future__ import annotations

import math
from typing import Any

Corners = list[tuple[float, float]]


def box(length: float, across: float) -> Corners:
    return [(0, 0), (length, 0), (length, across), (0, across)]


def piece(name: str, outline: Corners, count: int = 1, kind: str = "single", **more: Any) -> dict[str, Any]:
    fold = {"fold_edge": "y=0"} if kind == "fold" else {}
    return {"id": name, "outline_cm": outline, "count": count, "kind": kind} | fold | more


def _curve(start: tuple[float, float], end: tuple[float, float], bulge: float, points: int = 6) -> Corners:
    """Points between two corners on a bow that stands out by `bulge` at its middle, along the grain."""
    return [
        (
            start[0] + (end[0] - start[0]) * t / points - bulge * math.sin(math.pi * t / points),
            start[1] + (end[1] - start[1]) * t / points,
        )
        for t in range(1, points)
    ]


def shirt() -> list[dict[str, Any]]:
    """25 pieces: yoke, back on the fold, fronts, sleeves, collar, cuffs, plackets, bands, pockets, tabs."""
    armhole = [(24, 28), *_curve((24, 28), (4, 20), -3), (4, 20)]
    head = [(16, 0), *_curve((16, 0), (16, 42), 14, 10), (16, 42)]
    return [
        piece("back", [(0, 0), (74, 0), (74, 29), *armhole, (2, 8)], kind="fold"),
        piece("front", [(0, 8), (8, 0), (76, 0), (76, 31), *armhole], 2, "pair"),
        piece("sleeve", [*head, (58, 34), (58, 8)], 2, "pair"),
        piece("yoke", box(12, 44), 2),
        piece("cuff", box(26, 9), 4, "pair"),
        piece("collar", box(46, 9), 2),
        piece("stand", box(46, 5), 2),
        piece("pocket", box(15, 13), 2),
        piece("placket", box(20, 6), 4, "pair"),
        piece("band", box(76, 6), 2, "pair"),
        piece("tab", box(14, 4), 2, "pair"),
    ]


def dress() -> list[dict[str, Any]]:
    """A dress with a bodice, an A-line skirt on the fold, short sleeves and facings."""
    return [
        piece(
            "bodice front", [(0, 8), (8, 0), (42, 0), (42, 22), (20, 25), *_curve((20, 25), (3, 20), -3), (3, 20)], kind="fold"
        ),
        piece("bodice back", [(0, 7), (3, 0), (42, 0), (42, 21), (20, 25), *_curve((20, 25), (3, 20), -3), (3, 20)], 2, "pair"),
        piece("skirt front", [(0, 0), (66, 0), (64, 38), (1, 22)], kind="fold"),
        piece("skirt back", [(0, 0), (66, 0), (64, 38), (1, 21)], 2, "pair"),
        piece("sleeve", [(12, 0), *_curve((12, 0), (12, 40), 11, 8), (12, 40), (22, 37), (22, 3)], 2, "pair"),
        piece("facing", box(8, 40), 2),
    ]


def trousers() -> list[dict[str, Any]]:
    """Wide trousers: fronts, backs, waistband, pocket bags."""
    return [
        piece("front", [(0, 4), (28, 0), (104, 4), (104, 34), (28, 36), *_curve((28, 36), (0, 28), -2), (0, 28)], 2, "pair"),
        piece("back", [(0, 6), (30, 0), (106, 2), (106, 38), (30, 42), *_curve((30, 42), (-3, 30), -3), (-3, 30)], 2, "pair"),
        piece("waistband", box(96, 9), 1),
        piece("pocket", [(0, 0), (30, 0), (30, 12), (18, 18), (0, 16)], 4, "pair"),
    ]


# Squares that tile 33 × 32 without a gap (Z. Moroń 1925, from memory).
MORON = [piece(str(side), box(side, side)) for side in (18, 15, 14, 10, 9, 8, 7, 4, 1)]
# The seven tans of the tangram, as they lie in a square of 80 cm (traditional).
TANGRAM = [
    piece(name, [(10.0 * x, 10.0 * y) for x, y in corners])
    for name, corners in {
        "large 1": [(0, 0), (8, 0), (4, 4)],
        "large 2": [(0, 0), (4, 4), (0, 8)],
        "small 1": [(8, 0), (8, 4), (6, 2)],
        "square": [(6, 2), (8, 4), (6, 6), (4, 4)],
        "small 2": [(4, 4), (6, 6), (2, 6)],
        "middle": [(8, 4), (8, 8), (4, 8)],
        "slanted": [(2, 6), (6, 6), (4, 8), (0, 8)],
    }.items()
]
