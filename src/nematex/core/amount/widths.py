"""What another width costs: the amount over the widths that cloth is sold in, and where it jumps."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from nematex.core.amount.length import amount
from nematex.core.cloth.estimates import Cloth
from nematex.core.pattern.facts import Pattern, Wish
from nematex.core.quantity.estimate import Estimate
from nematex.core.tables import Tables

NARROWEST_CM, WIDEST_CM, STEP_CM = 90, 300, 2
COMMON_CM = (112.0, 140.0, 150.0, 280.0)  # common practice, no source


@dataclass(frozen=True)
class OverWidth:
    """Length in m over width in cm; `common` are the usual widths, `own` is this cloth's."""

    widths_cm: tuple[float, ...]
    lengths_m: tuple[float, ...]
    common: tuple[tuple[float, float], ...]
    own: tuple[float, float]

    @property
    def jumps_cm(self) -> tuple[float, ...]:
        """Widths from which it takes at least a fifth less than just before: pieces begin to lie side by side."""
        pairs = zip(self.widths_cm[1:], self.lengths_m, self.lengths_m[1:], strict=False)
        return tuple(width for width, before, after in pairs if after <= 0.8 * before)


def over_width(cloth: Cloth, pattern: Pattern, wish: Wish, tables: Tables) -> OverWidth | None:
    """The amount of a cloth like this one at every width; None without a table."""

    def at(width: float) -> float:
        found = amount(replace(cloth, width=Estimate.around(width, cloth.width.known, 0)), pattern, wish, tables)
        return found.length_m if found else 0.0

    own = at(cloth.width.best)
    if not own:
        return None
    widths = tuple(float(width) for width in np.arange(NARROWEST_CM, WIDEST_CM + STEP_CM, STEP_CM))
    return OverWidth(widths, tuple(map(at, widths)), tuple((width, at(width)) for width in COMMON_CM), (cloth.width.best, own))
