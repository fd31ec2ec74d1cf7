"""Windows, verdicts and the one comparison that all five checks use.

Common practice, no source; the shares and tolerances come from data/judging.toml.
"""

from __future__ import annotations

from dataclasses import dataclass, field
from enum import IntEnum
from typing import Any

import numpy as np
import numpy.typing as npt

from nematex.core.estimate import Known

Floats = npt.NDArray[np.float64]
Codes = npt.NDArray[np.int8]
Mask = npt.NDArray[np.bool_]


class Verdict(IntEnum):
    """Ordered by how bad it is: the worst check decides the whole."""

    SUITS = 0
    WITH_CARE = 1
    UNPROVEN = 2
    AGAINST = 3

    @property
    def word(self) -> str:
        return self.name.lower().replace("_", " ")

    @classmethod
    def from_word(cls, word: str) -> Verdict:
        return cls[word.upper().replace(" ", "_")]


@dataclass(frozen=True, slots=True)
class Origin:
    """Where one edge comes from: the words or the detail, and the number of the table that was read for them.

    `table` is empty for a number that the envelope itself gives; `value` is the table's, before any padding.
    """

    words: str
    table: str = ""
    row: str = ""
    field: str = ""
    value: float | None = None


@dataclass(frozen=True, slots=True)
class Window:
    """What a pattern asks of one quantity: edges, what may be missed, and the words each edge came from."""

    low: float = -np.inf
    high: float = np.inf
    tolerance_low: float = 0.0
    tolerance_high: float = 0.0
    sources: tuple[str, ...] = ()
    name: str = ""
    low_from: Origin | None = None
    high_from: Origin | None = None

    def target(self, share: float) -> float | None:
        """The point aimed at, at a share of the window; None where an edge is open."""
        if not (np.isfinite(self.low) and np.isfinite(self.high)):
            return None
        return self.low + share * (self.high - self.low)


@dataclass(frozen=True, slots=True)
class Column:
    """Estimates of one quantity for n cloths, as parallel arrays."""

    low: Floats
    high: Floats
    best: Floats
    known: Codes

    def take(self, index: npt.NDArray[np.intp]) -> Column:
        return Column(self.low[index], self.high[index], self.best[index], self.known[index])


@dataclass(frozen=True, slots=True)
class Shares:
    """Which share of a typical or judged range, inside the window, earns which verdict."""

    suits: float
    care: float
    against: float


@dataclass(frozen=True, slots=True)
class Compared:
    """Verdict codes and signed margins (positive = room inside the window) for n cloths."""

    verdict: Codes
    margin: Floats
    extras: dict[str, Any] = field(default_factory=dict)


def share_inside(column: Column, low: float, high: float) -> Floats:
    """Share of each range that lies within [low, high]; a single point counts as 0 or 1."""
    width = column.high - column.low
    overlap = np.minimum(column.high, high) - np.maximum(column.low, low)
    point = (column.best >= low) & (column.best <= high)
    with np.errstate(divide="ignore", invalid="ignore"):
        ranged = np.clip(overlap / width, 0.0, 1.0)
    return np.where(width > 1e-9, ranged, point.astype(np.float64))


def compare(column: Column, window: Window, shares: Shares) -> Compared:
    """Hold n estimates against one window."""
    slack = 1e-9  # so that a value on the edge is inside in spite of floating point
    low, high = window.low - slack, window.high + slack
    inside = share_inside(column, low, high)
    tolerated = share_inside(column, low - window.tolerance_low, high + window.tolerance_high)
    firm = column.known >= Known.STATED
    by_number = np.where(inside >= 1, Verdict.SUITS, np.where(tolerated > 0, Verdict.WITH_CARE, Verdict.AGAINST))
    by_share = np.select(
        [inside >= shares.suits - slack, tolerated >= shares.care - slack, tolerated <= shares.against + slack],
        [Verdict.SUITS, Verdict.WITH_CARE, Verdict.AGAINST],
        Verdict.UNPROVEN,
    )
    verdict = np.where(firm, by_number, by_share).astype(np.int8)
    margin = np.minimum(column.best - window.low, window.high - column.best)
    return Compared(verdict, margin)
