"""The draped disc seen from above: the 30 cm disc on its 18 cm stand, as the estimate from stiffness has it.

The outline r(θ) = m + a·cos(nθ) holds the estimated shadow's area; folds and coefficient are those of drape.py.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from nematex.core.cloth.measuring.drape_coefficient import DISC_CM, STAND_CM, drape_from_bending, folds_from_bending
from nematex.core.quantity.estimate import Estimate


@dataclass(frozen=True, slots=True)
class DrapedDisc:
    """Mean radius and depth of the outline's waves in cm, how many there are, and the estimated coefficient in %."""

    mean_cm: float
    wave_cm: float
    folds: int
    drape_pct: Estimate

    @property
    def area_cm2(self) -> float:
        return math.pi * (self.mean_cm**2 + self.wave_cm**2 / 2)

    def radius_cm(self, angle: float) -> float:
        return self.mean_cm + self.wave_cm * math.cos(self.folds * angle)


def draped_disc(bend_cm: float) -> DrapedDisc:
    """The outline for a bending length in cm."""
    drape = drape_from_bending(bend_cm)
    area = math.pi * (STAND_CM**2 + drape.best / 100 * (DISC_CM**2 - STAND_CM**2))
    low, high = folds_from_bending(bend_cm)
    folds = round((low + high) / 2)
    even = math.sqrt(area / math.pi)
    if folds == 0:
        return DrapedDisc(even, 0.0, 0, drape)
    wave = 0.75 * min(DISC_CM - even, even - STAND_CM)
    return DrapedDisc(math.sqrt(even**2 - wave**2 / 2), wave, folds, drape)
