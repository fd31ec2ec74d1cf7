"""The hang model as SVG: outlines, hem waves and folds, in cm; the middle of the garment is x = 0, its top y = 0.

The hem is seen a little from above, so that its folds show as a wave. Folds begin a quarter of the way down.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from nematex.core.cloth.measuring.draped_disc import DrapedDisc
from nematex.core.hang.cowl import APART_CM, Cowl
from nematex.core.hang.hem import Hang

TILT = 0.15  # how far the hem is tipped toward the eye
STEPS = 30
FROM, WEDGE = 0.25, 0.16  # where folds begin, and how wide their shade is at the hem, as a share of the fold


@dataclass(frozen=True)
class Drawn:
    """Paths of one hung piece: its outline, the hem behind it, the hollows and the crests of its folds."""

    outline: str
    behind: str
    hollows: str
    crests: str
    half_width: float
    height: float


def _path(points: list[tuple[float, float]]) -> str:
    return "M" + "L".join(f"{x:.2f} {y:.2f}" for x, y in points)


class _Piece:
    """Where a point of the cloth is seen: `share` of the way down, at an angle from the front (−90° to 90°)."""

    def __init__(self, found: Hang) -> None:
        self.radius_cm: list[float] = found.radius_cm.tolist()
        self.fall_cm: list[float] = found.fall_cm.tolist()
        self.last = len(self.radius_cm) - 1
        self.at_hem = found.widest >= self.last - 1  # else it is gathered in again below, as a sleeve is
        self.front = max(1, round(found.folds / 2))  # folds in front
        self.depth = 0.55 * found.fold_depth_cm if found.fullness > 1.02 else 0.0

    def deep(self, share: float) -> float:
        """How deep the folds are at a place: none at the seam, most at the hem or where it is widest."""
        if share <= FROM:
            return 0.0
        down = (share - FROM) / (1 - FROM)
        return self.depth * (down**1.5 if self.at_hem else math.sin(math.pi * down) ** 2 * 0.6)

    def point(self, share: float, angle: float) -> tuple[float, float]:
        radius, fall = self._between(self.radius_cm, share), self._between(self.fall_cm, share)
        wave = self.deep(share) * math.cos(2 * self.front * (angle + math.pi / 2))  # a crest at either side
        out = radius + wave
        return out * math.sin(angle), fall + TILT * out * math.cos(angle) * share

    def _between(self, values: list[float], share: float) -> float:
        """The value at a share of the way down, straight between its neighbours."""
        place = share * self.last
        at = min(int(place), self.last - 1)
        return values[at] + (values[at + 1] - values[at]) * (place - at)

    def wedge(self, angle: float) -> str:
        """The shade of one fold: a sliver that widens downward."""
        half = WEDGE * math.pi / (2 * self.front)
        down = [step / 12 for step in range(13)]
        wide = [half * (share if self.at_hem else math.sin(math.pi * share)) for share in down]
        places = [FROM + (1 - FROM) * share for share in down]
        left = [self.point(place, angle - each) for place, each in zip(places, wide, strict=True)]
        right = [self.point(place, angle + each) for place, each in zip(places, wide, strict=True)]
        return _path([*left, *reversed(right)]) + "Z"


def draw(found: Hang) -> Drawn:
    """The paths of one hang."""
    piece = _Piece(found)
    side = [piece.point(step / STEPS, math.pi / 2) for step in range(STEPS + 1)]
    hem = [piece.point(1.0, angle) for angle in np.linspace(math.pi / 2, -math.pi / 2, 24 * piece.front + 2)]
    mirrored = [(-x, y) for x, y in reversed(side)]
    back = [(x, 2 * side[-1][1] - y) for x, y in hem]  # the far side of the hem, seen over the near one
    fold = math.pi / (2 * piece.front)
    hollows = [(2 * number + 1) * fold - math.pi / 2 for number in range(piece.front)]
    crests = [2 * number * fold - math.pi / 2 for number in range(1, piece.front)]
    folded = piece.depth > 0
    return Drawn(
        _path([*side, *hem[1:-1], *mirrored]) + "Z",
        _path(back),
        "".join(map(piece.wedge, hollows)) if folded else "",
        "".join(map(piece.wedge, crests)) if folded else "",
        max(x for x, _ in [*side, *hem]),
        max(y for _, y in hem),
    )


def disc_path(disc: DrapedDisc) -> str:
    """The draped disc from above, around (0, 0)."""
    angles = np.linspace(0, 2 * math.pi, 181)
    return _path([(disc.radius_cm(a) * math.cos(a), disc.radius_cm(a) * math.sin(a)) for a in angles]) + "Z"


def cowl_paths(found: Cowl) -> list[str]:
    """The neckline between the shoulder points, and a fainter line for each fold below it."""
    half = APART_CM / 2
    paths = []
    for fold in range(found.folds + 1):
        depth = found.depth_cm + fold * 2.2
        # A parabola is near enough to a chain for a line on a page.
        paths.append(_path([(half * x, depth * (1 - x**2)) for x in np.linspace(-1, 1, 41)]))
    return paths
