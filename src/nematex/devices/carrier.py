"""Who carries the parcels: a protocol, and a made-up carrier: slower in the weeks before Christmas, sometimes silent."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date, time
from typing import Protocol


class CarrierDown(RuntimeError):
    """The carrier does not answer; the message says what happened."""


@dataclass(frozen=True)
class Service:
    """What a carrier says of a region: working days from–to, days of delay now, until when it collects, a word of why."""

    low_days: int
    high_days: int
    late_days: int
    cut_off: time
    note: str = ""


class Carrier(Protocol):
    def service(self, region: str, on: date) -> Service:
        """How it delivers to a region in the weeks around a day; raises CarrierDown."""
        ...


class SimulatedCarrier:
    """A made-up carrier: usual working days by region, `silent` regions it gives no answer for."""

    def __init__(self, usual: Mapping[str, tuple[int, int]], home: str, silent: frozenset[str] = frozenset()) -> None:
        self.usual, self.home, self.silent = usual, home, silent

    def service(self, region: str, on: date) -> Service:
        if region in self.silent or region not in self.usual:
            raise CarrierDown(f"no answer for {region}")
        low, high = self.usual[region]
        rush = (on.month, on.day) >= (11, 25) or (on.month, on.day) <= (1, 3)
        late = (1 if region == self.home else 3) if rush else 0
        return Service(low, high, late, time(12), "slower from late November to the New Year" if late else "")
