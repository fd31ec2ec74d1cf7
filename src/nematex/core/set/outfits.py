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
    """Which of n pieces go together, two by two, (n, n); and their layers."""

    good: Mask
    layers: tuple[str, ...]

    def of_layer(self, layer: str) -> list[int]:
        return [at for at, each in enumerate(self.layers) if each == layer]


def pairs(pieces: Sequence[Piece], rule: OutfitRules, known: int | None = None) -> Pairs:
    """Every two pieces held beside each other; of `known`, only what a further piece is to the first so many."""
    first = len(pieces) if known is None else known
    good = np.zeros((len(pieces), len(pieces)), dtype=np.bool_)
    loud = np.array([each.loud for each in pieces], dtype=np.bool_)
    good[:first] = _share_a_colour(pieces, first, rule) & ~(loud[:first, None] & loud[None, :])
    good[:first] &= _weights(pieces, first, rule)
    good[first:, :first] = good[:first, first:].T
    return Pairs(good, tuple(each.layer for each in pieces))


def _weights(pieces: Sequence[Piece], first: int, rule: OutfitRules) -> Mask:
    """Where what lies above is not too heavy, and what lies over not too thin, (first, n)."""
    weight = np.array([each.weight_gsm for each in pieces])
    is_a = {layer: np.array([each.layer == layer for each in pieces], dtype=np.bool_) for layer in UNDER_AND_OVER}

    def too(upper: str, lower: Mask, wrong: Mask) -> Mask:
        found: Mask = is_a[upper][:, None] & lower[None, :] & wrong
        return found

    heavy = too("top", is_a["bottom"], weight[:, None] > rule.top_times * weight[None, :])
    thin = too("over", ~is_a["over"], weight[:, None] < rule.over_times * weight[None, :])
    wrong = heavy | thin
    return np.asarray(~(wrong | wrong.T)[:first], dtype=np.bool_)


def _share_a_colour(pieces: Sequence[Piece], first: int, rule: OutfitRules) -> Mask:
    """Where a colour of the one is a colour of the other, or a ground is neutral; no known colour goes with all."""
    flat = [colour for piece in pieces for colour in piece.colours]
    owner = np.array([at for at, piece in enumerate(pieces) for _ in piece.colours], dtype=np.intp)
    found = np.zeros((first, len(pieces)), dtype=np.bool_)
    if flat:
        lab, own = labs(flat), owner[owner < first]
        near: npt.NDArray[np.bool_] = delta_e(lab[: len(own), None, :], lab[None, :, :]) <= rule.shares_within
        np.logical_or.at(found, (own[:, None], owner[None, :]), near)
    calm = _calm(pieces, rule)
    return np.asarray(found | calm[:first, None] | calm[None, :], dtype=np.bool_)


def _calm(pieces: Sequence[Piece], rule: OutfitRules) -> Mask:
    """Which are neutral, or of no known colour."""
    known = [at for at, piece in enumerate(pieces) if piece.colours]
    found = np.ones(len(pieces), dtype=np.bool_)
    lab = labs([pieces[at].colours[0] for at in known])
    found[known] = (np.hypot(lab[:, 1], lab[:, 2]) <= rule.neutral_chroma) | (lab[:, 0] <= rule.neutral_dark)
    return found


def is_neutral(colour: str, rule: OutfitRules) -> bool:
    """Whether a colour goes with all: hardly any chroma, or so dark that it is not seen."""
    return bool(_calm([Piece("", "top", (colour,), False, 0.0)], rule)[0])


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


def gained(both: Pairs, known: int, left_out: int | None = None) -> Floats:
    """How many outfits each piece after the first `known` would add by itself, (m,); one of the first may be left out."""
    tops, bottoms, overs, wholes = (
        [at for at in both.of_layer(layer) if at < known and at != left_out] for layer in UNDER_AND_OVER
    )
    worn_already = [(top, bottom) for top, bottom in product(tops, bottoms) if both.good[top, bottom]]
    worn_already += [(whole, whole) for whole in wholes]
    found = np.zeros(len(both.layers) - known)
    for number in range(len(found)):
        at = known + number
        layer = both.layers[at]
        if layer not in UNDER_AND_OVER:
            continue  # what is slept in or carried makes no outfit
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
