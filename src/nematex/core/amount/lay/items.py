"""What is placed: each copy of a piece as one item, with the ways it may lie.

On single cloth a piece on the fold is opened to its whole; on folded cloth it lies on the fold (y = 0), and a pair is
cut once through both layers. With a nap every piece lies the same way up; else it may be turned by half a turn.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from propcache.api import cached_property
from shapely import Polygon, unary_union
from shapely.affinity import scale

from nematex.core.amount.lay.pieces import CannotLie, Piece, Strip
from nematex.core.quantity.arrays import Floats

TURNS = (0, 180)
FREE_TURNS = (0, 90, 180, 270)
SLACK_CM = 1e-6
QUARTERS = {0.0: (1.0, 0.0), 90.0: (0.0, 1.0), 180.0: (-1.0, 0.0), 270.0: (0.0, -1.0)}  # cosine and sine, exact


@dataclass(frozen=True)
class Pose:
    """One way a piece may lie: mirrored across the grain first, then turned about its origin; its corners so (n, 2)."""

    turn_deg: float
    mirrored: bool
    corners: Floats

    @cached_property
    def box(self) -> tuple[float, float, float, float]:
        """Least and greatest along and across: x0, y0, x1, y1."""
        low, high = self.corners.min(axis=0), self.corners.max(axis=0)
        return float(low[0]), float(low[1]), float(high[0]), float(high[1])

    @property
    def length_cm(self) -> float:
        return self.box[2] - self.box[0]

    @property
    def across_cm(self) -> float:
        return self.box[3] - self.box[1]


@dataclass(frozen=True)
class Item:
    """One copy to place. `on_fold`: it lies at y = 0 and nowhere else; `matched`: it keeps to the print's repeat."""

    id: str
    copy: int
    poses: tuple[Pose, ...]
    area_cm2: float
    shape: int  # items of one shape are alike: they may change places
    on_fold: bool = False
    matched: bool = False
    free: bool = False
    both_hands: bool = False  # cut once through both layers, it is two copies: either hand may lie on top

    def copy_of(self, pose: Pose) -> int:
        """The number of the copy that lies on top: of a pair's two the second is the mirrored one."""
        return 2 * self.copy - (0 if pose.mirrored else 1) if self.both_hands else self.copy

    @property
    def copies(self) -> tuple[int, ...]:
        """The numbers that it may bear."""
        return (2 * self.copy - 1, 2 * self.copy) if self.both_hands else (self.copy,)


def turned(corners: Floats, turn_deg: float, mirrored: bool) -> Floats:
    """Mirror in y, then turn about the origin."""
    points = corners * np.array([1.0, -1.0]) if mirrored else corners
    exact = QUARTERS.get(turn_deg)
    cos, sin = exact or (float(np.cos(np.radians(turn_deg))), float(np.sin(np.radians(turn_deg))))
    found: Floats = points @ np.array([[cos, sin], [-sin, cos]])
    return found


def opened(piece: Piece) -> Polygon:
    """A piece on the fold as it is cut from single cloth: with its mirror image about the fold edge."""
    fold = piece.fold_y_cm or 0.0
    whole = unary_union([piece.polygon, scale(piece.polygon, 1, -1, origin=(0, fold))])
    return Polygon(whole.exterior) if isinstance(whole, Polygon) else piece.polygon


def _poses(corners: Floats, turns: Sequence[float], mirrors: Sequence[bool]) -> tuple[Pose, ...]:
    """The different ways: of two that cover the same ground the first."""
    found: dict[bytes, Pose] = {}
    for mirrored in mirrors:
        for turn in turns:
            pose = Pose(turn, mirrored, turned(corners, turn, mirrored))
            ground = np.round(pose.corners - np.array(pose.box[:2]), 6) + 0.0
            found.setdefault(ground[np.lexsort(ground.T)].tobytes(), pose)
    return tuple(found.values())


def items_of(pieces: Sequence[Piece], strip: Strip) -> list[Item]:
    """Every copy that is placed; raises CannotLie where one is wider than the cloth."""
    found: list[Item] = []
    for shape, piece in enumerate(pieces):
        turns = FREE_TURNS if piece.free else TURNS[:1] if strip.with_nap else TURNS
        found += _folded(piece, shape, turns, strip) if strip.folded else _single(piece, shape, turns, strip)
    return found


def _item(
    piece: Piece, shape: int, copy: int, poses: tuple[Pose, ...], area: float, strip: Strip, on_fold: bool = False
) -> Item:
    fitting = tuple(pose for pose in poses if pose.across_cm <= strip.height_cm + SLACK_CM)
    if not fitting:
        least = min(pose.across_cm for pose in poses)
        where = "half the usable width, on folded cloth" if strip.folded else "the usable width"
        raise CannotLie(
            f"piece {piece.id!r}",
            f"{least:.1f} cm across",
            f"does not lie on {strip.height_cm:.1f} cm ({where}): {least - strip.height_cm:.1f} cm too wide",
        )
    matched = not piece.free and bool(strip.repeat.along_cm or strip.repeat.across_cm)
    return Item(piece.id, copy, fitting, area, shape, on_fold, matched, piece.free)


def _single(piece: Piece, shape: int, turns: Sequence[float], strip: Strip) -> list[Item]:
    polygon = opened(piece) if piece.kind == "fold" else piece.polygon
    corners = np.array(polygon.exterior.coords[:-1])
    ways = {mirrored: _poses(corners, turns, [mirrored]) for mirrored in (False, True)}
    return [
        _item(piece, shape, copy, ways[piece.kind == "pair" and copy % 2 == 0], polygon.area, strip)
        for copy in range(1, piece.copies + 1)
    ]


def _folded(piece: Piece, shape: int, turns: Sequence[float], strip: Strip) -> list[Item]:
    corners = np.array(piece.polygon.exterior.coords[:-1])
    if piece.kind == "fold":
        poses = _on_the_fold(piece, corners)
        return [_item(piece, shape, copy, poses, piece.polygon.area, strip, True) for copy in range(1, piece.copies + 1)]
    pair = piece.kind == "pair"
    # Cut through both layers, a pair comes out as its two hands whichever of them lies on top.
    poses = _poses(corners, turns, [False, True] if pair else [False])
    copies = piece.copies // 2 if pair else piece.copies
    found = [_item(piece, shape, at, poses, piece.polygon.area, strip) for at in range(1, copies + 1)]
    return [replace(item, both_hands=pair) for item in found]


def _on_the_fold(piece: Piece, corners: Floats) -> tuple[Pose, ...]:
    """As it is drawn, the fold edge lowest; mirrored only where the edge on the fold is its upper one."""
    upper = min(y for _, y in piece.outline_cm) < (piece.fold_y_cm or 0.0) - SLACK_CM
    return _poses(corners, TURNS[:1], [upper])
