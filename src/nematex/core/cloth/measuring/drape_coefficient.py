"""The drape coefficient: from a shadow's area, and estimated from bending length and back.

DC = 100·(A − π·9²)/(π·(15² − 9²)) for the 30 cm disc on the 18 cm stand (ISO 9073-9 / BS 5058, from memory). The table
from stiffness was computed on a simulated sheet; cloth that shears easily drapes more, so its error is lopsided. Treating
the ring as separate strips reads 15–35 points low and is not used.
"""

from __future__ import annotations

import math

import numpy as np

from nematex.core.errors import FieldFault
from nematex.core.quantity.estimate import Estimate, Known

DISC_CM, STAND_CM = 15.0, 9.0
# Bending length in cm, drape coefficient in %, fewest and most folds of the 30 cm disc.
SHEET = (
    (0.8, 24.0, 10, 12),
    (1.2, 36.0, 10, 10),
    (1.5, 47.0, 7, 8),
    (2.0, 66.0, 5, 7),
    (2.5, 75.5, 4, 5),
    (3.2, 88.0, 4, 4),
    (4.0, 95.6, 0, 0),
    (5.0, 97.8, 0, 0),
)
LOWER, HIGHER = 15.0, 5.0  # how far real cloth may lie from the simulated sheet, in points
_BEND = [0.0, *(row[0] for row in SHEET), 7.0]
_DRAPE = [0.0, *(row[1] for row in SHEET), 99.5]


def drape_coefficient_pct(shadow_cm2: float) -> float:
    """Drape coefficient in % from the area of the whole shadow in cm²; a hair outside 0–100 is cut, more is refused."""
    stand, disc = math.pi * STAND_CM**2, math.pi * DISC_CM**2
    value = 100 * (shadow_cm2 - stand) / (disc - stand)
    if not -3 <= value <= 103:
        raise FieldFault(
            "shadow_cm2",
            round(shadow_cm2, 1),
            f"cannot be: the stand alone is {stand:.0f} cm² and the flat disc {disc:.0f} cm²; check the scale",
        )
    return min(100.0, max(0.0, value))


def drape_from_bending(bending_length_cm: float) -> Estimate:
    """Estimated drape coefficient in % (never a test result): low, high, best."""
    best = float(np.interp(bending_length_cm, _BEND, _DRAPE))
    return Estimate(max(0.0, best - LOWER), min(100.0, best + HIGHER), best, Known.JUDGED)


def bending_from_drape(drape_pct: float) -> Estimate:
    """Estimated bending length in cm from a drape coefficient in %, as wide as the model is unsure."""
    if not 0 <= drape_pct <= 100:
        raise FieldFault("drape_coefficient_pct", drape_pct, "must lie between 0 and 100 %")
    bend = [float(np.interp(drape_pct + off, _DRAPE, _BEND)) for off in (-HIGHER, 0.0, LOWER)]
    return Estimate(bend[0], bend[2], bend[1], Known.JUDGED)


def folds_from_bending(bending_length_cm: float) -> tuple[int, int]:
    """Fewest and most folds of the draped disc at the nearest bending length of the table."""
    row = min(SHEET, key=lambda each: abs(each[0] - bending_length_cm))
    return row[2], row[3]
