"""A made-up draped disc seen from above: folds, sharpness and area are known."""

from __future__ import annotations

import math

import numpy as np
from scipy.optimize import brentq

from nematex.core.cloth.measuring.drape_coefficient import DISC_CM, STAND_CM
from nematex.devices.made_swatch import FINE, Picture

ANGLES = 1440


def _outline(mean_cm: float, folds: int, depth: float, rng: np.random.Generator) -> Picture:
    """Radius in cm over the angle: folds of uneven width and height."""
    angle = np.linspace(0, 2 * math.pi, ANGLES, endpoint=False)
    if not folds:
        return np.full(ANGLES, mean_cm)
    middles = np.arange(folds) + rng.uniform(-0.12, 0.12, folds)
    knots = np.concatenate([middles - folds, middles, middles + folds]) * 2 * math.pi / folds
    phase = np.interp(angle, knots, np.arange(-folds, 2 * folds)) * 2 * math.pi
    heights = np.interp(angle, knots, np.tile(rng.uniform(0.8, 1.2, folds), 3))
    return mean_cm * (1 + depth * heights * np.cos(phase))


def disc_picture(
    drape_pct: float, folds: int, px_per_cm: float, rng: np.random.Generator, cloth: float = 0.1, table: float = 0.85
) -> Picture:
    """Linear light (h, w, 3) of a shadow with this drape coefficient in % and number of folds."""
    wanted = math.pi * (STAND_CM**2 + drape_pct / 100 * (DISC_CM**2 - STAND_CM**2))
    depth = 0.0 if not folds else min(0.16, 0.9 * math.sqrt(max(0.02, 1 - drape_pct / 100)) / math.sqrt(folds) * 0.5)
    shape = _outline(1.0, folds, depth, rng)

    def area(scale: float) -> float:
        radius = np.clip(shape * scale, STAND_CM * 0.98, DISC_CM)
        return float(np.mean(radius**2) * math.pi - wanted)

    scale = brentq(area, 1.0, 40.0) if area(40.0) > 0 else 40.0
    radius = np.clip(shape * scale, STAND_CM * 0.98, DISC_CM)
    side = round(36 * px_per_cm) * FINE
    y, x = np.mgrid[0:side, 0:side] / (px_per_cm * FINE)
    cx, cy = 18 + rng.uniform(-1, 1, 2)
    angle = np.mod(np.arctan2(y - cy, x - cx), 2 * math.pi)
    edge = np.interp(angle, np.linspace(0, 2 * math.pi, ANGLES, endpoint=False), radius, period=2 * math.pi)
    inside = np.hypot(y - cy, x - cx) <= edge
    tone = np.where(inside, cloth, table)
    tone = tone.reshape(side // FINE, FINE, side // FINE, FINE).mean(axis=(1, 3))
    return np.repeat(tone[..., None], 3, axis=2)
