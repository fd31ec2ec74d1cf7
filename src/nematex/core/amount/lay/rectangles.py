"""Rectangles alone: a search that finds lays without a gap where there are any.

The front of what is laid is a staircase over the width. At its hindmost step, lowest first, either one of the different
rectangles is put or the step is given up as waste; a length is tried until its waste is spent. Depth first, as far as
the nodes allow: a textbook branch and bound.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from nematex.core.amount.lay.items import Item, Pose
from nematex.core.amount.lay.pieces import Strip
from nematex.core.amount.lay.placed import Placement

EPSILON = 1e-7
NODES = 60_000
TRIES = (0.0, 0.02, 0.05, 0.1, 0.2, 0.35, 0.5, 0.7, 0.85)  # lengths tried, as shares of the way from the bound to what is had

Step = tuple[float, float, float]  # y, height, x


def is_rectangle(pose: Pose) -> bool:
    """Whether a pose is a rectangle along and across."""
    x0, y0, x1, y1 = pose.box
    at_edges = np.isclose(pose.corners[:, 0], x0) | np.isclose(pose.corners[:, 0], x1)
    across = np.isclose(pose.corners[:, 1], y0) | np.isclose(pose.corners[:, 1], y1)
    if not bool((at_edges & across).all()):
        return False
    a, b = pose.corners, np.roll(pose.corners, -1, axis=0)
    area = abs(float((a[:, 0] * b[:, 1] - b[:, 0] * a[:, 1]).sum())) / 2
    return bool(np.isclose(area, (x1 - x0) * (y1 - y0)))


def all_rectangles(items: Sequence[Item]) -> bool:
    """Whether this search may be used: rectangles that need not match a print."""
    return all(not item.matched and all(is_rectangle(pose) for pose in item.poses) for item in items)


@dataclass
class _Kind:
    """Rectangles that are alike: the sizes (length, across) they may lie in, and how many are left."""

    items: list[Item]
    sizes: list[tuple[float, float, int]]  # with the number of the pose
    on_fold: bool
    left: int


def _kinds(items: Sequence[Item]) -> list[_Kind]:
    found: dict[tuple[object, ...], _Kind] = {}
    for item in items:
        sizes: dict[tuple[float, float], int] = {}
        for at, pose in enumerate(item.poses):
            sizes.setdefault((round(pose.length_cm, 6), round(pose.across_cm, 6)), at)
        kind = found.setdefault(
            (tuple(sizes), item.on_fold), _Kind([], [(*size, at) for size, at in sizes.items()], item.on_fold, 0)
        )
        kind.items.append(item)
        kind.left += 1
    return sorted(found.values(), key=lambda kind: -max(length * across for length, across, _ in kind.sizes))


class _Search:
    def __init__(self, items: Sequence[Item], height: float, length: float, nodes: int) -> None:
        self.kinds = _kinds(items)
        self.height, self.length, self.nodes = height, length, nodes
        self.laid: list[tuple[_Kind, int, float, float]] = []
        self.waste = height * length - sum(item.poses[0].length_cm * item.poses[0].across_cm for item in items)

    def run(self) -> bool:
        return self.waste >= -EPSILON and self._fill([(0.0, self.height, 0.0)])

    def _fill(self, front: list[Step]) -> bool:
        if not any(kind.left for kind in self.kinds):
            return True
        self.nodes -= 1
        if self.nodes < 0:
            return False
        at = min(range(len(front)), key=lambda place: (front[place][2], front[place][0]))
        y, height, x = front[at]
        for kind in self.kinds:
            if not kind.left or (kind.on_fold and y > EPSILON):
                continue
            for length, across, pose in kind.sizes:
                if across > height + EPSILON or x + length > self.length + EPSILON:
                    continue
                kind.left -= 1
                self.laid.append((kind, pose, x, y))
                if self._fill(_raised(front, at, across, x + length)):
                    return True
                self.laid.pop()
                kind.left += 1
        return self._give_up(front, at)

    def _give_up(self, front: list[Step], at: int) -> bool:
        """Nothing is put here: the step rises to the lower of its neighbours, or to the end."""
        _, height, x = front[at]
        beside = [front[place][2] for place in (at - 1, at + 1) if 0 <= place < len(front)]
        up = min(beside, default=self.length)
        lost = height * (up - x)
        if up <= x + EPSILON or lost > self.waste + EPSILON:
            return False
        self.waste -= lost
        if self._fill(_raised(front, at, height, up)):
            return True
        self.waste += lost
        return False


def _raised(front: list[Step], at: int, across: float, x: float) -> list[Step]:
    """The front with the lowest `across` of one step brought to x; steps of one height joined."""
    y, height, old = front[at]
    own = [(y, min(across, height), x)]
    if height - across > EPSILON:
        own.append((y + across, height - across, old))
    joined: list[Step] = []
    for step in (*front[:at], *own, *front[at + 1 :]):
        if joined and abs(joined[-1][2] - step[2]) <= EPSILON:
            joined[-1] = (joined[-1][0], joined[-1][1] + step[1], step[2])
        else:
            joined.append(step)
    return joined


def lay_rectangles(
    items: Sequence[Item], strip: Strip, bound_cm: float, had_cm: float, nodes: int = NODES
) -> list[Placement] | None:
    """The shortest lay found, shorter than `had_cm`; None where there is none."""
    for share in TRIES:
        length = bound_cm + share * (had_cm - bound_cm)
        if length > had_cm - 0.01:
            return None
        search = _Search(items, strip.height_cm, length, nodes)
        if search.run():
            return _placements(search)
    return None


def _placements(search: _Search) -> list[Placement]:
    used: dict[int, int] = {}
    found = []
    for kind, pose_at, x, y in search.laid:
        item = kind.items[used.get(id(kind), 0)]
        used[id(kind)] = used.get(id(kind), 0) + 1
        length, across, _ = next(size for size in kind.sizes if size[2] == pose_at)
        pose = next(each for each in item.poses if abs(each.length_cm - length) < 1e-5 and abs(each.across_cm - across) < 1e-5)
        found.append(Placement(item, pose, x - pose.box[0], y - pose.box[1]))
    return found
