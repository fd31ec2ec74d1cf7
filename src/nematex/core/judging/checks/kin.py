"""The nearest relative: is there a cloth on the list that this one is like in weight, drape and stretch at once?

A list that runs from chiffon to denim spans everything between them; a soft cloth of denim's weight lies inside both
spans and is like neither. Common practice, no source: such a cloth is with care at most.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from math import log, log1p

import numpy as np
import numpy.typing as npt

from nematex.core.cloth.lexicon import ClothType
from nematex.core.judging.checks.finding import Asker, Comparison, Finding, Rule
from nematex.core.judging.verdict import SUITS, WITH_CARE
from nematex.core.quantity.arrays import Floats, Mask
from nematex.core.quantity.elementwise import chosen_from, negated, put_where, somewhere, where
from nematex.core.quantity.estimate import Range
from nematex.core.rules.comparing import ListRules

Edge = npt.NDArray[np.float64]  # m × 1: of each named cloth's range


@dataclass(frozen=True)
class Kin:
    """The m cloths that a list names: what both its spans hold, g/m² and cm, and each one's own padded ranges."""

    weight: Range
    bend: Range
    weight_log: tuple[Edge, Edge]
    bend_cm: tuple[Edge, Edge]
    stretch_log: tuple[Edge, Edge]
    knit: npt.NDArray[np.bool_]


def _edges(ranges: Iterable[tuple[float, float]]) -> tuple[Edge, Edge]:
    both = np.array(list(ranges))
    return both[:, :1], both[:, 1:]


def kin_of(named: Sequence[ClothType], pad: ListRules) -> Kin:
    """What is asked of these relatives, whatever cloth is held against them."""
    more, less = 1 + pad.pad_weight, 1 - pad.pad_weight
    return Kin(
        Range(min(row.weight_gsm.low for row in named), max(row.weight_gsm.high for row in named)),
        Range(min(row.bend_cm.low for row in named), max(row.bend_cm.high for row in named)),
        _edges((log(row.weight_gsm.low * less), log(row.weight_gsm.high * more)) for row in named),
        _edges((row.bend_cm.low - pad.pad_drape_cm, row.bend_cm.high + pad.pad_drape_cm) for row in named),
        _edges((log1p(row.stretch_cross_pct.low / 10), log1p(row.stretch_cross_pct.high / 10)) for row in named),
        np.array([[row.structure == "knit"] for row in named]),
    )


def _gap(best: Floats, edges: tuple[Edge, Edge]) -> Floats:
    """How far each of n cloths lies outside each of m named ranges: m × n."""
    outside: Floats = np.maximum(np.maximum(edges[0] - best, best - edges[1]), 0.0)
    return outside


def distance_to_kin(comparison: Comparison, kin: Kin, mask: Mask) -> Floats:
    """From each of these cloths to the nearest of the named ones, in steps of `handles_like`: 0 is inside its ranges."""
    step, cloths = comparison.rules.handles_like, comparison.cloths
    weight = _gap(np.log(np.maximum(chosen_from(cloths.weight.best, mask), 1.0)), kin.weight_log)
    drape = _gap(chosen_from(cloths.bending_length.best, mask), kin.bend_cm)
    apart = (weight / step.weight_log) ** 2 + (drape / step.drape_cm) ** 2
    # Whether a knit may stand in for a woven is another check's question: only knits are compared by their stretch.
    if kin.knit.any():
        stretch = _gap(np.log1p(chosen_from(cloths.stretch_cross.best, mask) / 10), kin.stretch_log)
        apart += (kin.knit & chosen_from(cloths.knit, mask)) * (stretch / step.stretch_log) ** 2
    nearest: Floats = np.sqrt(apart.min(axis=0))
    return nearest


def _within_spans(comparison: Comparison, kin: Kin) -> Mask:
    """The cloths inside both spans of the list: of the others the spans themselves speak."""
    weight, bend = comparison.cloths.weight.best, comparison.cloths.bending_length.best
    inside = (weight >= kin.weight.low) & (weight <= kin.weight.high) & (bend >= kin.bend.low) & (bend <= kin.bend.high)
    open_ones: Mask = inside & negated(comparison.named) & negated(comparison.welcome)
    return open_ones


def like_none(comparison: Comparison) -> Finding | None:
    """The finding, or None where the list is too short to have an inside that is empty."""
    demand, rule = comparison.demand, comparison.rules.list
    if len(demand.named) < 2 or demand.made.band or not demand.owes_the_list:
        return None
    types = comparison.tables.lexicon.types
    kin = demand.once("kin", lambda: kin_of([types[index] for index in sorted(demand.named)], rule))
    mask = _within_spans(comparison, kin)
    if not somewhere(mask):
        return comparison.flat(Rule.LIKE_NONE, asker=Asker.LIST)
    far = distance_to_kin(comparison, kin, mask) > rule.kin_steps
    return comparison.flat(Rule.LIKE_NONE, put_where(mask, where(far, WITH_CARE, SUITS)), Asker.LIST)
