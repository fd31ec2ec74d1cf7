"""What a cloth is, beside its numbers: which kinds are kin, by family, surface, what they are made for, weight and drape.

Common practice, no source; how near is near stands in data/judging.toml. Kinship is symmetric, and each kind is its own kin.
"""

from __future__ import annotations

from collections.abc import Sequence
from math import log

import numpy as np
import numpy.typing as npt

from nematex.core.cloth.lexicon import ClothType
from nematex.core.quantity.arrays import Floats
from nematex.core.rules.comparing import Kinship, Near


def are_kin(one: ClothType, other: ClothType, rule: Kinship) -> bool:
    """Whether two kinds of cloth are kin. Numbers are compared at the middle of each kind's range."""
    if one.name == other.name:
        return True
    if (one.structure == "knit") != (other.structure == "knit") or not one.end_uses & other.end_uses:
        return False
    if one.family == other.family and _alike(one, other, rule.of_one_family) and _near(one, other, rule.family):
        return True
    limit = rule.surface if one.surface == other.surface else rule.neighbour
    return _alike(one, other, rule.surfaces_beside) and _near(one, other, limit)


def _alike(one: ClothType, other: ClothType, beside: Sequence[Sequence[str]]) -> bool:
    """Whether their surfaces are the same or stand beside each other."""
    return one.surface == other.surface or any({one.surface, other.surface} == set(pair) for pair in beside)


def _near(one: ClothType, other: ClothType, limit: Near) -> bool:
    weight = abs(log(one.weight_gsm.middle / other.weight_gsm.middle))
    thick = abs(log(one.thickness_mm.middle / other.thickness_mm.middle))
    bend_cm = abs(one.bend_cm.middle - other.bend_cm.middle)
    return weight <= limit.weight_log and thick <= limit.thick_log and bend_cm <= limit.bend_cm


def kin_of_kinds(types: Sequence[ClothType], apart: Floats, rule: Kinship) -> npt.NDArray[np.bool_]:
    """Kinds × kinds: which are kin; `apart` is how far apart they are by what they are, in steps."""
    found = np.zeros((len(types), len(types)), dtype=np.bool_)
    for at, one in enumerate(types):
        for place in range(at, len(types)):
            found[at, place] = found[place, at] = are_kin(one, types[place], rule)
    return found & (apart <= rule.apart)
