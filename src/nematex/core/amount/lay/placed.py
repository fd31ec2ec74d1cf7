"""A lay: each item with its pose and shift, the length it takes, and whether geometry finds a fault in it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from propcache.api import cached_property
from shapely import Polygon, STRtree

from nematex.core.amount.lay.items import Item, Pose
from nematex.core.amount.lay.pieces import Strip
from nematex.core.quantity.arrays import Floats

OVERLAP_CM2 = 1e-3  # less is rounding
EDGE_CM = 1e-5


@dataclass(frozen=True)
class Placement:
    """An item where it lies: its pose shifted by x along and y across, in cm."""

    item: Item
    pose: Pose
    x_cm: float
    y_cm: float

    @property
    def corners(self) -> Floats:
        moved: Floats = self.pose.corners + np.array([self.x_cm, self.y_cm])
        return moved

    @property
    def polygon(self) -> Polygon:
        return Polygon(self.corners)

    @property
    def end_cm(self) -> float:
        return self.x_cm + self.pose.box[2]


@dataclass(frozen=True)
class Lay:
    """A whole lay on a strip, by which solver, and the bound below which no lay can be."""

    strip: Strip
    placements: tuple[Placement, ...]
    solver: str
    lower_bound_cm: float = 0.0

    @cached_property
    def length_cm(self) -> float:
        return max((placed.end_cm for placed in self.placements), default=0.0)

    @property
    def utilisation_pct(self) -> float:
        """How much of the cloth is used; of folded cloth what lies on it."""
        area = sum(placed.item.area_cm2 for placed in self.placements)
        return 100 * area / (self.length_cm * self.strip.height_cm) if self.length_cm else 0.0


def off_repeat(value: float, repeat: float | None) -> float:
    """How far a shift is from the print's repeat, in cm."""
    if not repeat:
        return 0.0
    return abs(value - repeat * round(value / repeat))


def faults(lay: Lay) -> list[str]:
    """What geometry finds wrong, in words; nothing for a sound lay."""
    found = [fault for placed in lay.placements for fault in _own_faults(placed, lay.strip)]
    return found + [
        f"{_name(one)} and {_name(other)} overlap by {area:.2f} cm²" for one, other, area in overlaps(lay.placements)
    ]


def _name(placed: Placement) -> str:
    return f"{placed.item.id} {placed.item.copy}"


def _own_faults(placed: Placement, strip: Strip) -> list[str]:
    """Of one piece alone: off the cloth, off the fold, off the print."""
    name, (x0, y0, _, y1) = _name(placed), placed.pose.box
    found = []
    if placed.x_cm + x0 < -EDGE_CM:
        found.append(f"{name} lies {-placed.x_cm - x0:.2f} cm before the beginning of the cloth")
    if placed.y_cm + y0 < -EDGE_CM or placed.y_cm + y1 > strip.height_cm + EDGE_CM:
        found.append(f"{name} lies {max(-placed.y_cm - y0, placed.y_cm + y1 - strip.height_cm):.2f} cm over the edge")
    if placed.item.on_fold and abs(placed.y_cm + y0) > EDGE_CM:
        found.append(f"{name} lies {placed.y_cm + y0:.2f} cm away from the fold")
    if not any(placed.pose is pose for pose in placed.item.poses) and not placed.item.free:
        found.append(f"{name} is turned off its grain")
    if placed.item.matched:
        across = None if placed.item.on_fold else strip.repeat.across_cm
        off = max(off_repeat(placed.x_cm, strip.repeat.along_cm), off_repeat(placed.y_cm, across))
        if off > EDGE_CM:
            found.append(f"{name} lies {off:.2f} cm off the print's repeat")
    return found


def overlaps(placements: Sequence[Placement]) -> list[tuple[Placement, Placement, float]]:
    """Pairs that overlap, with the area in cm²."""
    polygons = [placed.polygon for placed in placements]
    tree = STRtree(polygons)
    found = []
    for one, other in zip(*tree.query(polygons, predicate="intersects"), strict=True):
        if one < other and (area := polygons[one].intersection(polygons[other]).area) > OVERLAP_CM2:
            found.append((placements[one], placements[other], float(area)))
    return found


def sound(lay: Lay) -> bool:
    """Whether geometry finds no fault in it."""
    return not faults(lay)
