"""A cowl neck: how deep it falls, how far it stands off and into how many folds it lays itself. A model.

A neckline longer than the line between its ends sags as a chain would; cloth that bends at c cannot turn tighter than
a loop about 1.5 c across, which it spends on each fold. Common practice for the rest, no source.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from scipy.optimize import brentq

from nematex.core.errors import FieldFault
from nematex.core.hang.hem import fold_length_cm

APART_CM = 20.0  # between the shoulder points
LOOP = 1.5  # width of a folded loop in bending lengths


@dataclass(frozen=True, slots=True)
class Cowl:
    """Depth of the neckline below the shoulder points, how far it stands off the chest, and folds below it; in cm."""

    depth_cm: float
    stands_off_cm: float
    folds: int


def _sag(apart_cm: float, line_cm: float) -> float:
    """Sag of a chain of this length between two points this far apart."""
    if line_cm <= apart_cm * 1.0001:
        return 0.0
    half = line_cm / apart_cm
    a = brentq(lambda x: np.sinh(x) / x - half, 1e-3, 20.0)
    return float(apart_cm / 2 / a * (np.cosh(a) - 1))


def cowl(excess_cm: float, bend_cm: float) -> Cowl:
    """The cowl of a neckline `excess_cm` longer than the distance between its ends, in a cloth of this bending length."""
    if not 0 < excess_cm <= 60:
        raise FieldFault("length_cm", excess_cm, "must lie above 0 and up to 60 cm for a cowl")
    off = min(LOOP * bend_cm, excess_cm)
    depth = _sag(APART_CM, APART_CM + max(excess_cm - off, 0.0))
    wave = fold_length_cm(bend_cm, max(depth, 1.0))
    return Cowl(depth, off, max(0, int(depth / (wave / 2))))
