"""The outfits that a capsule gives: a top with a bottom, or a whole garment, each alone or with something over it.

Pieces go together where they share a colour or one of them is neutral, where at most one of them is loud, and where what
lies above is not too heavy for what lies beneath. Limits stand in data/judging.toml (common practice, no source).
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import product

import numpy as np
import numpy.typing as npt

from nematex.core.colour.difference import delta_e
from nematex.core.quantity.arrays import Floats, Mask
from nematex.core.rules.reckoning import OutfitRules
from nematex.core.set.palette import labs


@dataclass(frozen=True)
class Piece:
    """A garment of a capsule: its layer, its cloth's colours (ground first), whether its print is loud, its weight in g/m²."""

    name: str
    layer: str
    colours: tuple[str, ...]
    loud: bool
    weight_gsm: float


UNDER_AND_OVER = ("top", "bottom", "over", "whole")
Outfit = tuple[int, ...]  # places of its pieces: top, bottom; or whole; then what lies over them


@dataclass(frozen=True, eq=False)
class Pairs:
    """Which of n pieces go together, two by two, (n, n), and their layers."""

    good: Mask
    layers: tuple[str, ...]
    loud: Mask

    def of_layer(self, layer: str) -> list[int]:
        return [at for at, each in enumerate(self.layers) if each == layer]


def pairs(pieces: Sequence[Piece], rule: OutfitRules) -> Pairs:
    """Every two pieces held beside each other."""
    colour = _share_a_colour(pieces, rule)
    weight = np.array([each.weight_gsm for each in pieces])
    loud = np.array([each.loud for each in pieces], dtype=np.bool_)
    good = colour & ~(loud[:, None] & loud[None, :])
    layers = tuple(each.layer for each in pieces)
    for one, other in product(range(len(pieces)), repeat=2):
        if layers[one] == "top" and layers[other] == "bottom" and weight[one] > rule.top_times * weight[other]:
            good[one, other] = good[other, one] = False
        if layers[one] == "over" and layers[other] != "over" and weight[one] < rule.over_times * weight[other]:
            good[one, other] = good[other, one] = False
    return Pairs(np.asarray(good, dtype=np.bool_), layers, loud)


def _share_a_colour(pieces: Sequence[Piece], rule: OutfitRules) -> Mask:
    """Where a colour of the one is a colour of the other, or a ground is neutral; no known colour goes with all."""
    flat = [colour for piece in pieces for colour in piece.colours]
    owner = np.array([at for at, piece in enumerate(pieces) for _ in piece.colours], dtype=np.intp)
    found = np.zeros((len(pieces), len(pieces)), dtype=np.bool_)
    if flat:
        lab = labs(flat)
        near: npt.NDArray[np.bool_] = delta_e(lab[:, None, :], lab[None, :, :]) <= rule.shares_within
        np.logical_or.at(found, (owner[:, None], owner[None, :]), near)
    calm = np.array([not piece.colours or is_neutral(piece.colours[0], rule) for piece in pieces], dtype=np.bool_)
    return np.asarray(found | calm[:, None] | calm[None, :], dtype=np.bool_)


def is_neutral(colour: str, rule: OutfitRules) -> bool:
    """Whether a colour goes with all: hardly any chroma, or so dark that it is not seen."""
    lightness, a, b = (float(each) for each in labs([colour])[0])
    return float(np.hypot(a, b)) <= rule.neutral_chroma or lightness <= rule.neutral_dark


def outfits(found: Pairs) -> list[Outfit]:
    """Every outfit that works."""
    tops, bottoms = found.of_layer("top"), found.of_layer("bottom")
    under: list[Outfit] = [(top, bottom) for top, bottom in product(tops, bottoms) if found.good[top, bottom]]
    under += [(whole,) for whole in found.of_layer("whole")]
    with_over = [(*each, over) for each in under for over in found.of_layer("over") if all(found.good[over, at] for at in each)]
    return under + with_over


def without(found: Sequence[Outfit], at: int) -> int:
    """How many outfits are left when a piece is taken out."""
    return sum(at not in each for each in found)


def gained(pieces: Sequence[Piece], more: Sequence[Piece], rule: OutfitRules) -> Floats:
    """How many outfits each of m further pieces would add by itself, (m,)."""
    known, both = len(pieces), pairs([*pieces, *more], rule)
    tops, bottoms, overs, wholes = ([at for at in both.of_layer(layer) if at < known] for layer in UNDER_AND_OVER)
    worn_already = [(top, bottom) for top, bottom in product(tops, bottoms) if both.good[top, bottom]]
    worn_already += [(whole, whole) for whole in wholes]
    found = np.zeros(len(more))
    for number in range(len(more)):
        at = known + number
        layer = both.layers[at]
        if layer == "over":
            found[number] = sum(_over(both, [at], each) for each in worn_already)
            continue
        others = {"top": bottoms, "bottom": tops}.get(layer, [at])
        under = [(at, other) for other in others if other == at or both.good[at, other]]
        found[number] = sum(1 + _over(both, overs, each) for each in under)
    return found


def _over(both: Pairs, overs: Sequence[int], under: tuple[int, int]) -> int:
    """How many of these can be worn over both."""
    return sum(bool(both.good[over, under[0]] and both.good[over, under[1]]) for over in overs)
