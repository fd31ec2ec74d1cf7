"""The tape strips: each check as a piece of measuring tape, as numbers that a template draws.

Woven band = what the pattern asks; bar with end stops = what is known of the cloth; notch = the target.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache

from nematex.core.cloth.columns import BREATHING
from nematex.core.cloth.estimates import Cloth
from nematex.core.judging.judge import CheckAnswer
from nematex.core.judging.verdict import Window
from nematex.core.quantity.estimate import Estimate, Known
from nematex.core.quantity.kinds import Quantity
from nematex.core.tables import Tables

SPANS = {
    "fibre": (0, 100, 10, 50, "% that breathes"),
    "weight": (0, 500, 50, 100, "g/m²"),
    "drape": (0, 5, 0.5, 1, "cm"),
    "stretch": (0, 100, 10, 50, "%"),
    "width": (80, 160, 10, 20, "cm"),
}
LEAST_BAR = 1.6
MARKS = {Known.MEASURED: "solid", Known.STATED: "solid", Known.JUDGED: "hatched"}  # what is less than that is dotted


@dataclass(frozen=True)
class Ticks:
    """The ticks of a tape: a ready path for the drawing, and the numbered places."""

    path: str
    numbers: tuple[tuple[float, str], ...]


@cache
def _ticks(check: str) -> Ticks:
    low, high, step, number_every, _ = SPANS[check]
    path, numbers = "", []
    for count in range(round((high - low) / step) + 1):
        value = low + count * step
        place = round((value - low) / (high - low) * 100, 2)
        numbered = (value - low) % number_every == 0
        path += f"M{place:g} 16.2v{4.4 if numbered else 2.6}"
        if numbered:
            numbers.append((place, f"{value:g}"))
    return Ticks(path, tuple(numbers))


@dataclass(frozen=True)
class Strip:
    """Positions from 0 to 100 along the tape."""

    name: str
    unit: str
    verdict: str
    mark: str
    band: tuple[float, float] | None
    bar: tuple[float, float] | None
    target: float | None
    ticks: Ticks
    label: str


def _estimate(check: str, cloth: Cloth, tables: Tables) -> Estimate | None:
    if check == "fibre":
        return _breathing(cloth, tables)
    return {"weight": cloth.weight, "drape": cloth.bending_length, "stretch": cloth.stretch_cross, "width": cloth.width}[check]


def _breathing(cloth: Cloth, tables: Tables) -> Estimate | None:
    """Share of natural and regenerated fibre in %, where the label tells it."""
    if not (cloth.fibres and cloth.fibres.shares):
        return None
    names = tables.fibres.by_name
    share = 100 * sum(part for name, part in cloth.fibres.shares.items() if names[name].kind in BREATHING)
    return Estimate(share, share, share, Known.STATED)


def strip(check: str, answer: CheckAnswer, cloth: Cloth, look: str) -> Strip:
    """The strip of one check of one pairing."""
    low, high, _, _, unit = SPANS[check]
    tables = answer.decided.tables

    def at(value: float) -> float:
        return round(min(max((value - low) / (high - low), 0.0), 1.0) * 100, 2)

    estimate, window = _estimate(check, cloth, tables), answer.window
    # A check's window may speak of another quantity (thickness, stretch along): then only the list's own is drawn.
    band = (at(max(window.low, low)), at(min(window.high, high))) if window and _same_quantity(check, window) else None
    bar = None
    if estimate:
        left, right = at(estimate.low), at(estimate.high)
        if right - left < LEAST_BAR:
            middle = (left + right) / 2
            left, right = max(middle - LEAST_BAR / 2, 0), min(middle + LEAST_BAR / 2, 100)
        bar = (round(left, 2), round(right, 2))
    target = (
        window.target(tables.judging.look[look if check == "drape" else "balanced"].share)
        if window and check in ("drape", "weight")
        else None
    )
    return Strip(
        check,
        unit,
        answer.verdict.word,
        MARKS.get(estimate.known, "dotted") if estimate else "none",
        band,
        bar,
        at(target) if target is not None and band else None,
        _ticks(check),
        f"{check}: {answer.verdict.word}. {answer.reason}",
    )


def _same_quantity(check: str, window: Window) -> bool:
    """Whether the window can be drawn on the check's tape: one of stretch along lies on another axis."""
    return not (check == "stretch" and window.quantity is Quantity.STRETCH_ALONG)
