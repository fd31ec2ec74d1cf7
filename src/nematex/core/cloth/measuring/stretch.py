"""Stretch and recovery of a marked length (as ASTM D2594 and D3107 reckon them, from memory)."""

from __future__ import annotations

from nematex.core.errors import FieldFault


def stretch_pct(relaxed_cm: float, stretched_cm: float) -> float:
    """Stretch in %, from the relaxed and the stretched length of the same mark, in cm."""
    if relaxed_cm <= 0 or stretched_cm < relaxed_cm:
        raise FieldFault("stretched_cm", stretched_cm, f"must not be below the relaxed length of {relaxed_cm} cm")
    return 100 * (stretched_cm - relaxed_cm) / relaxed_cm


def recovery_pct(relaxed_cm: float, stretched_cm: float, after_cm: float) -> float:
    """How much of the stretch goes back, in %, from three lengths of the same mark in cm."""
    if not 0 < relaxed_cm < stretched_cm:
        raise FieldFault("stretched_cm", stretched_cm, f"must be above the relaxed length of {relaxed_cm} cm")
    return 100 * (stretched_cm - after_cm) / (stretched_cm - relaxed_cm)
