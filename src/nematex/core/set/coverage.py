"""Who a set of garments serves: which bodies its size tables reach, and where they reach nobody or hardly anybody.

How many garments should reach every body stands in data/judging.toml. Common practice, no source. Lengths in cm.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from itertools import pairwise

from nematex.core.pattern.facts import Pattern, Size
from nematex.core.pattern.look import BOTTOMS, look_of
from nematex.core.rules.reckoning import CoverageRules
from nematex.core.tables import Tables

PLACES = ("bust", "waist", "hip")
WHOLE = ("dress", "slip", "jumpsuit", "dungarees", "swimsuit", "coat", "gown")
FITS_ALL = ("cape", "apron", "bag", "hat")

Range = tuple[float, float]


@dataclass(frozen=True)
class Garment:
    """A garment of the set: its name, its kind, and the ranges of bodies that its sizes reach, by place."""

    name: str
    kind: str
    reach: Mapping[str, tuple[Range, ...]]


@dataclass(frozen=True)
class Stretch:
    """A stretch of body measurements, and the garments that reach it."""

    low: float
    high: float
    garments: tuple[Garment, ...]


@dataclass(frozen=True)
class Gap:
    """Where too few garments reach: `only` are those that do. `below`, `above`: it runs to the end of what is wanted."""

    place: str
    low: float
    high: float
    only: tuple[Garment, ...]
    below: bool
    above: bool


def places_of(kind: str) -> tuple[str, ...]:
    """What decides whether a kind of garment fits: the hip for what hangs from the waist, the bust above it, else both."""
    if kind in BOTTOMS:
        return ("waist", "hip")
    if kind in FITS_ALL:
        return ()
    return ("bust", "hip") if kind in WHOLE else ("bust",)


def _step(values: Sequence[float]) -> float:
    """The largest step between two sizes that stand side by side."""
    return max((after - before for before, after in pairwise(values)), default=0.0)


def _bands(sizes: Iterable[Size], place: str) -> list[tuple[Range, float]]:
    """The range and the step of each band of sizes that an envelope is sold in, cups apart."""
    found: dict[tuple[str, str], list[float]] = {}
    for size in sizes:
        value = getattr(size, f"{place}_cm")
        if value:
            found.setdefault((size.band, size.cup), []).append(value)
    return [((min(values), max(values)), _step(sorted(values))) for values in found.values()]


def reach_of(pattern: Pattern, place: str) -> tuple[Range, ...]:
    """The ranges that a size table reaches: bands that overlap, or stand no further apart than two sizes do, are one."""
    joined: list[tuple[float, float, float]] = []
    for (low, high), step in sorted(_bands(pattern.sizes, place)):
        before = joined[-1] if joined else (low, low, step)
        if joined and low <= before[1] + max(step, before[2]):
            joined[-1] = (before[0], max(before[1], high), max(before[2], step))
        else:
            joined.append((low, high, step))
    return tuple((low, high) for low, high, _ in joined)


def garment_of(name: str, pattern: Pattern, tables: Tables) -> Garment:
    """A pattern as it stands in a set."""
    kind = look_of(pattern, tables).kind
    return Garment(name, kind, {place: found for place in places_of(kind) if (found := reach_of(pattern, place))})


def wanted_range(garments: Iterable[Garment], place: str) -> Range | None:
    """From the smallest to the largest body that any of these garments reaches; None where none says."""
    ranges = [each for garment in garments for each in garment.reach.get(place, ())]
    return (min(low for low, _ in ranges), max(high for _, high in ranges)) if ranges else None


def stretches(garments: Sequence[Garment], place: str, wanted: Range) -> list[Stretch]:
    """The wanted range cut where a garment begins or ends to reach."""
    cuts = {wanted[0], wanted[1]}
    for garment in garments:
        for each in garment.reach.get(place, ()):
            cuts |= {value for value in each if wanted[0] < value < wanted[1]}
    marks = sorted(cuts)
    return [
        Stretch(low, high, tuple(garment for garment in garments if _reaches(garment, place, (low + high) / 2)))
        for low, high in pairwise(marks)
    ]


def _reaches(garment: Garment, place: str, value: float) -> bool:
    return any(low <= value <= high for low, high in garment.reach.get(place, ()))


def gaps(garments: Sequence[Garment], place: str, wanted: Range, rule: CoverageRules) -> list[Gap]:
    """Where fewer garments than are enough reach, the widest hole first; neighbours that the same garments reach are one."""
    found: list[Gap] = []
    for each in stretches(garments, place, wanted):
        if len(each.garments) >= rule.enough:
            continue
        _append(found, place, each, wanted)
    wide = [gap for gap in found if gap.high - gap.low >= rule.shortest_cm]
    return sorted(wide, key=lambda gap: (len(gap.only), gap.low - gap.high))


def of_one_kind(garments: Sequence[Garment], place: str, wanted: Range, rule: CoverageRules) -> list[Gap]:
    """Where several garments reach, but all are of one kind, in a set that has other kinds for this place too."""
    if len({garment.kind for garment in garments if garment.reach.get(place)}) < 2:
        return []
    found: list[Gap] = []
    for each in stretches(garments, place, wanted):
        if len(each.garments) >= rule.enough and len({garment.kind for garment in each.garments}) == 1:
            _append(found, place, each, wanted)
    return [gap for gap in found if gap.high - gap.low >= rule.shortest_cm]


def _append(found: list[Gap], place: str, each: Stretch, wanted: Range) -> None:
    """One more gap, or the last one longer where the same garments reach both."""
    low = each.low
    if found and found[-1].high == low and found[-1].only == each.garments:
        low = found.pop().low
    found.append(Gap(place, low, each.high, each.garments, low == wanted[0], each.high == wanted[1]))


def closes(garment: Garment, gap: Gap) -> float:
    """The share of a gap that one more garment reaches, 0 to 1."""
    if garment in gap.only:
        return 0.0
    inside = [(max(low, gap.low), min(high, gap.high)) for low, high in garment.reach.get(gap.place, ())]
    return sum(high - low for low, high in inside if high > low) / (gap.high - gap.low)
