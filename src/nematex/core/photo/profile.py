"""One-dimensional profiles of stripes and checks (n, channels): how they agree with themselves shifted, and reversed."""

from __future__ import annotations

import numpy as np

from nematex.core.colour.difference import Array
from nematex.core.photo.correlate import LEAST_OVERLAP, NOT_KNOWN


def _ncc_at(first: Array, second: Array) -> float:
    first, second = first - first.mean(axis=0), second - second.mean(axis=0)
    size = float(np.sqrt((first**2).sum() * (second**2).sum()))
    return float((first * second).sum()) / size if size > 1e-12 else 0.0


def profile_ncc(profile: Array, other: Array) -> Array:
    """NCC for every shift from 0 on, over the overlap; NOT_KNOWN where that is too short."""
    length = len(profile)
    shifts = range(length)
    return np.array(
        [_ncc_at(profile[at:], other[: length - at]) if length - at >= LEAST_OVERLAP * length else NOT_KNOWN for at in shifts]
    )


def profile_likeness(profile: Array) -> float:
    """How well a profile agrees with itself reversed, at the best shift that leaves at least half in view."""
    back, length = profile[::-1], len(profile)
    half = range(length // 2)
    one = max(_ncc_at(profile[at:], back[: length - at]) for at in half)
    other = max(_ncc_at(back[at:], profile[: length - at]) for at in half)
    return max(one, other)
