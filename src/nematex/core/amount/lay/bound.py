"""Below what length no lay can be: by area, by the longest piece, and by pieces that never lie side by side.

Where two pieces both reach over more than half the width at one place along the cloth, they would overlap there; so the
lengths over which each does so add up. Elementary geometry. In cm.
"""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from nematex.core.amount.lay.items import Item, Pose
from nematex.core.amount.lay.pieces import Strip

SLICES = 200


def _wide_length_cm(pose: Pose, over_cm: float) -> float:
    """Over how much of its length a pose's cloth reaches over more than so much of the width; never too much."""
    if pose.across_cm <= over_cm:
        return 0.0
    x0, _, x1, _ = pose.box
    ends = np.unique(np.concatenate([np.linspace(x0, x1, SLICES + 1), pose.corners[:, 0]]))
    inner = np.stack([ends[:-1] + 1e-9, ends[1:] - 1e-9], axis=1)  # between two corners the reach is linear
    reach = np.array([[_reach_cm(pose, x) for x in pair] for pair in inner])
    wide = np.minimum(reach[:, 0], reach[:, 1]) > over_cm
    return float((ends[1:] - ends[:-1])[wide].sum())


def _reach_cm(pose: Pose, x: float) -> float:
    """How much cloth lies across at one place along the piece, in cm."""
    a, b = pose.corners, np.roll(pose.corners, -1, axis=0)
    cut = (a[:, 0] <= x) != (b[:, 0] <= x)
    a, b = a[cut], b[cut]
    ys = np.sort(a[:, 1] + (x - a[:, 0]) / (b[:, 0] - a[:, 0]) * (b[:, 1] - a[:, 1]))
    return float((ys[1::2] - ys[::2]).sum())


def lower_bound_cm(items: Sequence[Item], strip: Strip) -> float:
    """The greatest of the three."""
    area = sum(item.area_cm2 for item in items) / strip.height_cm
    longest = max(min(pose.length_cm for pose in item.poses) for item in items)
    half, known = strip.height_cm / 2, {}
    for item in items:
        key = (item.shape, item.poses[0].mirrored)
        if key not in known:
            known[key] = min(_wide_length_cm(pose, half) for pose in item.poses)
    beside = sum(known[item.shape, item.poses[0].mirrored] for item in items)
    return float(max(area, longest, beside))
