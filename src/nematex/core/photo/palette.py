"""The colours of a cloth with their shares, and which one is the ground.

k-means in OKLab over the calm pixels (edges are blends of two colours), clusters closer than ΔE00 6 joined, small shares
and blends of two larger colours dropped. Common practice, no source; the limits are held against made-up swatches.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt
import scipy

from nematex.core.colour.difference import Array, delta_e, lab_from_srgb, linear_from_srgb, oklab_from_linear, srgb_from_linear
from nematex.core.photo.cluster import clusters

CLUSTERS = 16
SAMPLE = 16_000
JOIN_BELOW = 6.0
SMALLEST_SHARE = 0.012
FRINGE = 0.4  # a colour with less of its area away from edges may be a fringe
BLEND_WITHIN = 0.045  # in OKLab
THIN_SHARE = 0.04
MOST_MIXTURES = 4_000_000  # that pixels are held against: about half a second
STICKS_OUT = 0.07
THIN_CLUSTERS = 6


@dataclass(frozen=True)
class Palette:
    """k colours: linear light (k, 3), sRGB 0–255, shares that sum to 1, and the picture as colour numbers (h, w)."""

    linear: Array
    shares: Array
    labels: npt.NDArray[np.int32]
    ground: int
    confidence: float

    @property
    def srgb(self) -> npt.NDArray[np.int64]:
        return np.rint(srgb_from_linear(self.linear) * 255).astype(np.int64)


def calm_mask(oklab: Array) -> npt.NDArray[np.bool_]:
    """Pixels away from edges: the gentler part of the picture by gradient."""
    slope = sum(scipy.ndimage.gaussian_gradient_magnitude(oklab[..., each], 1.0) for each in range(3))
    calm: npt.NDArray[np.bool_] = slope <= max(0.02, float(np.percentile(slope, 45)))
    return calm


def _joined(centres: Array, weights: Array) -> list[list[int]]:
    """Groups of clusters: the closest two are joined until none are closer than JOIN_BELOW."""
    groups = [[at] for at in range(len(centres)) if weights[at] > 0]
    middle = [centres[group[0]] for group in groups]
    mass = [float(weights[group[0]]) for group in groups]
    while len(groups) > 1:
        lab = lab_from_srgb(srgb_from_linear(np.array(middle)) * 255)
        far = delta_e(lab[:, None], lab[None])
        np.fill_diagonal(far, np.inf)
        a, b = np.unravel_index(int(np.argmin(far)), far.shape)
        if far[a, b] >= JOIN_BELOW:
            break
        total = mass[a] + mass[b]
        middle[a] = (middle[a] * mass[a] + middle[b] * mass[b]) / total
        mass[a], groups[a] = total, groups[a] + groups[b]
        for row in (groups, middle, mass):
            del row[b]
    return groups


def _off_blends(linear: Array, colours: Array, enough: float = 0.0) -> Array:
    """OKLab distance of pixels (n, 3) from the nearest mixture, in linear light, of two of the colours (k, 3).

    A pixel that is nearer than `enough` to one of the mixtures is not held against the others.
    """
    shown = oklab_from_linear(linear)
    best = np.full(len(linear), np.inf)
    left = np.arange(len(linear))
    for first in range(len(colours)):
        for second in range(first + 1):
            line = colours[first] - colours[second]
            size = float(line @ line)
            share = np.clip((linear[left] - colours[second]) @ line / size, 0, 1) if size > 0 else np.zeros(len(left))
            mixed = oklab_from_linear(colours[second] + share[:, None] * line)
            best[left] = np.minimum(best[left], np.sqrt(((shown[left] - mixed) ** 2).sum(axis=1)))
        left = left[best[left] > enough]
    return best


def _core_shares(labels: npt.NDArray[np.int32], count: int) -> Array:
    """Share of the picture that each colour holds away from its edges: next to nothing for a fringe."""
    inner = (scipy.ndimage.minimum_filter(labels, 3) == scipy.ndimage.maximum_filter(labels, 3)).ravel()
    cores: Array = np.bincount(labels.ravel()[inner], minlength=count) / labels.size
    return cores


def _ground(labels: npt.NDArray[np.int32], shares: Array) -> int:
    """The colour with the largest mean of its share and its largest connected part."""
    score = []
    for each, share in enumerate(shares):
        parts, count = scipy.ndimage.label(labels == each)
        largest = np.bincount(parts.ravel())[1:].max() / labels.size if count else 0.0
        score.append((share + largest) / 2)
    return int(np.argmax(score))


def _nearest(oklab: Array, centres: Array) -> npt.NDArray[np.int32]:
    labels, _ = scipy.cluster.vq.vq(oklab.reshape(-1, 3), oklab_from_linear(centres))
    return labels.reshape(oklab.shape[:2]).astype(np.int32)


def palette(linear: Array) -> Palette:
    """The palette of an evened, smoothed picture in linear light (h, w, 3)."""
    oklab = oklab_from_linear(linear)
    calm = calm_mask(oklab)
    pixels = linear[calm]
    middle = _middles(pixels[:: max(1, len(pixels) // SAMPLE)], CLUSTERS)
    middle = np.concatenate([middle, _thin_colours(linear, oklab, middle)])
    return _kept(linear, oklab, calm, middle)


def _middles(sample: Array, count: int) -> Array:
    """The colours of a sample of pixels: clusters, the near ones joined."""
    label = clusters(oklab_from_linear(sample), count, 25)
    weights = np.bincount(label, minlength=count).astype(np.float64)
    centres = np.array([np.median(sample[label == each], axis=0) if weights[each] else np.zeros(3) for each in range(count)])
    return np.array([np.median(sample[np.isin(label, group)], axis=0) for group in _joined(centres, weights)])


def _thin_colours(linear: Array, oklab: Array, found: Array) -> Array:
    """Colours of lines and specks too thin to have a calm inside: the pixels that stick out furthest around them.

    A picture of very many colours, in which most pixels stick out, is looked at more coarsely.
    """
    _, off = scipy.cluster.vq.vq(oklab.reshape(-1, 3), oklab_from_linear(found))
    mixtures = np.count_nonzero(off > STICKS_OUT) * len(found) * (len(found) + 1) / 2
    step = max(1, math.ceil(math.sqrt(mixtures / MOST_MIXTURES)))
    linear, oklab, off = linear[::step, ::step], oklab[::step, ::step], off.reshape(oklab.shape[:2])[::step, ::step].ravel()
    far = off > STICKS_OUT
    off[far] = _off_blends(linear.reshape(-1, 3)[far], found, STICKS_OUT)
    off = off.reshape(oklab.shape[:2])
    peaks = (off > STICKS_OUT) & (off == scipy.ndimage.maximum_filter(off, 3))
    if peaks.sum() < 12:
        return np.empty((0, 3))
    pixels = linear[peaks]
    return _middles(pixels[:: max(1, len(pixels) // SAMPLE)], THIN_CLUSTERS)


def _kept(linear: Array, oklab: Array, calm: npt.NDArray[np.bool_], middle: Array) -> Palette:
    """Drop what is too small or only a blend, one colour at a time, and label every pixel."""
    while True:
        labels = _nearest(oklab, middle)
        shares = np.bincount(labels.ravel(), minlength=len(middle)) / labels.size
        drop = _to_drop(middle, shares, _core_shares(labels, len(middle)))
        if drop is None:
            break
        middle = np.delete(middle, drop, axis=0)
    inner = scipy.ndimage.minimum_filter(labels, 3) == scipy.ndimage.maximum_filter(labels, 3)

    def settled(each: int) -> Array:
        own = labels == each
        best = next((mask for mask in (own & inner & calm, own & inner) if mask.sum() > 20), None)
        return np.median(linear[best], axis=0) if best is not None else middle[each]

    order = np.argsort(-shares)
    fine = np.array([settled(int(each)) for each in order])
    labels = np.argsort(order).astype(np.int32)[labels]
    off = float(np.median(np.sqrt(((oklab - oklab_from_linear(fine)[labels]) ** 2).sum(axis=-1))))
    return Palette(fine, shares[order], labels, _ground(labels, shares[order]), float(np.clip(1.05 - 8 * off, 0.3, 0.99)))


def _to_drop(middle: Array, shares: Array, cores: Array) -> int | None:
    """The next colour to let go: the smallest, if too small; else a fringe that is a blend of two with more of a core."""
    if len(middle) == 1:
        return None
    smallest = int(np.argmin(shares))
    if shares[smallest] < SMALLEST_SHARE:
        return smallest
    for each in np.argsort(cores / shares):
        if cores[each] > FRINGE * shares[each]:
            return None
        others = np.delete(np.arange(len(middle)), each)
        others = others[cores[others] / shares[others] > cores[each] / shares[each]]
        bare = cores[each] < FRINGE / 4 * shares[each]  # nothing but edge: then a rough blend will do
        within = BLEND_WITHIN * (2 if bare and shares[each] < THIN_SHARE else 1)
        if len(others) > 1 and _off_blends(middle[[each]], middle[others])[0] < within:
            return int(each)
    return None


def from_srgb(picture: npt.NDArray[np.uint8]) -> Array:
    """Linear light (h, w, 3) of an 8-bit sRGB picture."""
    table = linear_from_srgb(np.arange(256) / 255)
    return table[picture]
