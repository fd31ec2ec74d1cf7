"""A sewing pattern as its envelope states it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

FITS = ("close", "semi", "loose", "free")
USES = ("main", "lining", "interfacing", "contrast", "underlining", "pocket bag")
LOOKS = ("structured", "balanced", "flowing")
SCHOOLS = ("list", "kin", "hand")  # only what is named suits; its kin as well; whatever handles like it
USUAL_SCHOOL = "kin"


@dataclass(frozen=True, slots=True)
class Part:
    """A part of the garment, how it sits (close, semi, loose, free of the body), with the details made on it."""

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
    use: str = "main"
    reckoned: bool = False  # between the first and the last size: the envelope does not say it


def same_view(one: str, other: str) -> bool:
    """'A' and 'A knee' are one view; 'A knee' and 'A midi' are not."""
    short, long = sorted((one.casefold(), other.casefold()), key=len)
    return short == long or long.startswith(f"{short} ")


def is_for_view(view: str | None, views: Sequence[str]) -> bool:
    """Whether what is kept for some views is for this one; what names no view is for all, and no view asks for all."""
    return not view or not views or any(same_view(view, each) for each in views)


@dataclass(frozen=True, slots=True)
class Option:
    """Something that views differ in and that can be mixed: a collar, a sleeve, ties. No views: every view has it."""

    name: str
    part: str = ""
    views: tuple[str, ...] = ()
    details: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class Size:
    """One size: body and finished garment measurements in cm; `band` is the envelope it is sold in."""

    label: str
    bust_cm: float | None = None
    waist_cm: float | None = None
    hip_cm: float | None = None
    band: str = ""
    cup: str = ""
    high_bust_cm: float | None = None
    finished_bust_cm: float | None = None
    finished_waist_cm: float | None = None
    finished_hip_cm: float | None = None


@dataclass(frozen=True, slots=True)
class EdgeFix:
    """An edge of a window as the shop set it for this pattern, and why. `window` is the window's name."""

    window: str
    side: str
    value: float
    reason: str
    by: str = ""
    on: str = ""


@dataclass(frozen=True, slots=True)
class ReadingFix:
    """What words of the envelope mean here; no cloths: nothing. Kept when the text changes."""

    words: str
    cloths: tuple[str, ...]
    reason: str
    by: str = ""
    on: str = ""


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
    options: tuple[Option, ...] = ()
    sizes: tuple[Size, ...] = ()
    notions: str = ""
    edge_fixes: tuple[EdgeFix, ...] = ()
    reading_fixes: tuple[ReadingFix, ...] = ()
    longer_cm: float = 0.0  # by changes to it; the table is of the pattern as it is

    @property
    def views(self) -> tuple[str, ...]:
        """The views, in the order of the cloth table and then of the options."""
        found = list(dict.fromkeys(row.view for row in self.requirements if row.use == "main"))
        for option in self.options:
            found += [view for view in option.views if not any(same_view(view, each) for each in found)]
        return tuple(found)

    @property
    def table_sizes(self) -> tuple[str, ...]:
        """The sizes of which the cloth table says what they take."""
        return tuple(dict.fromkeys(size for row in self.requirements for size in row.sizes))

    def usual_options(self, view: str | None) -> tuple[Option, ...]:
        """What a view has as it is drawn; without a view, everything that any view has."""
        return tuple(each for each in self.options if is_for_view(view, each.views))


@dataclass(frozen=True, slots=True)
class Wish:
    """What the presenter chose for this pairing."""

    view: str | None = None
    size: str | None = None
    part: str | None = None
    look: str = "balanced"
    school: str = USUAL_SCHOOL
    options: tuple[str, ...] | None = None  # names of the options made; None: as the view is drawn
    hacks: tuple[str, ...] = ()  # changes to the pattern, as they are written
