"""Whether a result can be right for its kind of cloth, and whether another unit would explain it."""

from __future__ import annotations

from nematex.core.quantity.estimate import Range
from nematex.core.quantity.units import CM_PER_INCH, GRAMS_PER_OUNCE, GSM_PER_OZ_YD2

SLACK = 1.8  # a cloth may well be this much lighter or heavier than its name commonly is
# What was typed × factor = what was meant.
UNITS = {
    "weight_gsm": (("ounces instead of grams on the scale", GRAMS_PER_OUNCE), ("oz/yd² instead of g/m²", GSM_PER_OZ_YD2)),
    "bending_length_cm": (("inches instead of cm", CM_PER_INCH), ("mm instead of cm", 0.1)),
    "width_cm": (("inches instead of cm", CM_PER_INCH), ("mm instead of cm", 0.1)),
}


def doubt(name: str, value: float, usual: Range) -> str | None:
    """A sentence where the value is far from what such cloth commonly is, with the unit that would explain it."""
    if usual.low / SLACK <= value <= usual.high * SLACK:
        return None
    said = f"{value:.4g} is far from the {usual.low:.4g} to {usual.high:.4g} that such cloth commonly has"
    within = [unit for unit, factor in UNITS.get(name, ()) if usual.low / SLACK <= value * factor <= usual.high * SLACK]
    if within:
        return f"{said}: were these {', or '.join(within)}?"
    return f"{said}. Check it before you keep it."
