"""Windows, verdicts and the one comparison that all five checks use.

Common practice, no source; the shares and tolerances come from data/judging.toml.
"""

from __future__ import annotations

from dataclasses import dataclass, field
from enum import IntEnum
from functools import cached_property
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


@dataclass(frozen=True)
class Column:
    """Estimates of one quantity for n cloths, as parallel arrays."""

    low: Floats
    high: Floats
    best: Floats
    known: Codes

    def take(self, index: npt.NDArray[np.intp]) -> Column:
        return Column(self.low[index], self.high[index], self.best[index], self.known[index])

    @cached_property
    def point(self) -> Mask:
        """Where the estimate is a single value."""
        found: Mask = ~(self.high - self.low > 1e-9)
        return found

    @cached_property
    def per_width(self) -> Floats:
        """1 over the width of the range; 0 for a point."""
        with np.errstate(divide="ignore", invalid="ignore"):
            found: Floats = np.where(self.point, 0.0, 1.0 / (self.high - self.low))
        return found

    @cached_property
    def firm(self) -> Mask:
        """Where it is measured or stated."""
        found: Mask = self.known >= Known.STATED
        return found


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
    overlap = np.minimum(column.high, high)
    overlap -= np.maximum(column.low, low)
    overlap *= column.per_width
    np.clip(overlap, 0.0, 1.0, out=overlap)
    np.copyto(overlap, (column.best >= low) & (column.best <= high), where=column.point)
    return overlap


def compare(column: Column, window: Window, shares: Shares) -> Compared:
    """Hold n estimates against one window: numbers as they are, ranges by the share of them that lies inside."""
    slack = 1e-9  # so that a value on the edge is inside in spite of floating point
    low, high = window.low - slack, window.high + slack
    inside = share_inside(column, low, high)
    tolerated = share_inside(column, low - window.tolerance_low, high + window.tolerance_high)
    # For a number "inside" is 0 or 1; where it is not, being tolerated at all is with care.
    verdict = np.full(len(inside), Verdict.UNPROVEN, dtype=np.int8)
    least = np.where(column.firm, 0.0, shares.against + slack)
    verdict[tolerated <= least] = Verdict.AGAINST
    verdict[tolerated >= np.where(column.firm, slack, shares.care - slack)] = Verdict.WITH_CARE
    verdict[inside >= np.where(column.firm, 1.0, shares.suits - slack)] = Verdict.SUITS
    margin = np.minimum(column.best - window.low, window.high - column.best)
    return Compared(verdict, margin)
