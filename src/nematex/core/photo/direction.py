"""Which way up a print may lie: any way (all-over), two ways, one way, or not to be told from the picture."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from nematex.core.colour.difference import Array
from nematex.core.photo.correlate import overlap_ncc
from nematex.core.photo.motifs import Motifs
from nematex.core.photo.turns import turns

SAME_TURNED = 0.965
DIFFERENT_TURNED = 0.90
ENOUGH_MOTIFS = 6
# Profiles hold no grain, so they are judged more finely.
SAME_BANDS, DIFFERENT_BANDS = 0.975, 0.968
TOSSED = 0.12  # share of like pairs that lie askew
EVEN_TURNED = 0.7  # share of motifs that look the same upside down, from which they tell nothing


@dataclass(frozen=True, slots=True)
class Direction:
    """A direction, or "unsure", with a confidence 0–1."""

    word: str
    confidence: float


def turned_likeness(picture: Array, own_peak: float) -> float:
    """How well the picture turned by half a turn agrees with itself, as a share of its own best peak."""
    ncc = overlap_ncc(picture, picture[::-1, ::-1])
    return float(ncc.max() / max(own_peak, 1e-6))


def direction_of_motifs(likeness: float, motifs: Motifs, repeats: bool) -> Direction:
    """Direction of a print of motifs."""
    if likeness >= SAME_TURNED:
        return Direction("two-way", float(np.clip(0.6 + (likeness - SAME_TURNED) * 12, 0.6, 0.98)))
    if len(motifs) >= ENOUGH_MOTIFS:
        found = turns(motifs)
        if found.pairs >= ENOUGH_MOTIFS:
            if found.askew >= TOSSED:
                return Direction("all-over", float(np.clip(0.65 + found.askew / 2, 0.65, 0.95)))
            if found.upside_down >= TOSSED:
                return Direction("two-way", 0.7)
            if found.same_turned <= 1 - EVEN_TURNED:
                return Direction("one-way", float(np.clip(0.95 - found.same_turned, 0.6, 0.95)))
        if found.same_turned >= EVEN_TURNED:
            # Even motifs strewn about: no way up is told by them.
            return Direction("all-over", 0.65)
    if likeness < DIFFERENT_TURNED and repeats:
        return Direction("one-way", float(np.clip(0.5 + (DIFFERENT_TURNED - likeness) / 2, 0.5, 0.75)))
    return Direction("unsure", 0.4)


def direction_of_bands(likeness: float) -> Direction:
    """Direction of stripes and checks from their profiles: their order reads the same upside down, or not."""
    if likeness >= SAME_BANDS:
        return Direction("two-way", float(np.clip(0.6 + (likeness - SAME_BANDS) * 12, 0.6, 0.98)))
    if likeness < DIFFERENT_BANDS:
        return Direction("one-way", float(np.clip(0.7 + (DIFFERENT_BANDS - likeness) * 2, 0.7, 0.98)))
    return Direction("unsure", 0.4)
