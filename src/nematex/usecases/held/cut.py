"""How the shop cuts: in steps of 10 cm, or of an eighth or a quarter of a yard."""

from __future__ import annotations

from dataclasses import replace

from nematex.core.quantity.units import CM_PER_YARD
from nematex.core.tables import Tables

CUTS = {
    "10 cm": (10.0, 50.0),
    "5 cm": (5.0, 20.0),
    "1/8 yd": (CM_PER_YARD / 8, CM_PER_YARD / 2),
    "1/4 yd": (CM_PER_YARD / 4, CM_PER_YARD / 4),
}  # step and least, in cm; common practice, no source


def as_cut(tables: Tables, cut: str) -> Tables:
    """The tables with the shop's own cut; as shipped where it has said none."""
    if cut not in CUTS:
        return tables
    step, least = CUTS[cut]
    judging = tables.judging
    return replace(tables, judging=replace(judging, amount=replace(judging.amount, cut_step_cm=step, least_cut_cm=least)))
