"""The nearest relative: is there a cloth on the list that this one is like in weight, drape and stretch at once?

A list that runs from chiffon to denim spans everything between them; a soft cloth of denim's weight lies inside both
spans and is like neither. Common practice, no source: such a cloth is with care at most.
"""

from __future__ import annotations

from math import log, log1p

import numpy as np

from nematex.core.cloth.lexicon import ClothType
from nematex.core.judging.checks.finding import Asker, Comparison, Finding, Rule
from nematex.core.judging.verdict import SUITS, WITH_CARE
from nematex.core.quantity.arrays import Floats, Mask
from nematex.core.quantity.elementwise import chosen_from, negated, put_where, somewhere, where


def _gap(best: Floats, low: list[float], high: list[float]) -> Floats:
    """How far each of n cloths lies outside each of m named ranges: m × n."""
    below, above = np.array(low)[:, None] - best, best - np.array(high)[:, None]
    outside: Floats = np.maximum(np.maximum(below, above), 0.0)
    return outside


def distance_to_kin(comparison: Comparison, named: list[ClothType], mask: Mask) -> Floats:
    """From each of these cloths to the nearest of the named ones, in steps of `handles_like`: 0 is inside its ranges."""
    step, pad = comparison.rules.handles_like, comparison.rules.list
    cloths = comparison.cloths
    weight = _gap(
        np.log(np.maximum(chosen_from(cloths.weight.best, mask), 1.0)),
        [log(row.weight_gsm.low * (1 - pad.pad_weight)) for row in named],
        [log(row.weight_gsm.high * (1 + pad.pad_weight)) for row in named],
    )
    drape = _gap(
        chosen_from(cloths.bending_length.best, mask),
        [row.bend_cm.low - pad.pad_drape_cm for row in named],
        [row.bend_cm.high + pad.pad_drape_cm for row in named],
    )
    apart = (weight / step.weight_log) ** 2 + (drape / step.drape_cm) ** 2
    # Whether a knit may stand in for a woven is another check's question: only knits are compared by their stretch.
    knits = [row.structure == "knit" for row in named]
    if any(knits):
        stretch = _gap(
            np.log1p(chosen_from(cloths.stretch_cross.best, mask) / 10),
            [log1p(row.stretch_cross_pct.low / 10) for row in named],
            [log1p(row.stretch_cross_pct.high / 10) for row in named],
        )
        both = np.array(knits)[:, None] & chosen_from(cloths.knit, mask)
        apart += both * (stretch / step.stretch_log) ** 2
    nearest: Floats = np.sqrt(apart.min(axis=0))
    return nearest


def _within_spans(comparison: Comparison, named: list[ClothType]) -> Mask:
    """The cloths inside both spans of the list: of the others the spans themselves speak."""
    weight, bend = comparison.cloths.weight.best, comparison.cloths.bending_length.best
    inside = (weight >= min(row.weight_gsm.low for row in named)) & (weight <= max(row.weight_gsm.high for row in named))
    inside = inside & (bend >= min(row.bend_cm.low for row in named)) & (bend <= max(row.bend_cm.high for row in named))
    open_ones: Mask = inside & negated(comparison.named) & negated(comparison.welcome)
    return open_ones


def like_none(comparison: Comparison) -> Finding | None:
    """The finding, or None where the list is too short to have an inside that is empty."""
    demand, rule = comparison.demand, comparison.rules.list
    if len(demand.named) < 2 or demand.made.band or not demand.owes_the_list:
        return None
    named = [comparison.tables.lexicon.types[index] for index in sorted(demand.named)]
    mask = _within_spans(comparison, named)
    if not somewhere(mask):
        return comparison.flat(Rule.LIKE_NONE, asker=Asker.LIST)
    far = distance_to_kin(comparison, named, mask) > rule.kin_steps
    return comparison.flat(Rule.LIKE_NONE, put_where(mask, where(far, WITH_CARE, SUITS)), Asker.LIST)
