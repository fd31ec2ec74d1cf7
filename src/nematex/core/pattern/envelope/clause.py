"""What an envelope states, clause by clause: of which cloth, for which part and view, under which condition, how firmly."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, field
from typing import Any

from nematex.core.quantity.estimate import Range
from nematex.core.tables import HandWord

ASKED, EXAMPLE, ALSO, PRACTISED, OUT = "asked", "example", "also", "practised", "ruled out"
FIRM = (ASKED, EXAMPLE)  # what the pattern is drafted for; the others never set its structure


@dataclass(frozen=True, slots=True)
class Condition:
    """What is named holds only so far: `without` a detail, `lined`, for one `view`, `washed`, `heavy` or `light` enough,
    with `elastane` inside a span in %, or `other`, which nobody can check from here.
    """

    kind: str
    what: str
    words: str


@dataclass(slots=True)
class Clause:
    """One statement. `kind` says of what: cloth, structure, weight, hand, gsm, cross, length, both, elastane, fibre, print,
    sheer, natural, press, width or stretch; `value` is what is said of it. `role` is the part or layer, "" for the garment.
    """

    kind: str
    words: str
    standing: str = ASKED
    value: Any = None
    types: tuple[str, ...] = ()
    weight: str | None = None
    gsm: Range | None = None
    hand: HandWord | None = None
    structure: str = ""
    role: str = ""
    views: tuple[str, ...] = ()
    conditions: list[Condition] = field(default_factory=list)
    kind_of: bool = False  # of a structure: 'thin knits', not knits as such
    whole: bool = False  # every cloth of the group is meant, near the rest of the list or not
    start: int = 0
    end: int = 0

    @property
    def out(self) -> bool:
        return self.standing == OUT


def nouns(clauses: Iterable[Clause]) -> list[Clause]:
    """Those that name a cloth or a structure: what a condition, a part or a standing can speak of."""
    return [clause for clause in clauses if clause.kind in ("cloth", "structure")]


@dataclass(slots=True)
class Scope:
    """What holds for all that follows in a sentence, until something else is said."""

    standing: str = ASKED
    out: str = ""  # "word": to the next comma; "list": to the end of its part of the sentence
    role: str = ""
    views: tuple[str, ...] = ()
    structure: str = ""
    weight: str | None = None
    conditions: tuple[Condition, ...] = ()
    gives_up: bool = False  # 'swap the poplin for …': the next cloth is what is given up


@dataclass(frozen=True, slots=True)
class Heap:
    """A word of the text, by where it stands, and how it ended: `read`, `idle` (understood, without bearing) or `unread`."""

    kind: str
    start: int
    end: int
