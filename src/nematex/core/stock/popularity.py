"""How a cloth sells and how long it lasts, from its levels one after the other: what went down was sold.

Rises are deliveries and count for nothing here. Lengths in m, times in days. Plain arithmetic.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from itertools import pairwise

Reading = tuple[datetime, float]
DAY_S = 86_400.0
LEAST_DAYS = 1.0  # what is sold in an hour says little of a day


@dataclass(frozen=True, slots=True)
class Popularity:
    """Sold and delivered in so many days; `left_m` is the level in the end."""

    sold_m: float
    delivered_m: float
    days: float
    left_m: float

    @property
    def daily_m(self) -> float:
        return self.sold_m / self.days if self.days > 0 else 0.0

    @property
    def cover_days(self) -> float | None:
        """How long what is left lasts if it goes on selling like this; None where nothing was sold."""
        return self.left_m / self.daily_m if self.daily_m > 0 else None


def popularity(readings: Sequence[Reading], since: datetime, now: datetime) -> Popularity | None:
    """From the levels in the order of time; the last one before `since` is where it starts. None without a level."""
    before = [each for each in readings if each[0] <= since]
    inside = [each for each in readings if since < each[0] <= now]
    levels = [*before[-1:], *inside]
    if not levels:
        return None
    begun = since if before else levels[0][0]
    steps = [after[1] - first[1] for first, after in pairwise(levels)]
    days = max((now - begun).total_seconds() / DAY_S, LEAST_DAYS)
    return Popularity(-sum(each for each in steps if each < 0), sum(each for each in steps if each > 0), days, levels[-1][1])
