"""Uneven light, taken out of a photograph: log luminance is cloth plus a smooth surface of second degree.

Common practice, no source. Three guesses at the surface: none; from small steps (most neighbours have the same colour, so
the middle of their differences is light, not print: right for large prints); from the means of large blocks (right for
fine ones). The one that leaves the tightest clusters of colour is refined with one offset per cluster.
"""

from __future__ import annotations

import numpy as np

from nematex.core.colour.difference import LUMINANCE, Array, oklab_from_linear
from nematex.core.photo.cluster import clusters

DARKEST = 1e-3
SAMPLE = 6000
CLUSTERS = 10
BLOCKS = 8
STRONGEST = 1.2  # no light falls off so much over one swatch


def _log_luminance(linear: Array) -> Array:
    logged: Array = np.log(np.maximum(linear @ LUMINANCE, DARKEST))
    return logged


def _terms(y: Array, x: Array) -> Array:
    return np.stack([x, y, x * x, x * y, y * y], axis=-1)


def _slopes(logged: Array) -> Array:
    """The five coefficients of the surface, from the middle of the differences at small steps."""
    height, width = logged.shape
    step = 3
    rows, values = [], []
    for axis, size, other in ((0, height, width), (1, width, height)):
        difference = _stepped(logged, step, axis)
        per_unit = difference * (size / 2) / step
        for at in np.array_split(np.arange(difference.shape[axis]), 6):
            for across in np.array_split(np.arange(difference.shape[1 - axis]), 6):
                block = per_unit[np.ix_(at, across)] if axis == 0 else per_unit[np.ix_(across, at)]
                low, high = np.percentile(block, [30, 70])
                kept = block[(block >= low) & (block <= high)]
                along, sideways = (at.mean() + step / 2) / size * 2 - 1, across.mean() / other * 2 - 1
                y, x = (along, sideways) if axis == 0 else (sideways, along)
                # d/dy of (x, y, x², xy, y²) or d/dx of the same.
                rows.append([0, 1, 0, x, 2 * y] if axis == 0 else [1, 0, 2 * x, y, 0])
                values.append(kept.mean() if kept.size else 0.0)
    table, wanted = np.array(rows, dtype=np.float64), np.array(values)
    weights: Array = np.ones(len(wanted))
    found: Array = np.zeros(5)
    for _ in range(8):  # Huber-like: a block with a border in it should not bend the surface
        found = np.linalg.lstsq(table * weights[:, None], wanted * weights, rcond=None)[0].astype(np.float64)
        off = np.abs(table @ found - wanted)
        weights = np.sqrt(1 / np.maximum(1.0, off / max(1e-6, 1.5 * float(np.median(off)))))
    return found


def _stepped(logged: Array, step: int, axis: int) -> Array:
    return logged[step:] - logged[:-step] if axis == 0 else logged[:, step:] - logged[:, :-step]


def _block_means(logged: Array) -> Array:
    """The five coefficients from the means of BLOCKS × BLOCKS blocks."""
    height, width = logged.shape
    rows, columns = (np.linspace(0, size, BLOCKS + 1).astype(int) for size in (height, width))
    means = np.add.reduceat(np.add.reduceat(logged, rows[:-1], axis=0), columns[:-1], axis=1)
    means /= np.outer(np.diff(rows), np.diff(columns))
    middle = (np.arange(BLOCKS) + 0.5) / BLOCKS * 2 - 1
    y, x = np.meshgrid(middle, middle, indexing="ij")
    table = np.concatenate([np.ones((BLOCKS * BLOCKS, 1)), _terms(y.ravel(), x.ravel())], axis=1)
    found: Array = np.linalg.lstsq(table, means.ravel(), rcond=None)[0][1:]
    return found


class _Sample:
    """A sparse sample of the picture's pixels with their places, on which guesses are compared."""

    def __init__(self, linear: Array, terms: Array) -> None:
        every = max(1, linear.shape[0] * linear.shape[1] // SAMPLE)
        self.linear, self.terms = linear.reshape(-1, 3)[::every], terms.reshape(-1, terms.shape[-1])[::every]

    def lit(self, surface: Array) -> Array:
        flat = self.terms @ surface
        lit: Array = self.linear / np.exp(flat - flat.mean())[:, None]
        return lit

    def looseness(self, surface: Array) -> float:
        """How far pixels lie from the middle of their cluster of colour."""
        points = oklab_from_linear(self.lit(surface))
        labels = clusters(points, CLUSTERS, 12)
        middles = np.array(
            [points[labels == each].mean(axis=0) if (labels == each).any() else points[0] for each in range(CLUSTERS)]
        )
        return float(np.abs(points - middles[labels]).mean())

    def refined(self, surface: Array) -> Array:
        """The surface bettered by least squares with one offset per cluster."""
        lit = self.lit(surface)
        offsets = np.eye(CLUSTERS)[clusters(oklab_from_linear(lit), CLUSTERS, 8)]
        found = np.linalg.lstsq(np.concatenate([self.terms, offsets], axis=1), _log_luminance(lit), rcond=None)[0]
        better: Array = surface + found[:5]
        return better


def evened(linear: Array) -> Array:
    """A picture in linear light (h, w, 3) with the unevenness of its light divided out; the mean stays."""
    height, width = linear.shape[:2]
    y, x = np.meshgrid(np.linspace(-1, 1, height), np.linspace(-1, 1, width), indexing="ij")
    terms, logged = _terms(y, x), _log_luminance(linear)
    sample = _Sample(linear, terms)
    guesses = [np.zeros(5), _slopes(logged), _block_means(logged)]
    best = min((guess for guess in guesses if np.abs(guess).max() < STRONGEST), key=sample.looseness)
    better = sample.refined(best)
    surface = terms @ (better if sample.looseness(better) < sample.looseness(best) else best)
    result: Array = linear / np.exp(surface - surface.mean())[..., None]
    return result
