"""How far apart two kinds of cloth are by what they are: make, surface, what they are made for, fibre. Counted in steps.

What each counts stands in data/judging.toml. Common practice, no source.
"""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from nematex.core.cloth.lexicon import ClothType
from nematex.core.quantity.arrays import Floats
from nematex.core.rules.reckoning import KindSteps


def kinds_apart(types: Sequence[ClothType], rule: KindSteps) -> Floats:
    """Kinds × kinds, in steps: 0 for a kind and itself, infinite without any use in common, and for a knit and a woven
    unless they are of one family, as a waffle may be either.

    Symmetric. A last row and column is of no kind that is known: 0 from whatever it is asked for, `unknown` as an answer.
    """
    found = np.full((len(types) + 1, len(types) + 1), rule.unknown)
    found[-1] = 0.0
    for at, one in enumerate(types):
        for place in range(at, len(types)):
            found[at, place] = found[place, at] = _apart(one, types[place], rule)
    return found


def _apart(one: ClothType, other: ClothType, rule: KindSteps) -> float:
    if one.name == other.name:
        return 0.0
    shared = one.end_uses & other.end_uses
    knit_beside_woven = (one.structure == "knit") != (other.structure == "knit") and one.family != other.family
    if knit_beside_woven or not shared:
        return float("inf")
    use = 1.0 - len(shared) / len(one.end_uses | other.end_uses)
    make = rule.family * (one.family != other.family) + rule.structure * (one.structure != other.structure)
    fibre = 0.0 if _sorts(one, rule) & _sorts(other, rule) else rule.fibre
    return rule.another + make + _surface(one, other, rule) + rule.use * use + fibre


def _surface(one: ClothType, other: ClothType, rule: KindSteps) -> float:
    both = {one.surface, other.surface}
    if len(both) == 1:
        return 0.0
    return rule.surface_beside if any(both == set(pair) for pair in rule.surfaces_beside) else rule.surface


def _sorts(kind: ClothType, rule: KindSteps) -> set[int]:
    """The sorts of fibre that a kind is made of."""
    return {at for at, names in enumerate(rule.fibres_alike) if kind.all_fibres & set(names)}
