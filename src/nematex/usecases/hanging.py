"""How many pairings hang on what is not known of each cloth: the whole shelf against every pattern."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from nematex.core.judge import NAMES
from nematex.core.verdict import Verdict
from nematex.usecases.shelf import Shop
from nematex.usecases.whole_matrix import ready, whole

Counts = npt.NDArray[np.int32]
# Which check a property decides.
CHECK_OF = {
    "fibres": "fibre",
    "structure": "stretch",
    "weight_gsm": "weight",
    "thickness_mm": "weight",
    "bending_length_cm": "drape",
    "drape_coefficient_pct": "drape",
    "hand": "drape",
    "stretch_cross_pct": "stretch",
    "stretch_length_pct": "stretch",
    "recovery_pct": "stretch",
    "width_cm": "width",
    "width_full_cm": "width",
}


@dataclass(frozen=True)
class Hanging:
    """Per cloth of the shelf: pairings that are not against, and per check those that it leaves unproven."""

    possible: Counts
    unproven: dict[str, Counts]
    patterns: int

    def on(self, name: str, at: int, known: bool) -> int:
        """Pairings that hang on a property: unproven by it, or resting on a value that is doubted."""
        check = CHECK_OF.get(name)
        if check is None:
            return 0
        return int(self.possible[at] if known else self.unproven[check][at])


def hanging(shop: Shop) -> Hanging:
    """Counted once for each state of shelf and drawer."""
    shelf, drawer = shop.shelf(), shop.drawer()
    state = ("hanging", shelf.version, drawer.version)
    found = shop.remembered(state)
    if isinstance(found, Hanging):
        return found
    if not ready(shop):  # a large shop's matrix is still being worked out: what hangs on what is said then
        none = np.zeros(len(shelf.records), dtype=np.int32)
        return Hanging(none, dict.fromkeys(NAMES, none), 0)
    judged = whole(shop)
    possible = (judged.verdict != Verdict.AGAINST).sum(axis=0, dtype=np.int32)
    made = Hanging(possible, judged.unproven, len(drawer.records))
    shop.remember(state, made)
    return made
