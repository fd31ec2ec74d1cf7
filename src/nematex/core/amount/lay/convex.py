"""A polygon as convex parts, so that "apart" can be said by a line between two of them."""

from __future__ import annotations

from functools import lru_cache

import numpy as np
from shapely import MultiPolygon, Polygon, constrained_delaunay_triangles, convex_hull, get_parts

from nematex.core.quantity.arrays import Floats

BULGE_CM2 = 1e-6


def convex_parts(corners: Floats) -> list[Floats]:
    """Corners of the convex parts, counter-clockwise, (n, 2) each."""
    return [np.array(part) for part in _parts(tuple(map(tuple, corners.tolist())))]


@lru_cache(maxsize=4096)
def _parts(corners: tuple[tuple[float, float], ...]) -> tuple[tuple[tuple[float, float], ...], ...]:
    whole = Polygon(corners)
    if convex_hull(whole).area - whole.area < BULGE_CM2:
        parts = [convex_hull(whole)]
    else:
        parts = _merged([part for part in get_parts(constrained_delaunay_triangles(whole)) if part.area > BULGE_CM2])
    return tuple(tuple(Polygon(part).normalize().exterior.coords[:-1])[::-1] for part in parts)


def _merged(parts: list[Polygon]) -> list[Polygon]:
    """Neighbours joined while the two together stay convex."""
    at = 0
    while at < len(parts):
        other = next((k for k in range(at + 1, len(parts)) if _together(parts[at], parts[k])), None)
        if other is None:
            at += 1
        else:
            parts[at] = convex_hull(MultiPolygon([parts[at], parts.pop(other)]))
    return parts


def _together(one: Polygon, other: Polygon) -> bool:
    if not one.intersects(other):
        return False
    hull = convex_hull(MultiPolygon([one, other]))
    return bool(abs(hull.area - one.area - other.area) < BULGE_CM2)
