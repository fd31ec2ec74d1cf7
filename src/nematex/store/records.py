"""What the store gives and takes: plain values, free of the database library."""

from __future__ import annotations

from dataclasses import dataclass, field
from datetime import date
from decimal import Decimal
from typing import Any

from nematex.core.cloth import ClothFacts
from nematex.core.pattern import Pattern


@dataclass(frozen=True)
class ClothRecord:
    """A cloth on the shelf: its facts, and what the shop knows of it. Price per metre, stock in m."""

    code: str
    facts: ClothFacts
    price_per_m: Decimal | None = None
    currency: str = ""
    stock_m: float | None = None
    supplier: str = ""
    colours: tuple[str, ...] = ()
    print_kind: str = ""
    notes: str = ""
    id: int = 0


@dataclass(frozen=True)
class SizeRow:
    """One size of a pattern with its body measurements in cm."""

    label: str
    bust_cm: float | None = None
    waist_cm: float | None = None
    hip_cm: float | None = None


@dataclass(frozen=True)
class PatternRecord:
    """A pattern in the drawer: its envelope, its house, its sizes."""

    code: str
    facts: Pattern
    house: str = ""
    difficulty: str = ""
    season: str = ""
    sizes: tuple[SizeRow, ...] = ()
    notions: str = ""
    notes: str = ""
    id: int = 0


@dataclass(frozen=True)
class Pick:
    """One pairing of a programme, with the presenter's own line."""

    id: int
    cloth_id: int
    pattern_id: int
    line: str = ""
    view: str | None = None
    size: str | None = None
    look: str = "balanced"
    school: str = "hand"


@dataclass(frozen=True)
class Programme:
    """A named, dated list of picks in the order shown."""

    id: int
    name: str
    shown_on: date | None
    intro: str = ""
    picks: tuple[Pick, ...] = ()


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
