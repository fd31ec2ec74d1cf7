"""What the store gives and takes: plain values, free of the database library."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import date, datetime
from decimal import Decimal
from typing import Any

from nematex.core.cloth.facts import ClothFacts
from nematex.core.pattern.facts import USUAL_SCHOOL, Pattern


@dataclass(frozen=True, slots=True)
class Colourway:
    """One colouring of a cloth: its name, sRGB hex colours (ground first), stock in m, photo."""

    name: str
    colours: tuple[str, ...] = ()
    stock_m: float | None = None
    photo_id: int | None = None
    sheer: str = ""  # where it shows more or less than the others: a light ground, a dark one


@dataclass(frozen=True, slots=True)
class Bolt:
    """One piece of cloth on its roll: length in m, and of which colourway."""

    length_m: float
    colourway: str = ""


@dataclass(frozen=True)
class ClothRecord:
    """A cloth on the shelf: its facts, and what the shop knows of it. Prices per metre, stock in m."""

    code: str
    facts: ClothFacts
    price_per_m: Decimal | None = None
    currency: str = ""
    stock_m: float | None = None
    supplier: str = ""
    colours: tuple[str, ...] = ()
    print_kind: str = ""
    notes: str = ""
    weave: str = ""
    width_full_cm: float | None = None
    bend_along_cm: float | None = None
    bend_across_cm: float | None = None
    shrink_width_pct: float | None = None
    fray: str = ""
    crease: str = ""
    press: str = ""
    care: str = ""
    season: str = ""
    vat: str = ""
    sale_price_per_m: Decimal | None = None
    cut_step_cm: float | None = None
    least_cut_cm: float | None = None
    maker_secret: bool = False
    arrived: date | None = None
    follow_print: bool | None = None
    placement: str = ""
    colourways: tuple[Colourway, ...] = ()
    bolts: tuple[Bolt, ...] = ()
    photo_id: int | None = None
    stretch_unsaid: bool = False
    more: Mapping[str, Any] = field(default_factory=dict)  # properties without a field of their own
    id: int = 0
    version: int = field(default=0, compare=False)  # the number of its last change
    binned: bool = field(default=False, compare=False)

    @property
    def sale_until(self) -> date | None:
        """The last day of its sale; None where no end is known."""
        try:
            return date.fromisoformat(str(self.more.get("sale_until") or ""))
        except ValueError:
            return None

    def on_sale(self, today: date) -> bool:
        """Whether its sale price holds on a day: it has one, and its end is not past."""
        until = self.sale_until
        return self.sale_price_per_m is not None and (until is None or today <= until)

    def price_on(self, today: date) -> Decimal | None:
        """What a metre costs on a day; None where no price is known."""
        return self.sale_price_per_m if self.on_sale(today) else self.price_per_m


@dataclass(frozen=True)
class ReadingRecord:
    """One reading of one property of a cloth; a number in the property's unit, or a word. Never erased."""

    cloth_id: int
    property: str
    number: float | None
    word: str | None
    known: str
    by_whom: str
    instrument: str
    taken_at: datetime
    spread: float | None = None
    repeats: tuple[float, ...] = ()
    note: str = ""
    upload_id: int | None = None
    id: int = 0


@dataclass(frozen=True)
class Photo:
    """A photo that is kept: re-encoded, with its scale in px per cm and what was read from it."""

    id: int
    cloth_id: int
    kind: str
    content: bytes
    px_per_cm: float
    found: dict[str, Any] = field(default_factory=dict)


@dataclass(frozen=True)
class PatternRecord:
    """A pattern in the drawer: its envelope, its house, how it is sold, and the envelope's text as it was pasted."""

    code: str
    facts: Pattern
    house: str = ""
    difficulty: str = ""
    season: str = ""
    notes: str = ""
    sold_as: str = ""
    licence: str = ""
    link: str = ""
    envelope: str = ""
    id: int = 0
    version: int = field(default=0, compare=False)  # the number of its last change


@dataclass(frozen=True)
class RuleFix:
    """A number of the tables as the shop has set it; `place` is the table, `was` what it shipped with."""

    place: str
    row: str
    field: str
    value: float
    was: float
    reason: str
    by_whom: str = ""
    set_at: datetime | None = None
    id: int = 0


@dataclass(frozen=True)
class Override:
    """What hands decided of a pairing (or found when it was made up), and what the rules said then."""

    cloth_id: int
    pattern_id: int
    verdict: str
    rules: str
    reason: str
    check: str = ""
    window: str = ""
    part: str = ""
    by_whom: str = ""
    made: bool = False
    set_at: datetime | None = None
    id: int = 0


@dataclass(frozen=True)
class Pick:
    """One pairing of a programme, with the presenter's own line.

    `part` is the part of the garment that the cloth is for; `with_before`: it stands as one with the pick before it, as a
    garment in several cloths or one cloth for several patterns.
    """

    id: int
    cloth_id: int
    pattern_id: int
    line: str = ""
    view: str | None = None
    size: str | None = None
    look: str = "balanced"
    school: str = USUAL_SCHOOL
    options: tuple[str, ...] | None = None
    other_size: str | None = None
    part: str | None = None
    with_before: bool = False
    hacks: tuple[str, ...] = ()
    instead_of: int | None = None
    proposed: bool = False  # by the program, and not yet taken up by anybody
    why: tuple[str, ...] = ()
    question: str = ""


@dataclass(frozen=True)
class Programme:
    """A named, dated list of picks in the order shown. `brief` as it was typed.

    `waiting`: of a pick's number those that wait behind it; `refused`: pairings (cloth, pattern) not to be proposed again.
    """

    id: int
    name: str
    shown_on: date | None
    intro: str = ""
    picks: tuple[Pick, ...] = ()
    brief: Mapping[str, str] = field(default_factory=dict)
    waiting: Mapping[int, tuple[Pick, ...]] = field(default_factory=dict)
    refused: frozenset[tuple[int, int]] = frozenset()
    proposal: Mapping[str, Any] | None = None  # the job that proposed last, and what it said
    public_key: str | None = None  # of its public look-book; None: it has none
    lost: Mapping[int, tuple[str, ...]] = field(default_factory=dict)  # pick → what was chosen and is gone


@dataclass(frozen=True, slots=True)
class Binned:
    """Something that was taken away, and how much hangs on it by kind: {"picks": 2, "readings": 14}."""

    kind: str
    id: int
    name: str
    binned_at: datetime
    hanging: Mapping[str, int] = field(default_factory=dict)


@dataclass(frozen=True)
class Reservation:
    """A length in m taken out of a cloth's stock for a purpose."""

    id: int
    cloth_id: int
    length_m: float
    why: str
    made_at: datetime


@dataclass(frozen=True)
class Job:
    """A job outside the web process: what was asked, how far it is, what it found. `asked` and `found` are JSON."""

    id: int
    kind: str
    asked: str
    about: dict[str, Any]
    state: str
    done: int
    total: int
    found: str
    message: str
    tries: int
    made_at: datetime

    @property
    def runs(self) -> bool:
        """Whether it waits or is worked on."""
        return self.state in ("waiting", "running", "stopping")


@dataclass(frozen=True)
class Upload:
    """A price list that was sent and waits to be applied."""

    id: int
    kind: str
    filename: str
    content: bytes
    mapping: dict[str, Any] = field(default_factory=dict)
    supplier: str = ""
    applied: bool = False
    state: str = ""
    message: str = ""
    job_id: int | None = None
    sent_at: datetime | None = None
