"""Many estimates of one quantity as parallel arrays, and the kinds of array that the rules work on."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np
import numpy.typing as npt
from propcache.api import cached_property

from nematex.core.quantity.elementwise import negated, where
from nematex.core.quantity.estimate import STATED

Floats = npt.NDArray[np.float64]
Codes = npt.NDArray[np.int8]
Mask = npt.NDArray[np.bool_]


@dataclass(frozen=True)
class Column:
    """Estimates of one quantity for n cloths, as parallel arrays."""

    low: Floats
    high: Floats
    best: Floats
    known: Codes

    def take(self, index: npt.NDArray[np.intp]) -> Column:
        return Column(self.low[index], self.high[index], self.best[index], self.known[index])

    def joined(self, other: Column, index: npt.NDArray[np.intp]) -> Column:
        """Of both columns, one after the other, the rows of this index."""
        parts = ((self.low, other.low), (self.high, other.high), (self.best, other.best))
        low, high, best = (np.concatenate(pair)[index] for pair in parts)
        return Column(low, high, best, np.concatenate((self.known, other.known))[index])

    def single(self, place: int) -> Column:
        """One of them, as plain numbers in the place of arrays: see `elementwise`."""
        plain: tuple[Any, ...] = tuple(part[place].item() for part in (self.low, self.high, self.best, self.known))
        return Column(*plain)

    @cached_property
    def point(self) -> Mask:
        """Where the estimate is a single value."""
        found: Mask = negated(self.high - self.low > 1e-9)
        return found

    @cached_property
    def per_width(self) -> Floats:
        """1 over the width of the range; 0 for a point."""
        found: Floats = where(self.point, 0.0, 1.0 / where(self.point, 1.0, self.high - self.low))
        return found

    @cached_property
    def firm(self) -> Mask:
        """Where it is measured or stated."""
        found: Mask = self.known >= STATED
        return found
