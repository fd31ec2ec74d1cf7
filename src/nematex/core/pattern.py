"""A sewing pattern as its envelope states it."""

from __future__ import annotations

from dataclasses import dataclass

LOOKS = ("structured", "balanced", "flowing")
SCHOOLS = ("list", "hand")


@dataclass(frozen=True, slots=True)
class Part:
    """A part of the garment, close to or free of the body, with the details made on it."""

    name: str
    fit: str = "close"
    details: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class Requirement:
    """One row of the cloth requirement table: length in m at a width in cm for some sizes of a view."""

    view: str
    sizes: tuple[str, ...]
    width_cm: float
    length_m: float
    with_nap: bool = False


@dataclass(frozen=True)
class Pattern:
    """Envelope facts; None or empty where the envelope says nothing."""

    name: str = ""
    garment: str = ""
    structure: str | None = None
    recommended: str = ""
    avoid: str = ""
    min_stretch_cross_pct: float | None = None
    min_stretch_length_pct: float | None = None
    details: tuple[str, ...] = ()
    parts: tuple[Part, ...] = ()
    lined: bool = False
    nightwear: bool = False
    wearer: str = "adult"
    widest_piece_cm: float | None = None
    requirements: tuple[Requirement, ...] = ()


@dataclass(frozen=True, slots=True)
class Wish:
    """What the presenter chose for this pairing."""

    view: str | None = None
    size: str | None = None
    part: str | None = None
    look: str = "balanced"
    school: str = "hand"
