"""The lower half of another pattern in the place of this one's: its length, and the hem that gives the area of its pieces.

The pieces are drafted, an approximation; the trapezoids are those that the change reckons with (plane geometry).
"""

from __future__ import annotations

from nematex.core.amount.hacked import HEM, SEAM
from nematex.core.amount.lay.draft import drafted
from nematex.core.amount.lay.pieces import area_cm2
from nematex.core.errors import FieldFault
from nematex.core.pattern.facts import Pattern, Wish
from nematex.core.pattern.look import look_of
from nematex.core.tables import HackKind, Tables

SWAPS = {"skirt for legs": ("skirt", "tier"), "legs for skirt": ("leg",)}  # kind → words of the pieces that come


def has_lower_half(kind: str, other: Pattern, tables: Tables) -> bool:
    """Whether another pattern has what this change puts in."""
    return _area_cm2(kind, other, tables) > 0


def _area_cm2(kind: str, other: Pattern, tables: Tables) -> float:
    return sum(area_cm2(piece) for piece in drafted(other, Wish(), tables) if set(SWAPS[kind]) & set(piece.id.split()))


def numbers_like(kind: HackKind, other: Pattern, tables: Tables) -> dict[str, float]:
    """The numbers of a swap as on another pattern, in its largest size; raises FieldFault where it has no such half."""
    area = _area_cm2(kind.name, other, tables)
    if not area:
        raise FieldFault(f"{kind.label}, as on", other.name, "has no such lower half; choose a pattern that has one")
    limits = {each.name: each for each in kind.fields}
    length, hip = look_of(other, tables).length_cm, limits["hip_cm"].usual
    legs = 1 if kind.name == "skirt for legs" else 2
    above = hip * (1.0 if legs == 1 else tables.judging.change.leg_above) / legs
    hem = 2 * (area / legs / (length + HEM + SEAM) - 4 * SEAM) - above
    found = {"length_cm": length, "hip_cm": hip, "hem_cm": hem}
    return {name: round(min(max(value, limits[name].low), limits[name].high), 1) for name, value in found.items()}
