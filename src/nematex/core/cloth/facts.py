"""What is said of a cloth; the rows of data/properties.csv say how each value counts as known."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field

STRUCTURES = ("woven", "knit", "net")
SHEERNESS = ("opaque", "slightly sheer", "semi-sheer", "sheer")
DIRECTIONS = ("none", "all-over", "two-way", "one-way")


@dataclass(frozen=True, slots=True)
class Print:
    """The print: direction, motif scale and repeats in cm."""

    direction: str | None = None
    scale_cm: float | None = None
    repeat_length_cm: float | None = None
    repeat_width_cm: float | None = None


@dataclass(frozen=True)
class ClothFacts:
    """What somebody has said or measured about a cloth; None where nothing is known."""

    name: str = ""
    cloth: str | None = None
    fibres: str | None = None
    structure: str | None = None
    weight_gsm: float | None = None
    width_cm: float | None = None
    bending_length_cm: float | None = None
    hand: str | None = None
    stretch_cross_pct: float | None = None
    stretch_length_pct: float | None = None
    recovery_pct: float | None = None
    thickness_mm: float | None = None
    sheer: str | None = None
    nap: bool | None = None
    shrink_length_pct: float | None = None
    print: Print = field(default_factory=Print)
    drape_coefficient_pct: float | None = None
    deadstock: bool = False
    known: Mapping[str, str] = field(default_factory=dict)
