"""What a difference in hang means, in words a presenter can say."""

from __future__ import annotations

from nematex.core.cowl import Cowl
from nematex.core.hem import Hang
from nematex.core.silhouettes import Silhouette

SAME_CM = 0.8  # closer than that is not seen


def compared(kind: Silhouette, one: Hang, other: Hang, other_name: str) -> str:
    """How the first hangs beside the second."""
    apart = one.widest_radius_cm - other.widest_radius_cm
    folds = _folds(one.folds, other.folds)
    if abs(apart) < SAME_CM:
        return f"Hangs as wide as {other_name}{folds}."
    way = "further out" if apart > 0 else "closer in"
    return f"Stands {abs(apart):.0f} cm {way} at the {kind.place} than {other_name}, on each side{folds}."


def _folds(one: float, other: float) -> str:
    if round(one) == round(other):
        return ", with as many folds"
    return f", in {round(one)} folds instead of {round(other)}"


def alone(kind: Silhouette, found: Hang) -> str:
    """How it hangs by itself."""
    wide = 2 * found.widest_radius_cm
    if found.fullness < 1.02:
        return f"About {wide:.0f} cm across at the {kind.place}, smooth: as wide as it was cut."
    return f"About {wide:.0f} cm across at the {kind.place}, in about {round(found.folds)} folds."


def cowl_alone(found: Cowl) -> str:
    folds = {0: "no fold below it", 1: "one fold below it"}.get(found.folds, f"{found.folds} folds below it")
    return f"Falls {found.depth_cm:.0f} cm, stands {found.stands_off_cm:.0f} cm off the chest, {folds}."


def cowl_compared(one: Cowl, other: Cowl, other_name: str) -> str:
    apart = one.stands_off_cm - other.stands_off_cm
    if abs(apart) < SAME_CM:
        return f"Falls like {other_name}."
    return f"Stands {abs(apart):.0f} cm {'further off' if apart > 0 else 'closer to'} the chest than {other_name}."
