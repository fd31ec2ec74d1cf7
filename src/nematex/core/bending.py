"""Bending length from an overhanging strip.

ASTM D1388 option A (cantilever test), from memory: the strip is pushed over an edge until its tip touches a
plane falling at 41.5°; the bending length is half the overhang. Flexural rigidity G = w·c³.
"""

from __future__ import annotations

from nematex.core.errors import FieldFault


def bending_length_cm(overhang_cm: float) -> float:
    """Bending length c in cm from the overhang L in cm on the 41.5° ramp: c = L/2."""
    if not 0 < overhang_cm <= 30:
        raise FieldFault("overhang_cm", overhang_cm, "must lie above 0 and up to 30 cm")
    return overhang_cm / 2


def flexural_rigidity_mg_cm(areal_mass_gsm: float, bending_length_cm: float) -> float:
    """Flexural rigidity G in mg·cm from areal mass in g/m² and bending length in cm."""
    return areal_mass_gsm * 0.1 * bending_length_cm**3
