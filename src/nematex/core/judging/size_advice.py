"""A stable knit in a pattern for wovens: how much closer it can be worn, and in sizes.

A woven's ease is there to move in; a knit stretches instead. Of its stretch about a third may be used up by a closer
fit. It is taken in by the ease or by that share of the body, whichever is less, and by two sizes at most. Common
practice, no source; the numbers are in data/judging.toml. Lengths in cm.
"""

from __future__ import annotations

import itertools
from dataclasses import dataclass

from nematex.core.cloth.estimates import Cloth
from nematex.core.judging.verdict import Verdict
from nematex.core.pattern.ease import eases
from nematex.core.pattern.facts import Pattern, Size
from nematex.core.quantity.units import trim
from nematex.core.tables import Tables


@dataclass(frozen=True, slots=True)
class SizeAdvice:
    """What to cut (school B), what the other school would cut, the expected change in cm and sizes, and the receipt."""

    cut: str
    down_at_once: str
    closer_cm: float
    sizes: int
    receipt: tuple[str, ...]


def _step(pattern: Pattern, place: str) -> float | None:
    """The usual difference between neighbouring sizes at a place."""
    values = [value for size in pattern.sizes if (value := getattr(size, f"{place}_cm"))]
    steps = sorted(b - a for a, b in itertools.pairwise(values) if b > a)
    return steps[len(steps) // 2] if steps else None


def is_off_list_knit(cloth: Cloth, structure: str, stretch: Verdict) -> bool:
    """Whether a knit is made up in a pattern for wovens and its stretch does not speak against it."""
    return structure == "woven" and cloth.structure == "knit" and stretch is not Verdict.AGAINST


def knit_in_woven(cloth: Cloth, pattern: Pattern, label: str | None, tables: Tables) -> SizeAdvice | None:
    """The advice for one size (the middle one if none is named); None without finished measurements."""
    rule = tables.judging.ease
    known = [size for size in pattern.sizes if eases(size)]
    if not known:
        return None
    size: Size = next((each for each in known if each.label == label), known[len(known) // 2])
    ease = min(eases(size), key=lambda each: (each.place != "bust", each.place != "hip"))
    usable = cloth.stretch_cross.best * rule.usable_share
    by_stretch = ease.body_cm * usable / 100
    closer = max(0.0, min(ease.ease_cm - rule.least_ease_cm, by_stretch))
    step = _step(pattern, ease.place)
    sizes = min(int(closer / step + 1e-9), int(rule.most_sizes_down)) if step else 0
    labels = [each.label for each in pattern.sizes if each.band == size.band]
    at = labels.index(size.label)
    receipt = (
        f"Size {size.label}: {ease.place} {trim(ease.body_cm)} cm, finished {trim(ease.finished_cm)}: "
        f"ease {trim(ease.ease_cm)}.",
        f"Stretch {cloth.stretch_cross.best:.0f} %, of which {rule.usable_share * 100:.0f} % may be used up: "
        f"{trim(by_stretch)} cm of the body.",
        f"Whichever is less: {trim(closer)} cm closer"
        + (f", with {trim(step)} cm between sizes {sizes} of them." if step else "."),
    )
    down = labels[max(0, at - sizes)]
    return SizeAdvice(size.label, down, round(closer, 1), sizes, receipt)
