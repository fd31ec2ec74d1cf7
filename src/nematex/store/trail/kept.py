"""Which tables leave a trail, under which name, and of which larger record they are a part."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from nematex.store.models import (
    ClothRow,
    KitOfferRow,
    MakeRow,
    NoteEditRow,
    OverrideRow,
    PatternRow,
    PersonRow,
    PickRow,
    ProgrammeRow,
    PublicationRow,
    ReservationRow,
    RuleFixRow,
    SewAlongRow,
)


@dataclass(frozen=True)
class Kept:
    """A table whose changes are kept: its name on the trail, its number's column, the record it is a part of, and columns
    that say nothing of a change (counters) or must not be written down (secrets)."""

    kind: str
    table: Any
    number: str = "id"
    under: tuple[str, str] | None = None  # kind, column
    left_out: frozenset[str] = frozenset()


COUNTED = frozenset({"version", "changes", "name_key"})
SECRET = frozenset({"password_hash", "code_secret", "code_step", "spare_codes", "failures", "waits_until", "public_key"})
KEPT = (
    Kept("cloth", ClothRow),
    Kept("pattern", PatternRow),
    Kept("programme", ProgrammeRow, left_out=frozenset({"proposal"})),
    Kept("pick", PickRow, under=("programme", "programme_id")),
    Kept("note", NoteEditRow, number="programme_id", under=("programme", "programme_id")),
    Kept("publication", PublicationRow, under=("programme", "programme_id")),
    Kept("hand verdict", OverrideRow, under=("pattern", "pattern_id")),
    Kept("rule", RuleFixRow),
    Kept("sew-along", SewAlongRow),
    Kept("kit", KitOfferRow),
    Kept("make", MakeRow),
    Kept("cloth held back", ReservationRow, under=("cloth", "cloth_id")),
    Kept("person", PersonRow),
)
HIDDEN = COUNTED | SECRET
