"""An estimate: what is believed about one property of a cloth, and how it is known."""

from __future__ import annotations

from dataclasses import dataclass
from enum import IntEnum


class Known(IntEnum):
    """How a value is known; a higher one counts for more. A simulated one is an instrument's that is none."""

    SIMULATED = -1
    TYPICAL = 0
    JUDGED = 1
    STATED = 2
    MEASURED = 3

    @property
    def word(self) -> str:
        return self.name.lower()

    @classmethod
    def from_word(cls, word: str) -> Known:
        return cls[word.upper()]


SIMULATED, TYPICAL, JUDGED, STATED, MEASURED = Known  # looking one up in its class takes as long as comparing ten


@dataclass(frozen=True, slots=True)
class Range:
    """A closed range of one quantity."""

    low: float
    high: float

    @property
    def middle(self) -> float:
        return (self.low + self.high) / 2


@dataclass(frozen=True, slots=True)
class Estimate:
    """Low, high and best value of one quantity, in the unit of its name."""

    low: float
    high: float
    best: float
    known: Known

    @classmethod
    def typical(cls, low: float, high: float) -> Estimate:
        return cls(low, high, (low + high) / 2, Known.TYPICAL)

    @classmethod
    def around(cls, value: float, known: Known, half_width: float) -> Estimate:
        """A single value: exact when measured or stated, otherwise spread by its half-width."""
        spread = 0.0 if known >= Known.STATED else half_width
        return cls(max(0.0, value - spread), value + spread, value, known)
