"""The amount over the width of the cloth, as a line in steps: width to the right, length upwards."""

from __future__ import annotations

from dataclasses import dataclass

from nematex.core.amount.widths import NARROWEST_CM, WIDEST_CM, OverWidth

WIDE, HIGH, LEFT, TOP, BOTTOM = 300.0, 120.0, 26.0, 6.0, 18.0


@dataclass(frozen=True)
class Chart:
    """Paths and marks in the drawing's own units."""

    line: str
    own: tuple[float, float]
    jumps: tuple[float, ...]
    widths: tuple[tuple[float, str], ...]
    lengths: tuple[tuple[float, str], ...]


def _x(width_cm: float) -> float:
    return round(LEFT + (WIDE - LEFT - 4) * (width_cm - NARROWEST_CM) / (WIDEST_CM - NARROWEST_CM), 2)


def width_chart(found: OverWidth) -> Chart:
    """The chart of one garment's amount."""
    most = max(found.lengths_m)
    step = next(each for each in (0.5, 1.0, 2.0, 5.0, 20.0) if most / each <= 6)

    def y(length_m: float) -> float:
        return round(HIGH - BOTTOM - (HIGH - BOTTOM - TOP) * length_m / most, 2)

    line, at = "", None
    for width, length in zip(found.widths_cm, found.lengths_m, strict=True):
        line += f"M{_x(width)} {y(length)}" if at is None else f"H{_x(width)}" + (f"V{y(length)}" if length != at else "")
        at = length
    ticks = [index * step for index in range(int(most / step) + 1)]
    own_width = min(max(found.own[0], NARROWEST_CM), WIDEST_CM)
    return Chart(
        line,
        (_x(own_width), y(found.own[1])),
        tuple(_x(width) for width in found.jumps_cm),
        tuple((_x(width), f"{width:.0f}") for width in (100, 150, 200, 250, 300)),
        tuple((y(length), f"{length:g}") for length in ticks),
    )
