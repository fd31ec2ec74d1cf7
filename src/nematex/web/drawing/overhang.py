"""How a strip of cloth hangs over the edge of a table, as a path: the heavy elastica at the cloth's bending length."""

from __future__ import annotations

from functools import lru_cache

from nematex.core.hang.elastica import LONGEST, SHORTEST, drawn_curve

STEP_CM = 0.05  # bending lengths are drawn to this step: finer is not seen


@lru_cache(maxsize=512)
def _path(bend_cm: float, length_cm: float) -> tuple[str, float, float]:
    found = drawn_curve(min(max(length_cm / bend_cm, SHORTEST), LONGEST), 60)
    points = [f"{x * bend_cm:.2f} {y * bend_cm:.2f}" for x, y in zip(found.reach[::2], found.drop[::2], strict=True)]
    return "M0 0L" + "L".join(points[1:]), float(found.reach[-1] * bend_cm), float(found.drop[-1] * bend_cm)


def hang(bend_cm: float, length_cm: float) -> tuple[str, float, float]:
    """SVG path in cm from the table's edge (0, 0), to the right and down, and where its tip is."""
    return _path(max(STEP_CM, round(bend_cm / STEP_CM) * STEP_CM), length_cm)
