"""What a difference in hang means, in words a presenter can say."""

from __future__ import annotations

from nematex.core.hang.cowl import Cowl
from nematex.core.hang.hem import Hang
from nematex.core.hang.silhouettes import Silhouette

SAME_CM = 0.8  # closer than that is not seen
SMOOTH = 1.02  # fullness up to which no fold is seen


def compared(kind: Silhouette, one: Hang, other: Hang, other_name: str) -> str:
    """How the first hangs beside the second."""
    apart = one.widest_radius_cm - other.widest_radius_cm
    folds = _folds(one, other)
    if abs(apart) < SAME_CM:
        return f"Hangs as wide as {other_name}{folds}."
    way = "further out" if apart > 0 else "closer in"
    return f"Stands {abs(apart):.0f} cm {way} at the {kind.place} than {other_name}, on each side{folds}."


def _count(found: Hang) -> int:
    """Folds that are seen: none where the cloth lies as wide as it was cut."""
    return 0 if found.fullness < SMOOTH else max(1, round(found.folds))


def _say(count: int) -> str:
    return {0: "no folds", 1: "one fold"}.get(count, f"{count} folds")


def _folds(one: Hang, other: Hang) -> str:
    mine, theirs = _count(one), _count(other)
    return ", with as many folds" if mine == theirs else f", in {_say(mine)} instead of {theirs or 'none'}"


def alone(kind: Silhouette, found: Hang) -> str:
    """How it hangs by itself."""
    wide = 2 * found.widest_radius_cm
    if not _count(found):
        return f"About {wide:.0f} cm across at the {kind.place}, smooth: as wide as it was cut."
    return f"About {wide:.0f} cm across at the {kind.place}, in about {_say(_count(found))}."


def cowl_alone(found: Cowl) -> str:
    folds = {0: "no fold below it", 1: "one fold below it"}.get(found.folds, f"{found.folds} folds below it")
    return f"Falls {found.depth_cm:.0f} cm, stands {found.stands_off_cm:.0f} cm off the chest, {folds}."


def cowl_compared(one: Cowl, other: Cowl, other_name: str) -> str:
    apart = one.stands_off_cm - other.stands_off_cm
    if abs(apart) < SAME_CM:
        return f"Falls like {other_name}."
    return f"Stands {abs(apart):.0f} cm {'further off' if apart > 0 else 'closer to'} the chest than {other_name}."
