"""Windows, verdicts and the one comparison that all five checks use.

Common practice, no source; the shares and tolerances come from data/judging.toml.
"""

from __future__ import annotations

from dataclasses import dataclass
from enum import IntEnum

import numpy as np

from nematex.core.quantity.arrays import Codes, Column, Floats
from nematex.core.quantity.elementwise import as_codes, everywhere, maximum, minimum, where
from nematex.core.quantity.kinds import Quantity
from nematex.core.rules.comparing import Shares


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


SUITS, WITH_CARE, UNPROVEN, AGAINST = Verdict  # by themselves: looking one up in its class is slow


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
    quantity: Quantity = Quantity.SHARE

    def target(self, share: float) -> float | None:
        """The point aimed at, at a share of the window; None where an edge is open."""
        if not (np.isfinite(self.low) and np.isfinite(self.high)):
            return None
        return self.low + share * (self.high - self.low)


@dataclass(frozen=True, slots=True)
class Compared:
    """Verdict codes and signed margins (positive = room inside the window) for n cloths."""

    verdict: Codes
    margin: Floats


def share_inside(column: Column, low: float, high: float) -> Floats:
    """Share of each range that lies within [low, high]; a single point counts as 0 or 1."""
    overlap = (minimum(column.high, high) - maximum(column.low, low)) * column.per_width
    as_point = where((column.best >= low) & (column.best <= high), 1.0, 0.0)
    share: Floats = where(column.point, as_point, minimum(maximum(overlap, 0.0), 1.0))
    return share


def compare(column: Column, window: Window, shares: Shares) -> Compared:
    """Hold n estimates against one window: numbers as they are, ranges by the share of them that lies inside."""
    slack = 1e-9  # so that a value on the edge is inside in spite of floating point
    low, high = window.low - slack, window.high + slack
    inside = share_inside(column, low, high)
    suits = inside >= where(column.firm, 1.0, shares.suits - slack)
    margin = minimum(column.best - window.low, window.high - column.best)
    if everywhere(suits):
        return Compared(as_codes(where(suits, SUITS, UNPROVEN)), margin)
    tolerated = share_inside(column, low - window.tolerance_low, high + window.tolerance_high)
    # For a number "inside" is 0 or 1; where it is not, being tolerated at all is with care.
    against = tolerated <= where(column.firm, 0.0, shares.against + 1e-6)
    with_care = tolerated >= where(column.firm, slack, shares.care - slack)
    verdict = where(suits, SUITS, where(with_care, WITH_CARE, where(against, AGAINST, UNPROVEN)))
    return Compared(as_codes(verdict), margin)
