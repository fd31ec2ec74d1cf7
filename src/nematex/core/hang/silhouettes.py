"""Garments as the hang model sees them: what is cut, over which body. Lengths in cm.

The body is a common middle size (waist 74, hip 98, upper arm 31 cm; common practice, no source), so that cloths can be
compared; the drawing is of the model and of nobody.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from nematex.core.errors import FieldFault, UnknownChoice
from nematex.core.hang.hem import POINTS, Cut
from nematex.core.quantity.arrays import Floats

WAIST_CM, HIP_CM, THIGH_CM, ARM_CM, CUFF_CM, BUST_CM = 74.0, 98.0, 60.0, 31.0, 22.0, 92.0


@dataclass(frozen=True, slots=True)
class Silhouette:
    """One garment that can be hung: usual, least and greatest length, gather ratio where it is gathered, its words."""

    name: str
    length_cm: tuple[float, float, float]
    gather: tuple[float, float, float] | None
    place: str
    caveat: str = ""


LEGS = "Trouser legs hang nearly alike in any cloth: only the folds differ."
SILHOUETTES = {
    each.name: each
    for each in (
        Silhouette("A-line skirt", (60.0, 30.0, 100.0), None, "hem"),
        Silhouette("gathered skirt", (60.0, 25.0, 100.0), (1.8, 1.2, 3.0), "hem"),
        Silhouette("wide leg", (75.0, 40.0, 95.0), None, "hem", LEGS),
        Silhouette("full sleeve", (58.0, 30.0, 75.0), (1.8, 1.2, 3.0), "widest place"),
        Silhouette("cocoon", (95.0, 60.0, 120.0), None, "widest place"),
        Silhouette("cowl", (18.0, 8.0, 40.0), None, "front of the neck"),
    )
}


def silhouette(name: str) -> Silhouette:
    if name not in SILHOUETTES:
        raise UnknownChoice("garment", name, SILHOUETTES, "garment that can be hung")
    return SILHOUETTES[name]


def checked(name: str, field: str, value: float | None, limits: tuple[float, float, float], unit: str) -> float:
    """The value, or the usual one where none is given; raises FieldFault outside its limits."""
    usual, low, high = limits
    if value is None:
        return usual
    if not low <= value <= high:
        raise FieldFault(field, value, f"must lie between {low:g} and {high:g}{unit} for a {name}")
    return value


def _radius(circumference_cm: float) -> float:
    return circumference_cm / (2 * math.pi)


def _cut(length_cm: float, pattern: Floats, least: Floats, around: Floats | None, overdone: bool) -> Cut:
    down = np.linspace(0, length_cm, POINTS)
    circumference = 2 * math.pi * pattern if around is None else around
    return Cut(tuple(down), tuple(circumference), tuple(pattern), tuple(least), overdone)


def cut_of(name: str, length_cm: float | None = None, gather: float | None = None) -> Cut:
    """The cut of a silhouette; raises UnknownChoice or FieldFault."""
    kind = silhouette(name)
    length = checked(name, "length_cm", length_cm, kind.length_cm, " cm")
    ratio = checked(name, "gather", gather, kind.gather, "") if kind.gather else 1.0
    down = np.linspace(0, 1, POINTS)
    flat = np.ones(POINTS)
    if name == "A-line skirt":
        body = _radius(HIP_CM)
        return _cut(length, body + 0.2925 * length * down, body * flat, None, False)
    if name == "gathered skirt":
        body = _radius(WAIST_CM)
        return _cut(length, body * (1 + (ratio - 1) * down), body * flat, 2 * math.pi * body * ratio * flat, True)
    if name == "wide leg":
        leg = _radius(THIGH_CM) * 1.03
        return _cut(length, leg + 0.07 * length * down, leg * flat, None, True)
    if name == "full sleeve":
        arm, cuff = _radius(ARM_CM), _radius(CUFF_CM)
        inside = arm + (cuff - arm) * down
        swell = inside + (ratio - 1) * arm * np.sin(np.pi * down**1.6) ** 0.75
        return _cut(length, swell, inside, 2 * math.pi * arm * ratio * flat, True)
    if name == "cocoon":
        trunk = _radius(BUST_CM) + (_radius(HIP_CM) - _radius(BUST_CM)) * down
        return _cut(length, trunk + 6.5 * np.sin(np.pi * np.clip(down * 0.86 + 0.06, 0, 1)), trunk + 0.5, None, False)
    raise FieldFault("garment", name, "is drawn by its own rule, see cowl.py")
