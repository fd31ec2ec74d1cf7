"""The published width conversion chart: an extension-service handout (from memory, unverified)."""

from __future__ import annotations

from collections.abc import Mapping

import numpy as np

from nematex.core.quantity.arrays import Floats
from nematex.core.quantity.units import CM_PER_INCH, CM_PER_YARD


def _at(width_cm: float, widths: Floats, yards: Floats) -> Floats:
    """The chart's column at one width, between two columns in proportion."""
    after = int(np.clip(np.searchsorted(widths, width_cm), 1, len(widths) - 1))
    share = np.clip((width_cm - widths[after - 1]) / (widths[after] - widths[after - 1]), 0.0, 1.0)
    found: Floats = yards[after - 1] + share * (yards[after] - yards[after - 1])
    return found


def convert_width(length_m: float, from_cm: float, to_cm: float, chart: Mapping[float, tuple[float, ...]]) -> float:
    """Length in m at `to_cm` of what takes `length_m` at `from_cm`, by the published chart, linear between its points."""
    inches = sorted(chart)
    widths, yards = np.array(inches) * CM_PER_INCH, np.array([chart[each] for each in inches])  # widths × rows
    at_from, at_to = (_at(width, widths, yards) for width in (from_cm, to_cm))
    asked = length_m * 100 / CM_PER_YARD
    if asked <= at_from[0]:
        return float(length_m * at_to[0] / at_from[0])
    if asked >= at_from[-1]:
        return float(length_m * at_to[-1] / at_from[-1])
    return float(np.interp(asked, at_from, at_to)) * CM_PER_YARD / 100
