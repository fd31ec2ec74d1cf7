"""Stripes and checks: how much of a picture is told by its columns and rows alone, after turning it straight."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
import scipy

from nematex.core.colour.difference import Array

WIDEST_TURN_DEG = 8.0


@dataclass(frozen=True, slots=True)
class Bands:
    """Shares of the variance in column means and in row means, what rows and columns together leave out, and the turn."""

    columns: float
    rows: float
    turn_deg: float
    low_rank: float


def turned(picture: Array, degrees: float) -> Array:
    """The picture (h, w, channels) turned about its middle, cut to what is still whole."""
    if abs(degrees) < 0.05:
        return picture
    whole = scipy.ndimage.rotate(picture, degrees, axes=(1, 0), reshape=False, order=1, mode="nearest")
    height, width = picture.shape[:2]
    tangent = abs(np.tan(np.radians(degrees)))
    cut_y, cut_x = int(np.ceil(width / 2 * tangent)), int(np.ceil(height / 2 * tangent))
    if cut_y * 2 > height * 0.7 or cut_x * 2 > width * 0.7:
        return whole
    return whole[cut_y : height - cut_y, cut_x : width - cut_x]


def _shares(picture: Array, noise: float) -> tuple[float, float]:
    """Shares of the variance (noise taken off) in the column means and in the row means."""
    centred = picture - picture.mean(axis=(0, 1))
    total = max(float((centred**2).mean(axis=(0, 1)).sum()) - noise, 1e-9)
    columns = float((centred.mean(axis=0) ** 2).mean(axis=0).sum())
    rows = float((centred.mean(axis=1) ** 2).mean(axis=0).sum())
    return columns / total, rows / total


def _best_turn(small: Array) -> float:
    """The turn within ±WIDEST_TURN_DEG that gathers most variance into columns and rows."""
    best = 0.0
    for reach, step in ((WIDEST_TURN_DEG, 1.0), (1.0, 0.25), (0.25, 0.1)):
        angles = best + np.arange(-reach, reach + step / 2, step)
        best = float(max(angles, key=lambda angle: sum(_shares(turned(small, float(angle)), 0.0))))
    return best


def _main_component(picture: Array) -> Array:
    """The picture as one channel (h, w, 1): along the direction in colour in which it varies most, and small."""
    every = max(1, max(picture.shape[:2]) // 200)
    height, width = (size // every * every for size in picture.shape[:2])
    small = picture[:height, :width].reshape(height // every, every, width // every, every, 3).mean(axis=(1, 3))
    flat = small.reshape(-1, 3) - small.mean(axis=(0, 1))
    _, vectors = np.linalg.eigh(flat.T @ flat)
    component: Array = (flat @ vectors[:, -1]).reshape(*small.shape[:2], 1)
    return component


def noise_variance(picture: Array) -> float:
    """Variance of pixel noise, summed over channels, from the middle of second differences."""
    total = 0.0
    for each in range(picture.shape[2]):
        across = picture[:, 2:, each] - 2 * picture[:, 1:-1, each] + picture[:, :-2, each]
        total += (1.4826 * float(np.median(np.abs(across)))) ** 2 / 6
    return total


def bands(picture: Array, noise: float = 0.0) -> Bands:
    """How striped or checked a picture in linear light (h, w, 3) is."""
    turn = _best_turn(_main_component(picture))
    straight = turned(picture, turn)
    columns, rows = _shares(straight, noise)
    return Bands(columns, rows, turn, _low_rank(straight, noise))


def _low_rank(picture: Array, noise: float) -> float:
    """Share of the variance told by rows, columns and two products of them: 1 for any check, less for round motifs."""
    every = max(1, max(picture.shape[:2]) // 260)
    small = picture[::every, ::every]
    centred = small - small.mean(axis=(0, 1))
    channel = centred[..., int(np.argmax((centred**2).mean(axis=(0, 1))))]
    rest = channel - channel.mean(axis=0, keepdims=True) - channel.mean(axis=1, keepdims=True)
    total = max(float((channel**2).sum()) - noise / 3 * channel.size, 1e-9)
    told = 1 - float((rest**2).sum()) / float((channel**2).sum())
    values = np.linalg.svd(rest, compute_uv=False)
    product = float((values[:2] ** 2).sum()) / total
    return min(1.0, told * float((channel**2).sum()) / total + product)
