"""A number as it is said: in the unit system that leads, with as many places as its kind is worth."""

from __future__ import annotations

from dataclasses import dataclass
from enum import Enum

from nematex.core.quantity.units import CM_PER_INCH, oz_yd2_from_gsm


class Units(Enum):
    """Which unit system leads."""

    METRIC = "metric"
    IMPERIAL = "imperial"


@dataclass(frozen=True, slots=True)
class Said:
    """Words for numbers of one unit: how it is converted, its sign, and its places."""

    factor: float
    sign: str
    more_places: int


IN_IMPERIAL = {
    "g/m²": Said(oz_yd2_from_gsm(1.0), "oz/yd²", 1),
    "cm": Said(1 / CM_PER_INCH, "in", 1),
}


def number(value: float, unit: str, places: int, units: Units = Units.METRIC) -> str:
    """The number alone: 14.46 cm with one place → '14.5', in inches '5.69'."""
    said = IN_IMPERIAL.get(unit) if units is Units.IMPERIAL else None
    if said is None:
        return f"{value:.{places}f}"
    return f"{value * said.factor:.{places + said.more_places}f}"


def sign(unit: str, units: Units = Units.METRIC) -> str:
    """The sign of the unit that leads: 'g/m²' or 'oz/yd²'."""
    return IN_IMPERIAL[unit].sign if units is Units.IMPERIAL and unit in IN_IMPERIAL else unit


def amount(value: float, unit: str, places: int, units: Units = Units.METRIC) -> str:
    """'30 %', '62 cm'."""
    return f"{number(value, unit, places, units)} {sign(unit, units)}"


def span(low: float, high: float, unit: str, places: int, units: Units, up_to: str) -> str:
    """'60 to 215 g/m²', or one number where both ends are said alike; `up_to` joins {low} and {high}."""
    one, other = number(low, unit, places, units), number(high, unit, places, units)
    joined = one if one == other else up_to.format(low=one, high=other)
    return f"{joined} {sign(unit, units)}"
