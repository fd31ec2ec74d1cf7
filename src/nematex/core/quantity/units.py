"""Unit factors and the two ways of saying a quantity.

Inch, yard, pound and ounce are exact by the international yard and pound agreement (1959):
1 in = 2.54 cm, 1 yd = 91.44 cm, 1 oz = 28.349523125 g. Hence 1 oz/yd² = 33.906 g/m².
"""

from __future__ import annotations

import math
from fractions import Fraction

CM_PER_INCH = 2.54
CM_PER_YARD = 91.44
GRAMS_PER_OUNCE = 28.349523125
GSM_PER_OZ_YD2 = GRAMS_PER_OUNCE / (CM_PER_YARD / 100) ** 2


def gsm_from_oz_yd2(ounces: float) -> float:
    """Areal mass in g/m² from oz/yd²."""
    return ounces * GSM_PER_OZ_YD2


def oz_yd2_from_gsm(gsm: float) -> float:
    """Areal mass in oz/yd² from g/m²."""
    return gsm / GSM_PER_OZ_YD2


def price_per_metre(price: float, per_cm: float) -> float:
    """Price per metre of a price asked for `per_cm` centimetres of cloth."""
    return price * 100 / per_cm


def eighths(yards: float) -> str:
    """Yards rounded up to the next eighth, as written on an envelope: 2.51 → '2 5/8'; half a centimetre is let go."""
    count = math.ceil(round(yards * 8 - 0.04, 6))
    whole, rest = divmod(count, 8)
    if not rest:
        return str(whole)
    part = Fraction(rest, 8)
    return f"{whole} {part}" if whole else str(part)


def trim(value: float, places: int = 1) -> str:
    """A number without needless zeros: 2.50 → '2.5', 140.0 → '140'."""
    text = f"{value:.{places}f}"
    return text.rstrip("0").rstrip(".") if "." in text else text


def say_weight(gsm: float, metric_first: bool = True) -> str:
    """Areal mass in both systems: '150 g/m² (4.4 oz/yd²)'."""
    metric, imperial = f"{gsm:.0f} g/m²", f"{oz_yd2_from_gsm(gsm):.1f} oz/yd²"
    return f"{metric} ({imperial})" if metric_first else f"{imperial} ({metric})"


def say_width(cm: float, metric_first: bool = True) -> str:
    """Width in both systems: '140 cm (55 in)'."""
    metric, imperial = f"{cm:.0f} cm", f"{cm / CM_PER_INCH:.0f} in"
    return f"{metric} ({imperial})" if metric_first else f"{imperial} ({metric})"


def say_length(metres: float, metric_first: bool = True) -> str:
    """Length of cloth in both systems, yards rounded up to eighths: '2.3 m (2 5/8 yd)'."""
    metric, imperial = f"{trim(metres, 2)} m", f"{eighths(metres * 100 / CM_PER_YARD)} yd"
    return f"{metric} ({imperial})" if metric_first else f"{imperial} ({metric})"
