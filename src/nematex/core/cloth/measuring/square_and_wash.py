"""What the measurements at the cutting table come to. Lengths in cm, masses in g; formulas where they stand."""

from __future__ import annotations

import math

from nematex.core.errors import FieldFault


def weight_from_piece_gsm(grams: float, area_cm2: float) -> float:
    """Areal mass of a cut piece: mass over area (as ISO 3801 and EN 12127 reckon it, from memory)."""
    if grams <= 0 or area_cm2 <= 0:
        raise FieldFault("mass", grams, "and area must lie above 0")
    return grams / area_cm2 * 10_000


def disc_area_cm2(diameter_cm: float) -> float:
    return math.pi * diameter_cm**2 / 4


def weight_from_bolt_gsm(kilograms: float, metres: float, width_cm: float) -> float:
    """Areal mass of a whole bolt, from its mass without the core, its length and its full width."""
    if kilograms <= 0 or metres <= 0 or width_cm <= 0:
        raise FieldFault("bolt", kilograms, "needs kilograms, metres and width above 0")
    return kilograms * 1000 / (metres * width_cm / 100)


def shrinkage_pct(before_cm: float, after_cm: float) -> float:
    """Change of a marked length by washing, in % of before; shrinking is positive (as ISO 5077 reckons, from memory)."""
    if before_cm <= 0 or after_cm <= 0:
        raise FieldFault("mark", after_cm, "must lie above 0, before and after")
    return 100 * (before_cm - after_cm) / before_cm
