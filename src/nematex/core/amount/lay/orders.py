"""In which order pieces are put: large ones first, then what has done best with some of them changed about."""

from __future__ import annotations

from collections.abc import Callable, Sequence

import numpy as np

from nematex.core.amount.lay.items import Item

AFRESH = 0.2  # so often a sorted order is taken up again instead of the best
MOST_CHANGES = 4

MEASURES: tuple[Callable[[Item], tuple[float, ...]], ...] = (
    lambda item: (-item.poses[0].length_cm, -item.poses[0].across_cm),
    lambda item: (-item.area_cm2, -item.poses[0].length_cm),
    lambda item: (-item.poses[0].across_cm, -item.poses[0].length_cm),
    lambda item: (-item.poses[0].length_cm * item.poses[0].across_cm,),
)


class Climb:
    """A hill climb over orders: each sorted one first, on either grid, then changes of the best. One seed, one course."""

    def __init__(self, items: Sequence[Item], seed: int) -> None:
        self.sorted_ones = [sorted(items, key=measure) for measure in MEASURES]
        self.rng = np.random.default_rng(seed)
        self.asked = {False: 0, True: 0}
        self.best, self.length_cm = self.sorted_ones[0], np.inf

    def order(self, tight: bool) -> list[Item]:
        """The next order for this grid."""
        at = self.asked[tight]
        self.asked[tight] += 1
        if at < len(self.sorted_ones):
            return self.sorted_ones[at]
        afresh = self.rng.random() < AFRESH
        return self._changed(self.sorted_ones[int(self.rng.integers(len(self.sorted_ones)))] if afresh else self.best)

    def _changed(self, order: list[Item]) -> list[Item]:
        found = list(order)
        for _ in range(int(self.rng.integers(1, MOST_CHANGES + 1))):
            one, other = (int(place) for place in self.rng.integers(len(found), size=2))
            if self.rng.random() < 0.5:
                found[one], found[other] = found[other], found[one]
            else:
                found.insert(other, found.pop(one))
        return found

    def heard(self, order: list[Item], length_cm: float) -> None:
        """How long an order came out; of equals the newer, so that the climb does not stand still."""
        if length_cm <= self.length_cm:
            self.best, self.length_cm = order, length_cm
