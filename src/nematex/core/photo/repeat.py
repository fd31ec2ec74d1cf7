"""The repeat of a print along and across, from the overlap-normalised autocorrelation. Lengths in pixels."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from nematex.core.colour.difference import Array

CONE = 0.07  # how far off the axis a repeat may lie: a photo is rarely straight
LEAST_PEAK = 0.6
NEAR_BEST = 0.07
LEAST_RISE = 0.15
SMALLEST_PX = 4


@dataclass(frozen=True, slots=True)
class Repeat:
    """A repeat in px with the height of its peak and a confidence 0–1; None where none was found."""

    length_px: float | None
    peak: float
    confidence: float


NONE_FOUND = Repeat(None, 0.0, 0.0)


def _profile(ncc: Array) -> Array:
    """Best NCC within the cone for each shift along the first axis, from no shift on."""
    height, width = (ncc.shape[0] + 1) // 2, (ncc.shape[1] + 1) // 2
    profile = np.empty(height)
    for shift in range(height):
        reach = min(width - 1, 1 + int(CONE * shift))
        profile[shift] = ncc[height - 1 + shift, width - 1 - reach : width + reach].max()
    return profile


def _sub_pixel(profile: Array, at: int) -> float:
    """The top of the parabola through a peak and its neighbours."""
    before, top, after = profile[at - 1], profile[at], profile[at + 1]
    bend = before - 2 * top + after
    return at + (0.5 * (before - after) / bend if bend < 0 else 0.0)


def _refined(profile: Array, first: float) -> float:
    """The repeat from its farthest multiple whose peak still stands, so that the pixel error is shared out."""
    best = first
    multiple = 2
    while True:
        guess = best * multiple
        reach = max(2, int(0.12 * first))
        low, high = int(guess) - reach, int(guess) + reach + 2
        if high >= len(profile) - 1 or low < 1:
            return best
        at = low + int(np.argmax(profile[low:high]))
        if profile[at] < LEAST_PEAK or not profile[at - 1] <= profile[at] >= profile[at + 1]:
            return best
        best = _sub_pixel(profile, at) / multiple
        multiple += 1


def repeat_of_profile(profile: Array) -> Repeat:
    """The smallest shift that brings the picture back onto itself nearly as well as any other does."""
    unknown = profile < -1.5
    usable = int(np.argmax(unknown)) if unknown.any() else len(profile)
    inner = range(SMALLEST_PX, usable - 1)
    tops = [at for at in inner if profile[at] >= profile[at - 1] and profile[at] >= profile[at + 1]]
    risen = [at for at in tops if profile[at] - profile[: at + 1].min() >= LEAST_RISE]
    if not risen:
        return NONE_FOUND
    limit = max(LEAST_PEAK, max(profile[at] for at in risen) - NEAR_BEST)
    at = next((at for at in risen if profile[at] >= limit), None)
    if at is None:
        return NONE_FOUND
    length = _refined(profile, _sub_pixel(profile, at))
    visible = len(profile) / length
    confidence = float(profile[at] * np.clip((visible - 1.3) / 0.7, 0, 1))
    return Repeat(length, float(profile[at]), confidence)


def repeats(ncc: Array) -> tuple[Repeat, Repeat]:
    """The repeats along (down the picture) and across."""
    return repeat_of_profile(_profile(ncc)), repeat_of_profile(_profile(ncc.T))
