"""Readings of a cloth's properties: which one is in force, what repeats say, and which readings cannot both be right.

Measured counts for more than stated, stated than judged, judged than typical; of equals the latest. Common practice.
"""

from __future__ import annotations

import statistics
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from itertools import pairwise
from typing import Protocol, TypeVar

from nematex.core.quantity.estimate import Known

OUTLIER = 3.5  # in scaled median deviations (Iglewicz and Hoaglin's modified z, from memory)
DIXON_Q = 0.886  # of three, at 80 % (Dean and Dixon 1951, from memory)
OF_THREE, OF_TWO, DRIFT = 0.08, 0.25, 0.06  # shares of the middle that ordinary hands do not reach (common practice, no source)
LEAST_SPREAD = 0.015  # of the middle, so that three equal readings do not make a fourth an outlier


class Taken(Protocol):
    """What is asked of a reading to rank it."""

    @property
    def known(self) -> str: ...
    @property
    def taken_at(self) -> datetime: ...
    @property
    def id(self) -> int: ...


R = TypeVar("R", bound=Taken)


@dataclass(frozen=True, slots=True)
class Repeats:
    """Several readings of the same thing: their mean, standard deviation and coefficient of variation in %."""

    mean: float
    deviation: float
    variation_pct: float
    count: int


def in_force(readings: Sequence[R]) -> R | None:
    """The reading that counts."""
    return max(readings, key=lambda each: (Known.from_word(each.known), each.taken_at, each.id), default=None)


def repeats(values: Sequence[float]) -> Repeats:
    """Mean and spread (sample standard deviation, n − 1) of repeated readings."""
    mean = statistics.fmean(values)
    deviation = statistics.stdev(values) if len(values) > 1 else 0.0
    return Repeats(mean, deviation, 100 * deviation / abs(mean) if mean else 0.0, len(values))


def outliers(values: Sequence[float]) -> list[int]:
    """Which of at least three repeats lie far from the others; of three by Dixon's Q, of more by the modified z."""
    if len(values) < 3:
        return []
    middle = statistics.median(values)
    if len(values) == 3:
        low, high = min(values), max(values)
        gap = max(middle - low, high - middle)
        if high - low <= OF_THREE * abs(middle) or gap < DIXON_Q * (high - low):
            return []
        return [values.index(low if middle - low > high - middle else high)]
    scale = max(1.4826 * statistics.median([abs(each - middle) for each in values]), LEAST_SPREAD * abs(middle))
    return [at for at, each in enumerate(values) if abs(each - middle) > OUTLIER * scale]


def disagree(values: Sequence[float]) -> bool:
    """Whether two readings differ by so much that a third must say which is right."""
    return len(values) == 2 and abs(values[0] - values[1]) > OF_TWO * statistics.fmean(values)


def drifts(values: Sequence[float]) -> bool:
    """Whether repeats run steadily one way, as a scale does that was not zeroed or a strip that sags."""
    if len(values) < 3:
        return False
    steps = [later - sooner for sooner, later in pairwise(values)]
    one_way = all(step >= 0 for step in steps) or all(step <= 0 for step in steps)
    return one_way and abs(values[-1] - values[0]) > DRIFT * abs(statistics.fmean(values))


def contradicts(one: float, other: float, agree_pct: float) -> bool:
    """Whether two numbers of one property differ by more than the property allows."""
    return abs(one - other) > agree_pct / 100 * max(abs(one), abs(other))
