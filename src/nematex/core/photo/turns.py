"""How the motifs of a print lie to one another: every two of like shape are turned against each other until they agree.

Common practice, no source; held against made-up swatches.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from nematex.core.colour.difference import Array
from nematex.core.photo.motifs import Motifs

MOST = 60
ALIKE = 0.86  # likeness at the best turn from which two motifs count as the same shape
BETTER = (0.015, 0.06)  # a turn must make them this much more alike to count as a turn, by the picture's grain
UPRIGHT_DEG = 25.0


@dataclass(frozen=True, slots=True)
class Turns:
    """Shares of like pairs that lie upright, upside down and askew, and the share of motifs that look the same turned."""

    pairs: int
    upright: float
    upside_down: float
    askew: float
    same_turned: float


def _likeness(around: Array) -> Array:
    """Likeness (n, n, angle) of motif i to motif j turned by each angle."""
    flat = around.reshape(len(around), -1, around.shape[-1])
    flat = flat / np.sqrt((flat**2).sum(axis=(1, 2), keepdims=True))
    spectrum = np.fft.rfft(flat, axis=-1)
    product = np.einsum("ira,jra->ija", spectrum, spectrum.conj())
    likeness: Array = np.fft.irfft(product, n=around.shape[-1], axis=-1)
    return likeness


def turns(motifs: Motifs) -> Turns:
    """How the (at most MOST largest) motifs are turned against one another."""
    order = np.argsort(-motifs.areas)[:MOST]
    areas = motifs.areas[order]
    likeness = _likeness(motifs.around[order])
    count, angles = len(order), likeness.shape[-1]
    degrees = (np.arange(angles) * 360 / angles + 180) % 360 - 180
    upper = np.triu_indices(count, 1)
    pairs = likeness[upper]
    sizes = areas[upper[0]] / areas[upper[1]]
    pairs = pairs[(pairs.max(axis=1) >= ALIKE) & (sizes < 1.35)]
    top = pairs.max(axis=1)
    # Copies of one motif show how alike two can be in this picture, grain and all.
    better = float(np.clip(2 * (1 - np.percentile(top, 75)), *BETTER)) if len(pairs) else BETTER[1]
    own = likeness[np.arange(count), np.arange(count)]
    same_turned = float((own[:, angles // 2] > 1 - better).mean())
    if not len(pairs):
        return Turns(0, 0.0, 0.0, 0.0, same_turned)
    standing = pairs[:, np.abs(degrees) <= UPRIGHT_DEG].max(axis=1) >= top - better
    overturned = (pairs[:, np.abs(degrees) >= 180 - UPRIGHT_DEG].max(axis=1) >= top - better) & ~standing
    askew = ~standing & ~overturned
    return Turns(len(pairs), float(standing.mean()), float(overturned.mean()), float(askew.mean()), same_turned)
