"""All pieces pushed together at once: a linear programme that shortens the lay and mends small overlaps.

Between each two neighbouring convex parts a line is kept, the edge that parts them best; while pieces move no further
than a little, no overlap can arise that the line does not forbid. Solved again with new lines until nothing is gained.
The method is that of Li and Milenkovic (Compaction and separation algorithms for non-convex polygons, 1995; from memory).
"""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
from scipy.optimize import linprog
from scipy.sparse import coo_array

from nematex.core.amount.lay.convex import convex_parts
from nematex.core.amount.lay.pieces import Strip
from nematex.core.amount.lay.placed import Placement
from nematex.core.quantity.arrays import Floats

REACH_CM = 6.0  # how far a piece may move in one round
APART_CM = 1e-6
LEAST_GAIN_CM = 0.01
ROUNDS = 12
FORWARD = 1e-4  # beside the length, every piece is drawn to the beginning so much


def _line(one: Floats, other: Floats) -> tuple[Floats, float]:
    """The normal (from one to other) along which two convex parts are furthest apart, and how far (less than 0: overlap)."""
    best, normal = -np.inf, np.zeros(2)
    for part, sign in ((one, 1.0), (other, -1.0)):
        edges = np.roll(part, -1, axis=0) - part
        outward = np.stack([edges[:, 1], -edges[:, 0]], axis=1)
        outward /= np.maximum(np.linalg.norm(outward, axis=1, keepdims=True), 1e-12)
        towards = sign * outward
        gaps = (other @ towards.T).min(axis=0) - (one @ towards.T).max(axis=0)
        at = int(gaps.argmax())
        if gaps[at] > best:
            best, normal = float(gaps[at]), towards[at]
    return normal, best


class _Programme:
    """One round: rows of the linear programme over the shifts (dx, dy) of each piece and the length."""

    def __init__(self, placements: Sequence[Placement], strip: Strip) -> None:
        self.placements, self.strip = placements, strip
        self.columns = 2 * len(placements) + 1
        self.rows: list[tuple[tuple[int, float], ...]] = []
        self.most: list[float] = []

    def row(self, most: float, *terms: tuple[int, float]) -> None:
        self.rows.append(terms)
        self.most.append(most)

    def bounds(self) -> list[tuple[float | None, float | None]]:
        """How far each piece may move: within reach, on the cloth, along the fold, not off its print."""
        found: list[tuple[float | None, float | None]] = []
        for placed in self.placements:
            (x0, y0, _, y1), item, repeat = placed.pose.box, placed.item, self.strip.repeat
            held_x = item.matched and repeat.along_cm
            held_y = item.on_fold or (item.matched and repeat.across_cm)
            down, up = -placed.y_cm - y0, self.strip.height_cm - placed.y_cm - y1
            found.append((0.0, 0.0) if held_x else (max(-REACH_CM, -placed.x_cm - x0), REACH_CM))
            low = down if down > 0 else max(-REACH_CM, down)
            high = up if up < 0 else min(REACH_CM, up)
            found.append((0.0, 0.0) if held_y else (min(low, high), high))
        return [*found, (0.0, None)]

    def build(self) -> None:
        for at, placed in enumerate(self.placements):
            self.row(-placed.end_cm, (2 * at, 1.0), (self.columns - 1, -1.0))
        parts = [[part + np.array([p.x_cm, p.y_cm]) for part in convex_parts(p.pose.corners)] for p in self.placements]
        boxes = [[(part.min(axis=0), part.max(axis=0)) for part in own] for own in parts]
        for one in range(len(parts)):
            for other in range(one + 1, len(parts)):
                self._keep_apart(one, other, parts, boxes)

    def _keep_apart(self, one: int, other: int, parts: list[list[Floats]], boxes: list[list[tuple[Floats, Floats]]]) -> None:
        for a, (a_low, a_high) in zip(parts[one], boxes[one], strict=True):
            for b, (b_low, b_high) in zip(parts[other], boxes[other], strict=True):
                if np.any(b_low - a_high > 2 * REACH_CM) or np.any(a_low - b_high > 2 * REACH_CM):
                    continue
                (nx, ny), gap = _line(a, b)
                terms = ((2 * one, nx), (2 * one + 1, ny), (2 * other, -nx), (2 * other + 1, -ny))
                self.row(gap - APART_CM, *terms)

    def solve(self) -> Floats | None:
        """The shifts (n, 2), or None where no way was found."""
        self.build()
        at = [(row, column, value) for row, terms in enumerate(self.rows) for column, value in terms]
        rows, columns, values = (np.array(each) for each in zip(*at, strict=True))
        matrix = coo_array((values, (rows, columns)), shape=(len(self.rows), self.columns)).tocsr()
        cost = np.zeros(self.columns)
        cost[0:-1:2] = FORWARD / len(self.placements)
        cost[-1] = 1.0
        found = linprog(cost, A_ub=matrix, b_ub=np.array(self.most), bounds=self.bounds(), method="highs")
        return np.asarray(found.x[:-1]).reshape(-1, 2) if found.status == 0 else None


def _length(placements: Sequence[Placement]) -> float:
    return max(placed.end_cm for placed in placements)


def compacted(placements: Sequence[Placement], strip: Strip, rounds: int = ROUNDS) -> list[Placement] | None:
    """The same lay, no overlap and as short as pushing makes it; None where overlaps cannot be pushed apart."""
    now = list(placements)
    for turn in range(rounds):
        shifts = _Programme(now, strip).solve()
        if shifts is None:
            return now if turn else None
        moved = [
            Placement(placed.item, placed.pose, placed.x_cm + float(dx), placed.y_cm + float(dy))
            for placed, (dx, dy) in zip(now, shifts, strict=True)
        ]
        gained, now = _length(now) - _length(moved), moved
        if turn and gained < LEAST_GAIN_CM:
            break
    return now
