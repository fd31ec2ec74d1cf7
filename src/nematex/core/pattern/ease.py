"""Ease: finished measurements less body measurements, and the stretch a knit must give where that is negative.

Needed stretch = 100·(body/finished − 1), and what movement wants on top: the pattern's own figure, or 10 % (common
practice, no source). Lengths in cm, stretch in %.
"""

from __future__ import annotations

from dataclasses import dataclass

from nematex.core.pattern.facts import Pattern, Size
from nematex.core.quantity.units import trim
from nematex.core.tables import Tables

PLACES = ("bust", "waist", "hip")


@dataclass(frozen=True, slots=True)
class Ease:
    """Ease at one place of one size, in cm; negative where the garment is smaller than the body."""

    size: str
    place: str
    body_cm: float
    finished_cm: float

    @property
    def ease_cm(self) -> float:
        return self.finished_cm - self.body_cm

    @property
    def stretch_pct(self) -> float:
        """What the cloth must stretch only to go round, in %."""
        return 100 * (self.body_cm / self.finished_cm - 1)


@dataclass(frozen=True, slots=True)
class NeededStretch:
    """The most a size asks of the cloth, in %, and the words it is said in; 0 where there is ease enough."""

    size: str
    needed_pct: float
    movement_pct: float
    words: str


def eases(size: Size) -> list[Ease]:
    """Every place of a size where both measurements are known."""
    found = []
    for place in PLACES:
        body, finished = getattr(size, f"{place}_cm"), getattr(size, f"finished_{place}_cm")
        if body and finished:
            found.append(Ease(size.label, place, body, finished))
    return found


def needed_stretch(pattern: Pattern, tables: Tables) -> list[NeededStretch]:
    """Per size with finished measurements, what a knit must give."""
    movement = float(tables.judging.ease.movement_pct)
    found = []
    for size in pattern.sizes:
        tight = [each for each in eases(size) if each.ease_cm < 0]
        if not eases(size):
            continue
        if not tight:
            found.append(NeededStretch(size.label, 0.0, movement, f"size {size.label} has ease everywhere"))
            continue
        most = max(tight, key=lambda each: each.stretch_pct)
        words = (
            f"size {size.label}: {most.place} {trim(most.body_cm)} cm in a garment of {trim(most.finished_cm)} cm "
            f"takes {most.stretch_pct:.0f} %, and {movement:.0f} % to move"
        )
        found.append(NeededStretch(size.label, most.stretch_pct + movement, movement, words))
    return found
