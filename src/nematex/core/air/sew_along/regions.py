"""Where parcels go: country and its part for public holidays, time zone, usual working days of delivery."""

from __future__ import annotations

from dataclasses import dataclass
from zoneinfo import ZoneInfo


@dataclass(frozen=True)
class Region:
    """A region; `low_days` to `high_days` are working days from the shop."""

    name: str
    country: str
    subdivision: str
    zone: ZoneInfo
    low_days: int
    high_days: int
