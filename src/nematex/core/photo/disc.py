"""The draped disc: its shadow's area and its folds, from a photograph straight from above.

DC = 100·(A − π·9²)/(π·(15² − 9²)) for the 30 cm disc on the 18 cm stand (ISO 9073-9 / BS 5058, from memory). The cloth
may be darker or lighter than the table. Folds are counted twice; where the counts disagree, nobody is told a number.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
import numpy.typing as npt
import scipy  # its signal and skimage's filters weigh 20 MB and a second: both come in at their first use
import skimage

from nematex.core.cloth.measuring.drape_coefficient import drape_coefficient_pct
from nematex.core.colour.difference import LUMINANCE, Array
from nematex.core.errors import FieldFault

ANGLES = 720
FEWEST, MOST = 2, 16
LEAST_WAVE = 0.012  # amplitude as a share of the mean radius, below which there are no folds to count


@dataclass(frozen=True, slots=True)
class DiscReading:
    """Drape coefficient in %, folds (None where the two counts disagree), confidence 0–1, shadow area in cm²."""

    drape_coefficient_pct: float
    folds: int | None
    confidence: dict[str, float]
    shadow_cm2: float


def _level(tone: Array) -> Array:
    """Tone with the plane of the table's light taken off, the plane fitted to the rim of the picture."""
    height, width = tone.shape
    y, x = np.meshgrid(np.linspace(-1, 1, height), np.linspace(-1, 1, width), indexing="ij")
    rim = np.maximum(np.abs(y), np.abs(x)) > 0.9
    table = np.stack([np.ones(int(rim.sum())), x[rim], y[rim]], axis=1)
    values, weights = tone[rim], np.ones(int(rim.sum()))
    for _ in range(6):  # cloth that reaches the rim must not tilt the plane
        found = np.linalg.lstsq(table * weights[:, None], values * weights, rcond=None)[0]
        off = np.abs(table @ found - values)
        weights = 1 / np.maximum(1.0, off / max(1e-6, 2 * float(np.median(off))))
    level: Array = tone - (found[0] + found[1] * x + found[2] * y)
    return level


def _blob(level: Array) -> npt.NDArray[np.bool_]:
    """The part that differs from the table and holds the most of the picture's middle, its holes filled."""
    smooth = scipy.ndimage.gaussian_filter(np.abs(level), max(1.0, min(level.shape) / 400))
    mask = smooth > skimage.filters.threshold_otsu(smooth)
    mask = scipy.ndimage.binary_opening(mask, iterations=2)
    mask = scipy.ndimage.binary_fill_holes(mask)
    parts, count = scipy.ndimage.label(mask)
    if not count:
        raise FieldFault("photo", "the picture", "shows no disc that stands out from the table")
    areas = np.bincount(parts.ravel())[1:]
    blob: npt.NDArray[np.bool_] = parts == int(np.argmax(areas)) + 1
    return blob


def _outline(level: Array, blob: npt.NDArray[np.bool_]) -> Array:
    """The contour (n, 2) of the disc half-way between table and cloth, to a part of a pixel."""
    smooth = scipy.ndimage.gaussian_filter(level, 1.0)
    near = scipy.ndimage.binary_dilation(blob, iterations=4)
    inside = float(np.median(smooth[scipy.ndimage.binary_erosion(blob, iterations=3)]))
    outside = float(np.median(smooth[~near]))
    share = np.where(near, (smooth - outside) / (inside - outside), 0.0)
    share[scipy.ndimage.binary_erosion(blob, iterations=4)] = 1.0
    contours = skimage.measure.find_contours(np.pad(share, 1), 0.5)
    longest: Array = max(contours, key=len) - 1
    return longest


def _shoelace(points: Array) -> float:
    y, x = points[:, 0], points[:, 1]
    return abs(float(np.sum(x * np.roll(y, -1) - np.roll(x, -1) * y))) / 2


def _radius(points: Array) -> Array:
    """Radius at ANGLES equal angles about the outline's centre of area."""
    y, x = points[:, 0], points[:, 1]
    cross = x * np.roll(y, -1) - np.roll(x, -1) * y
    cx = float(((x + np.roll(x, -1)) * cross).sum() / (3 * cross.sum()))
    cy = float(((y + np.roll(y, -1)) * cross).sum() / (3 * cross.sum()))
    angle, far = np.arctan2(y - cy, x - cx), np.hypot(y - cy, x - cx)
    order = np.argsort(angle)
    radius: Array = np.interp(np.linspace(-np.pi, np.pi, ANGLES, endpoint=False), angle[order], far[order], period=2 * np.pi)
    return radius


def count_folds(radius: Array) -> tuple[int | None, float]:
    """Folds of r(θ) and how sure: by the strongest wave and by the peaks; None where they disagree."""
    wave = radius / radius.mean() - 1
    smooth = scipy.ndimage.gaussian_filter1d(wave, ANGLES / 180, mode="wrap")
    amplitude = 2 * np.abs(np.fft.rfft(smooth)) / ANGLES
    spectrum = amplitude[FEWEST : MOST + 1]
    by_wave = int(np.argmax(spectrum)) + FEWEST
    swing = float(np.percentile(smooth, 95) - np.percentile(smooth, 5))
    if swing < 2 * LEAST_WAVE:
        return 0, 0.9
    start = int(np.argmin(smooth))
    peaks, _ = scipy.signal.find_peaks(np.roll(smooth, -start), prominence=0.2 * swing)
    if len(peaks) != by_wave:
        return None, 0.3
    share = float(spectrum.max() ** 2 / (spectrum**2).sum())
    return by_wave, float(np.clip(0.5 + share / 2, 0.5, 0.98))


def read_disc(linear: Array, px_per_cm: float) -> DiscReading:
    """Drape coefficient and folds from a photo in linear light (h, w, 3) with its scale in px per cm."""
    if not 2 <= px_per_cm <= 2000:
        raise FieldFault("px_per_cm", px_per_cm, "must lie between 2 and 2000 pixels per cm")
    level = _level(np.sqrt(np.maximum(linear @ LUMINANCE, 0)))
    blob = _blob(level)
    rim = np.concatenate([blob[0], blob[-1], blob[:, 0], blob[:, -1]])
    if rim.mean() > 0.02:
        raise FieldFault("photo", "the picture", "cuts the disc off; the whole shadow must be in the picture")
    outline = _outline(level, blob)
    area = _shoelace(outline) / px_per_cm**2
    value = drape_coefficient_pct(area)
    folds, sure = count_folds(_radius(outline))
    contrast = abs(float(np.median(level[blob]))) / max(
        1e-6, float(np.std(level[~scipy.ndimage.binary_dilation(blob, iterations=6)]))
    )
    return DiscReading(
        round(value, 1),
        folds,
        {"drape_coefficient_pct": round(float(np.clip(contrast / 12, 0.3, 0.97)), 2), "folds": round(sure, 2)},
        round(area, 1),
    )
