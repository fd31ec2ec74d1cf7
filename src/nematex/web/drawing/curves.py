"""Points and paths on the drawing sheet, in cm: x = 0 is the middle of the garment, y grows downward."""

from __future__ import annotations

import math
from collections.abc import Sequence

Point = tuple[float, float]


def curve(start: Point, bend: Point, end: Point, steps: int = 7) -> list[Point]:
    """Points of a curve from start to end that leans toward `bend`, both ends among them."""
    found = []
    for step in range(steps + 1):
        t = step / steps
        a, b, c = (1 - t) ** 2, 2 * t * (1 - t), t * t
        found.append((a * start[0] + b * bend[0] + c * end[0], a * start[1] + b * bend[1] + c * end[1]))
    return found


def mirrored(points: Sequence[Point]) -> list[Point]:
    """The same points on the other side of the middle, the other way round."""
    return [(-x, y) for x, y in reversed(points)]


def outline(points: Sequence[Point], closed: bool = True) -> str:
    """A path through the points, to a millimetre."""
    return "M" + "L".join(f"{x:.1f} {y:.1f}" for x, y in points) + ("Z" if closed else "")


def whole(right: Sequence[Point]) -> str:
    """A closed path from its right half, which begins and ends on the middle."""
    return outline([*right, *mirrored(right)])


def both(right: Sequence[Point]) -> str:
    """An open line on the right and its mirror on the left."""
    return outline(right, closed=False) + outline(mirrored(right), closed=False)


def waved(left: Point, right: Point, folds: int, depth: float) -> list[Point]:
    """A hem from right to left that swings in folds, hanging a little lower in the middle."""
    steps = max(8, folds * 4)
    found = []
    for step in range(steps + 1):
        t = step / steps
        x, y = right[0] + (left[0] - right[0]) * t, right[1] + (left[1] - right[1]) * t
        found.append((x, y + 1.6 * math.sin(math.pi * t) + depth * math.sin(2 * math.pi * folds * t)))
    return found


def along(start: Point, end: Point, share: float, aside: float = 0.0) -> Point:
    """The point at a share of the way, so far aside of it (to the outside of a right sleeve)."""
    dx, dy = end[0] - start[0], end[1] - start[1]
    length = math.hypot(dx, dy) or 1.0
    return start[0] + share * dx + aside * dy / length, start[1] + share * dy - aside * dx / length
