"""Cloths that can stand in for another: those that are like it and suit the same patterns; a knit never for a woven.

Common practice, no source.
"""

from __future__ import annotations

from collections.abc import Mapping

import numpy as np
import numpy.typing as npt

from nematex.core.cloth.columns import ClothColumns
from nematex.core.judging.verdict import Verdict
from nematex.core.quantity.arrays import Codes, Floats
from nematex.core.tables import Tables


def in_use(cloths: ClothColumns, at: int, distance: Floats, verdicts: Codes | None, tables: Tables) -> Floats:
    """How far each cloth is from being the same in use as the one at `at`, (n,); infinite for what is not like it.

    `distance` is how like it each is; `verdicts`, patterns × cloths: where a pattern takes the one and not the other,
    they are further apart.
    """
    far = tables.judging.likeness.farthest
    found = np.where((distance <= far) & (cloths.knit == cloths.knit[at]), distance, np.inf)
    found = found + tables.judging.stand_in.unlabelled * (cloths.main_fibre < 0)
    if verdicts is not None and len(verdicts):
        near = np.flatnonzero(np.isfinite(found))
        good = verdicts[:, [at]] <= Verdict.WITH_CARE
        found[near] += tables.judging.stand_in.disagreement * np.mean(good != (verdicts[:, near] <= Verdict.WITH_CARE), axis=0)
    return np.where(found <= far, found, np.inf)


def nearest(distance: Floats, allowed: npt.NDArray[np.bool_], count: int) -> list[int]:
    """Places of the nearest allowed cloths, nearest first."""
    reached = np.flatnonzero(allowed & np.isfinite(distance))
    found: list[int] = reached[np.argsort(distance[reached], kind="stable")[:count]].tolist()
    return found


def differs(away: Mapping[str, Floats], at: int) -> list[tuple[str, float]]:
    """The respects in which the cloth at `at` is at least a noticeable step away, the largest first, with the steps."""
    found = [(name, float(off[at])) for name, off in away.items() if abs(off[at]) >= 1]
    return sorted(found, key=lambda each: -abs(each[1]))
