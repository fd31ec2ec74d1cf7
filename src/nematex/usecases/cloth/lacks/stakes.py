"""How many pairings hang on what is not known of each cloth: the whole shelf against every pattern."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from nematex.core.judging.judge import NAMES
from nematex.core.judging.matrix import Matrix
from nematex.core.judging.verdict import Verdict
from nematex.tables import properties
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State
from nematex.usecases.judging.whole_matrix import of_cloth, ready, whole

Counts = npt.NDArray[np.int32]


@dataclass(frozen=True)
class Stakes:
    """Per cloth: pairings that are not against, and per check those that it leaves unproven."""

    possible: Counts
    unproven: dict[str, Counts]

    def on(self, name: str, place: int, known: bool) -> int:
        """Pairings that hang on a property: unproven by it, or resting on a value that is doubted."""
        check = properties()[name].check if name in properties() else ""
        if not check:
            return 0
        return int(self.possible[place] if known else self.unproven[check][place])


def _stakes(judged: Matrix) -> Stakes:
    possible = (judged.verdict != Verdict.AGAINST).sum(axis=0, dtype=np.int32)
    return Stakes(possible, {check: judged.unproven(check) for check in NAMES})


def stakes(shop: Shop, state: State) -> Stakes | None:
    """Of the whole shelf, counted once for each state; None while a large shop's matrix is still being worked out."""
    if not ready(shop, state):
        return None
    judged = whole(shop, state)
    return shop.memory.of("stakes", (judged,), lambda: _stakes(judged))


def stakes_of(shop: Shop, state: State, place: int) -> Stakes:
    """Of one cloth alone."""
    return _stakes(of_cloth(shop, state, place))
