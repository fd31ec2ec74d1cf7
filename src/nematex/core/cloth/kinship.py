"""What a cloth is, beside its numbers: which kinds are kin, by family, surface, what they are made for, weight and drape.

Common practice, no source; how near is near stands in data/judging.toml. Kinship is symmetric, and each kind is its own kin.
"""

from __future__ import annotations

from collections.abc import Sequence
from enum import Enum
from math import log

import numpy as np
import numpy.typing as npt

from nematex.core.cloth.fibres import FibreNames
from nematex.core.cloth.lexicon import ClothType
from nematex.core.rules.comparing import Kinship, Near

PROTEIN = frozenset(("wool", "silk", "mohair", "alpaca", "cashmere", "camel"))


class Bond(Enum):
    """How two kinds are kin; the value is their place in the table of kinds × kinds."""

    NONE = 0
    KIN = 1
    CLOSE = 2  # of one family, surface and sort of fibre: where the one is used, so is the other


def _sorts(kind: ClothType, fibres: FibreNames) -> frozenset[str]:
    """Of which sorts of fibre a kind is made: plant, protein, regenerated, synthetic."""
    sorts = set()
    for name in kind.all_fibres - {"elastane"}:
        row = fibres.by_name.get(name)
        sorts.add("protein" if name in PROTEIN else row.kind if row else name)
    return frozenset(sorts)


def bond(one: ClothType, other: ClothType, fibres: FibreNames, rule: Kinship) -> Bond:
    """How two kinds of cloth are kin. Numbers are compared at the middle of each kind's range."""
    if one.name == other.name:
        return Bond.CLOSE
    if (one.structure == "knit") != (other.structure == "knit") or not one.end_uses & other.end_uses:
        return Bond.NONE
    family, surface = one.family == other.family, one.surface == other.surface
    beside = frozenset((one.surface, other.surface)) in rule.beside
    limit = rule.family if family and (surface or beside) else rule.surface if surface else rule.neighbour if beside else None
    if limit is None or not _near(one, other, limit):
        return Bond.NONE
    return Bond.CLOSE if family and surface and _sorts(one, fibres) & _sorts(other, fibres) else Bond.KIN


def _near(one: ClothType, other: ClothType, limit: Near) -> bool:
    weight = abs(log(one.weight_gsm.middle / other.weight_gsm.middle))
    return weight <= limit.weight_log and abs(one.bend_cm.middle - other.bend_cm.middle) <= limit.bend_cm


def bonds(types: Sequence[ClothType], fibres: FibreNames, rule: Kinship) -> npt.NDArray[np.int8]:
    """Kinds × kinds: the bond of each two."""
    found = np.zeros((len(types), len(types)), dtype=np.int8)
    for at, one in enumerate(types):
        for place in range(at, len(types)):
            found[at, place] = found[place, at] = bond(one, types[place], fibres, rule).value
    return found
