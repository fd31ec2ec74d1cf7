"""How like two cloths are: first what they are (make, surface, what they are made for, fibre), then what they measure.

One measure for whatever asks: what handles like a cloth, what stands in for it, what copies it. Differences are counted in
steps that a hand or an eye notices; what a step is and counts stands in data/judging.toml. Common practice, no source.
"""

from __future__ import annotations

from collections.abc import Mapping

import numpy as np

from nematex.core.cloth.columns import SET_ASIDE, ClothColumns, columns
from nematex.core.cloth.estimates import Cloth
from nematex.core.cloth.typical import typical_columns
from nematex.core.quantity.arrays import Floats
from nematex.core.rules.reckoning import LikenessRules
from nematex.core.tables import Tables


def steps(cloths: ClothColumns, at: int, colour_off: Floats, rule: LikenessRules) -> dict[str, Floats]:
    """How many noticeable steps each of n cloths is from the one at `at`, by respect; signed: more is positive, (n,).

    `colour_off` is ΔE00, NaN where a colour is not known.
    """

    def off(values: Floats, step: float) -> Floats:
        found: Floats = np.nan_to_num((values - values[at]) / step)
        return found

    return {
        "weight": off(np.log(cloths.weight.best + rule.weight_from_gsm), float(np.log(rule.weight_times))),
        "drape": off(cloths.bending_length.best, rule.bend_cm),
        "stretch": off(cloths.stretch_cross.best, rule.stretch_points),
        "sheer": off(cloths.sheer.best, rule.sheer_levels),
        "width": off(cloths.width.best, rule.width_cm),
        "colour": np.nan_to_num(colour_off / rule.colour_off, nan=1.0, posinf=1.0),
    }


def distances(cloths: ClothColumns, at: int, away: Mapping[str, Floats], tables: Tables) -> Floats:
    """How far each cloth is from the one at `at`, in steps, (n,); infinite for itself and for what is no answer at all.

    `away` are its `steps`.
    """
    rule = tables.judging.likeness
    measured = rule.measured * np.sqrt(sum(rule.counts[name] * off**2 for name, off in away.items()))
    found = measured + tables.apart[cloths.type[at], cloths.type]
    aside = cloths.used_for(*SET_ASIDE)
    if not aside[at]:
        found[aside] = np.inf
    found[at] = np.inf
    return np.asarray(found, dtype=np.float64)


def kinds_like(cloth: Cloth, tables: Tables, most: int) -> list[str]:
    """Names of the kinds that handle like a cloth, nearest first; its own left out, and what is too far to be like it."""
    both = columns([cloth], tables).joined(typical_columns(tables), np.arange(len(tables.lexicon.types) + 1))
    off = np.zeros(len(both))
    found = distances(both, 0, steps(both, 0, off, tables.judging.likeness), tables)
    found[both.type == both.type[0]] = np.inf
    order = np.argsort(found, kind="stable")[:most]
    return [tables.lexicon.types[at - 1].name for at in order.tolist() if found[at] <= tables.judging.likeness.farthest]
