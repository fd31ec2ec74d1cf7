"""The measurement worth taking: the one whose plausible outcomes change the verdict most.

For each property not yet measured, five outcomes spread over its range are judged as if measured.
"""

from __future__ import annotations

import numpy as np

from nematex.core.cloth.columns import ClothColumns, columns
from nematex.core.cloth.estimates import Cloth
from nematex.core.judging.demand import Demand
from nematex.core.judging.judge import judge
from nematex.core.judging.verdict import Verdict
from nematex.core.quantity.estimate import MEASURED
from nematex.core.tables import Tables

PROPERTIES = {
    "bending_length": "bending_length_cm",
    "weight": "weight_gsm",
    "stretch_cross": "stretch_cross_pct",
    "stretch_length": "stretch_length_pct",
    "thickness": "thickness_mm",
    "width": "width_cm",
}
OUTCOMES = (0.1, 0.3, 0.5, 0.7, 0.9)


def _open_ones(cloth: Cloth) -> list[str]:
    return [name for name in PROPERTIES if getattr(cloth, name).high > getattr(cloth, name).low]


def outcomes(cloth: Cloth, tables: Tables) -> ClothColumns:
    """The cloth as it is, then with each outcome of each measurement: the same for every pattern it is held against."""
    open_ones = _open_ones(cloth)
    found = columns([cloth], tables).take(np.zeros(1 + len(open_ones) * len(OUTCOMES), dtype=np.intp))
    for place, name in enumerate(open_ones):
        column, rows = getattr(found, name), slice(1 + place * len(OUTCOMES), 1 + (place + 1) * len(OUTCOMES))
        measured = column.low[0] + np.array(OUTCOMES) * (column.high[0] - column.low[0])
        column.low[rows] = column.high[rows] = column.best[rows] = measured
        column.known[rows] = MEASURED
    return found


def measure_next(cloth: Cloth, demand: Demand, tables: Tables, found: ClothColumns | None = None) -> str | None:
    """The field to measure next, or None if no measurement would change the verdict; `found` are the cloth's outcomes."""
    if cloth.guessed:
        return "stretch_cross_pct"  # it tells whether it is the woven or the knit of that name
    open_ones = _open_ones(cloth)
    judged = judge(found or outcomes(cloth, tables), demand, tables)
    now, after = judged.verdict[0], judged.verdict[1:].reshape(len(open_ones), len(OUTCOMES)).astype(int)
    moved = np.abs(after - int(now)).mean(axis=1) if open_ones else np.zeros(0)
    if moved.size and moved.max() > 0:
        return PROPERTIES[open_ones[int(np.argmax(moved))]]
    # The whole may be held by another check; then the check that is itself unproven shows what to measure.
    checks = np.stack([codes[1:].reshape(len(open_ones), len(OUTCOMES)) for codes in judged.checks.values()]).astype(int)
    base = np.array([codes[0] for codes in judged.checks.values()], dtype=int)[:, None, None]
    if now < Verdict.AGAINST and open_ones:
        by_check = np.abs(checks - base).mean(axis=(0, 2))
        if by_check.max() > 0:
            return PROPERTIES[open_ones[int(np.argmax(by_check))]]
    return "fibres" if judged.checks["fibre"][0] == Verdict.UNPROVEN else None
