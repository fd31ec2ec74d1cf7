"""Bending length and flexural rigidity from an overhanging strip.

ASTM D1388 / ISO 9073-7 option A (cantilever), from memory: the strip is pushed over an edge until its tip touches a
plane falling at 41.5°; the bending length c is half the overhang. Flexural rigidity G = w·c³. The exact curve is
in elastica.py; Peirce's closed form (1930, from memory) is kept to check it by.
"""

from __future__ import annotations

import math

from nematex.core.errors import FieldFault

MG_CM_TO_UN_M = 0.0980665  # 1 mg·cm of force (standard gravity) as µN·m


def bending_length_cm(overhang_cm: float) -> float:
    """Bending length c in cm from the overhang L in cm on the 41.5° ramp: c = L/2."""
    if not 0 < overhang_cm <= 30:
        raise FieldFault("overhang_cm", overhang_cm, "must lie above 0 and up to 30 cm")
    return overhang_cm / 2


def peirce_bending_length_cm(overhang_cm: float, ramp_deg: float) -> float:
    """Peirce's closed form c = L·(cos(θ/2) / (8·tan θ))^⅓."""
    angle = math.radians(ramp_deg)
    return overhang_cm * float((math.cos(angle / 2) / (8 * math.tan(angle))) ** (1 / 3))


def flexural_rigidity_mg_cm(areal_mass_gsm: float, bending_length_cm: float) -> float:
    """Flexural rigidity G in mg·cm from areal mass in g/m² and bending length in cm."""
    return areal_mass_gsm * 0.1 * bending_length_cm**3


def flexural_rigidity_un_m(areal_mass_gsm: float, bending_length_cm: float) -> float:
    """Flexural rigidity G in µN·m: the same with the weight as a force."""
    return flexural_rigidity_mg_cm(areal_mass_gsm, bending_length_cm) * MG_CM_TO_UN_M


def bias_bending_length_cm(along_cm: float, across_cm: float) -> float:
    """Bending length on the bias from those along and across: the harmonic mean of the rigidities.

    Common practice, no source: shear adds to it, so real bias hangs softer still.
    """
    along, across = along_cm**3, across_cm**3
    return float((2 * along * across / (along + across)) ** (1 / 3))
