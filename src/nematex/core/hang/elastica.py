"""The heavy elastica: the curve of a strip held level at one end that hangs under its own weight.

All lengths in units of the bending length c, angles in degrees. With σ the distance from the free tip and φ = 90° −
slope: φ'' = σ·sin φ, φ'(0) = 0, φ(0) = e^q; where φ reaches 90° is the edge, and σ there is L/c. L falls steadily with
q, so one root is bracketed; shooting from the clamped side would find false ones. Solved once into a table.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
import scipy
from scipy.optimize import brentq

from nematex.core.errors import FieldFault
from nematex.core.quantity.arrays import Floats

SHORTEST, LONGEST = 0.05, 50.0  # beyond it the asymptotes hold: reach √(2/L)
NEARLY_STRAIGHT = 0.25  # below it the table's start would be too close to a right angle
_STRAIGHT = math.log(math.pi / 2 - 1e-6)  # q of a strip so short that it does not bend


@dataclass(frozen=True)
class Curve:
    """Points of the strip from the edge to the tip: reach and drop in units of c; chord and tip angle in degrees."""

    reach: Floats
    drop: Floats
    tip_deg: float

    @property
    def chord_deg(self) -> float:
        return float(np.degrees(np.arctan2(self.drop[-1], self.reach[-1])))


def _shoot(q: float, dense: bool = False):  # type: ignore[no-untyped-def]
    """From the tip back to where the strip is level."""

    def slope(sigma: float, state: Floats) -> list[float]:
        return [state[1], sigma * math.sin(state[0])]

    def level(_: float, state: Floats) -> float:
        return float(state[0] - math.pi / 2)

    level.terminal = True  # type: ignore[attr-defined]
    span = (0, 4 * LONGEST)
    return scipy.integrate.solve_ivp(
        slope, span, [math.exp(q), 0.0], "DOP853", events=level, rtol=1e-9, atol=1e-12, dense_output=dense
    )


def _root(miss: Callable[[float], float]) -> float:
    """The q at which a quantity that falls with q is met."""
    low = -6.0
    while miss(low) < 0:
        low *= 2
    return float(brentq(miss, low, _STRAIGHT, xtol=1e-10))


def _curve(q: float, points: int) -> Curve:
    path = _shoot(q, dense=True)
    sigma = np.linspace(path.t[-1], 0, points)
    middle = (sigma[1:] + sigma[:-1]) / 2
    down, between = math.pi / 2 - path.sol(sigma)[0], math.pi / 2 - path.sol(middle)[0]

    def along(side: Callable[[Floats], Floats]) -> Floats:
        # Simpson's rule on each piece keeps the table's fifth figure.
        pieces = (side(down[:-1]) + 4 * side(between) + side(down[1:])) / 6 * -np.diff(sigma)
        return np.concatenate([[0.0], np.cumsum(pieces)])

    return Curve(along(np.cos), along(np.sin), math.degrees(float(down[-1])))


@lru_cache(maxsize=512)
def curve(length: float, points: int = 200) -> Curve:
    """The strip whose overhang is `length` bending lengths; raises FieldFault outside 0.05–50."""
    if not SHORTEST <= length <= LONGEST:
        raise FieldFault("length", length, f"must lie between {SHORTEST} and {LONGEST:.0f} bending lengths")
    return _curve(_root(lambda q: float(_shoot(q).t[-1]) - length), points)


@lru_cache(maxsize=1)
def _starts() -> scipy.interpolate.PchipInterpolator:
    """q against (L/c)^1.5, with which it falls almost straight, through a hundred curves that are solved once."""
    short, long = np.geomspace(NEARLY_STRAIGHT * 0.9, 1.2, 40), np.geomspace(1.25, LONGEST * 1.1, 60)
    tries = np.concatenate([np.log(np.pi / 2 - short**3 / 6), np.linspace(0.25, -0.6, 25), 0.4 - 2 / 3 * long**1.5])
    pairs = sorted({round(float(_shoot(q).t[-1]) ** 1.5, 9): float(q) for q in tries}.items())
    return scipy.interpolate.PchipInterpolator([each[0] for each in pairs], [each[1] for each in pairs])


@lru_cache(maxsize=512)
def drawn_curve(length: float, points: int = 60) -> Curve:
    """The same curve for a drawing, its start read from a table: right within a fifth of a per cent up to a length of 20."""
    if not SHORTEST <= length <= LONGEST:
        raise FieldFault("length", length, f"must lie between {SHORTEST} and {LONGEST:.0f} bending lengths")
    if length < NEARLY_STRAIGHT:
        return curve(length, points)
    return _curve(float(_starts()(length**1.5)), points)


@lru_cache(maxsize=64)
def overhang_in_bending_lengths(chord_deg: float) -> float:
    """L/c at which the chord from the edge to the tip falls at this angle: 2.00035 at 41.5°."""
    if not 5 <= chord_deg <= 75:
        raise FieldFault("ramp_deg", chord_deg, "must lie between 5 and 75 degrees")
    return float(_shoot(_root(lambda q: _curve(q, 60).chord_deg - chord_deg)).t[-1])


def bending_length_on_ramp_cm(overhang_cm: float, ramp_deg: float) -> float:
    """Bending length in cm from the overhang in cm on a ramp of any angle."""
    return overhang_cm / overhang_in_bending_lengths(ramp_deg)
