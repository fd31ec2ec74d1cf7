"""The instruments of the cutting table: one small protocol each, and simulated ones over a cloth's hidden true values.

A simulated reading is noisy, and faulty on demand: a scale that drifts, one reading far off, a wrong unit.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Protocol

import numpy as np
import numpy.typing as npt

from nematex.core.cloth.measuring.drape_coefficient import drape_from_bending
from nematex.core.photo.see_through import BLACK_CARD, WHITE_CARD, over_ground
from nematex.core.quantity.units import CM_PER_INCH, GRAMS_PER_OUNCE
from nematex.devices.camera import USUAL, Photo, photograph_disc, photograph_tones

PX_PER_CM = 20.0
FAULTS = ("none", "drift", "outlier", "wrong unit")


@dataclass(frozen=True, slots=True)
class Truth:
    """What is true of a made-up cloth: g/m², cm, %, reflectance and transmittance 0–1."""

    weight_gsm: float
    bend_along_cm: float
    bend_across_cm: float
    stretch_cross_pct: float
    stretch_length_pct: float
    recovery_pct: float
    width_cm: float
    selvedge_cm: float
    shrink_length_pct: float
    shrink_width_pct: float
    reflectance: float
    transmittance: float


class Scale(Protocol):
    def grams(self, area_cm2: float, count: int) -> list[float]: ...


class Ramp(Protocol):
    def overhang_cm(self, along: bool, face_up: bool, count: int) -> list[float]: ...


class Gauge(Protocol):
    def stretched_cm(self, relaxed_cm: float, across: bool, count: int) -> list[float]: ...
    def after_cm(self, relaxed_cm: float, stretched_cm: float) -> float: ...


class Tape(Protocol):
    def width_cm(self, usable: bool, count: int) -> list[float]: ...
    def after_wash_cm(self, before_cm: float, along: bool) -> float: ...


class LightTable(Protocol):
    def tones(self) -> tuple[float, float, float, float]:
        """Linear tones: cloth over black, cloth over white, bare black, bare white."""
        ...


class CameraRig(Protocol):
    def disc(self) -> Photo: ...
    def over_cards(self) -> tuple[Photo, Photo]:
        """Over black and over white card: the cloth on the left half, the bare card on the right."""
        ...


class SimulatedBench:
    """All the instruments over one made-up cloth; the fault, if any, falls on one reading or on all of a series."""

    def __init__(self, truth: Truth, rng: np.random.Generator, fault: str = "none") -> None:
        self.truth, self.rng, self.fault = truth, rng, fault
        self.taken = 0  # readings so far: a drift goes on from one series to the next

    def _series(self, true: float, noise: float, count: int, unit: float, places: int) -> list[float]:
        values: npt.NDArray[np.float64] = true * (1 + self.rng.normal(scale=noise, size=count))
        if self.fault == "drift":
            values = np.asarray(true * (1 + (self.taken + np.arange(count)) * 0.04), dtype=np.float64)
        elif self.fault == "outlier" and count:
            values[int(self.rng.integers(count))] *= 1.6
        elif self.fault == "wrong unit":
            values /= unit
        self.taken += count
        return [round(float(value), places) for value in values]

    def grams(self, area_cm2: float, count: int) -> list[float]:
        return self._series(self.truth.weight_gsm * area_cm2 / 10_000, 0.01, count, GRAMS_PER_OUNCE, 3)

    def overhang_cm(self, along: bool, face_up: bool, count: int) -> list[float]:
        bend = self.truth.bend_along_cm if along else self.truth.bend_across_cm
        return self._series(2 * bend * (1.01 if face_up else 0.99), 0.025, count, CM_PER_INCH, 1)

    def stretched_cm(self, relaxed_cm: float, across: bool, count: int) -> list[float]:
        stretch = self.truth.stretch_cross_pct if across else self.truth.stretch_length_pct
        series = self._series(relaxed_cm * (1 + stretch / 100), 0.008, count, CM_PER_INCH, 1)
        return series if self.fault == "wrong unit" else [max(relaxed_cm, each) for each in series]  # none pulls it shorter

    def after_cm(self, relaxed_cm: float, stretched_cm: float) -> float:
        return round(stretched_cm - (stretched_cm - relaxed_cm) * self.truth.recovery_pct / 100, 1)

    def width_cm(self, usable: bool, count: int) -> list[float]:
        return self._series(self.truth.width_cm + (0 if usable else self.truth.selvedge_cm), 0.002, count, CM_PER_INCH, 1)

    def after_wash_cm(self, before_cm: float, along: bool) -> float:
        shrink = self.truth.shrink_length_pct if along else self.truth.shrink_width_pct
        return round(before_cm * (1 - shrink / 100), 1)

    def tones(self) -> tuple[float, float, float, float]:
        exposure = float(self.rng.uniform(0.7, 1.1))
        own, through = self.truth.reflectance, self.truth.transmittance
        over = [over_ground(own, through, card) for card in (BLACK_CARD, WHITE_CARD)]
        black, white, bare_black, bare_white = (
            round(each * exposure * float(1 + self.rng.normal(scale=0.004)), 4) for each in (*over, BLACK_CARD, WHITE_CARD)
        )
        return black, white, bare_black, bare_white

    def disc(self) -> Photo:
        bend = (self.truth.bend_along_cm + self.truth.bend_across_cm) / 2
        drape = drape_from_bending(bend).best
        folds = int(np.clip(round(11 - 2.6 * bend), 3, 11)) if drape < 92 else 0
        return photograph_disc(drape, folds, PX_PER_CM, USUAL, self.rng)

    def over_cards(self) -> tuple[Photo, Photo]:
        on_black, on_white, bare_black, bare_white = self.tones()
        black, white = (
            photograph_tones(pair, PX_PER_CM, USUAL, self.rng) for pair in ((on_black, bare_black), (on_white, bare_white))
        )
        return black, white
