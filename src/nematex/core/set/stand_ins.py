"""Cloths that can stand in for another: those that behave alike in the hand and suit the same patterns.

The distance counts each respect in steps that a hand notices; the steps stand in data/judging.toml. A knit never stands in
for a woven. Common practice, no source.
"""

from __future__ import annotations

from collections.abc import Mapping

import numpy as np
import numpy.typing as npt

from nematex.core.cloth.columns import SET_ASIDE, ClothColumns
from nematex.core.judging.verdict import Verdict
from nematex.core.quantity.arrays import Codes, Floats
from nematex.core.rules.reckoning import StandInRules

RESPECTS = ("weight", "drape", "stretch", "sheer", "width", "colour")


def steps(cloths: ClothColumns, at: int, colour_off: Floats, rule: StandInRules) -> dict[str, Floats]:
    """How many noticeable steps each of n cloths is from the one at `at`, by respect; signed: more is positive, (n,).

    `colour_off` is ΔE00, NaN where a colour is not known.
    """

    def off(values: Floats, step: float) -> Floats:
        found: Floats = np.nan_to_num((values - values[at]) / step)
        return found

    return {
        "weight": off(np.log(np.maximum(cloths.weight.best, 1.0)), float(np.log(rule.weight_times))),
        "drape": off(cloths.bending_length.best, rule.bend_cm),
        "stretch": off(cloths.stretch_cross.best, rule.stretch_points),
        "sheer": off(cloths.sheer.best, rule.sheer_levels),
        "width": off(cloths.width.best, rule.width_cm),
        "colour": np.nan_to_num(colour_off / rule.colour_off, nan=1.0, posinf=1.0),
    }


def distances(
    cloths: ClothColumns, at: int, away: Mapping[str, Floats], rule: StandInRules, verdicts: Codes | None = None
) -> Floats:
    """How far each cloth is from being the same in use, (n,); infinite for itself and for what cannot stand in.

    `away` are its `steps`; `verdicts`, patterns × cloths: where a pattern takes the one and not the other, they are
    further apart. Whoever is too far to stand in without that is not asked for it.
    """
    found = np.sqrt(sum(rule.counts[name] * off**2 for name, off in away.items()))
    other = (cloths.structure != cloths.structure[at]) | (cloths.used_for(*SET_ASIDE) != cloths.used_for(*SET_ASIDE)[at])
    found[other] = np.inf
    found[at] = np.inf
    if verdicts is not None and len(verdicts):
        near = np.flatnonzero(found <= rule.farthest)
        good = verdicts[:, [at]] <= Verdict.WITH_CARE
        found[near] += rule.disagreement * np.mean(good != (verdicts[:, near] <= Verdict.WITH_CARE), axis=0)
    return np.asarray(found, dtype=np.float64)


def nearest(distance: Floats, allowed: npt.NDArray[np.bool_], count: int) -> list[int]:
    """Places of the nearest allowed cloths, nearest first."""
    reached = np.flatnonzero(allowed & np.isfinite(distance))
    found: list[int] = reached[np.argsort(distance[reached], kind="stable")[:count]].tolist()
    return found


def differs(away: Mapping[str, Floats], at: int) -> list[tuple[str, float]]:
    """The respects in which the cloth at `at` is at least a noticeable step away, the largest first, with the steps."""
    found = [(name, float(off[at])) for name, off in away.items() if abs(off[at]) >= 1]
    return sorted(found, key=lambda each: -abs(each[1]))
