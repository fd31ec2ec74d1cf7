"""What a list only states does not push out what was measured: the statement is kept as a reading and said."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from nematex.core.quantity.estimate import Known
from nematex.store.records import ClothRecord, ReadingRecord
from nematex.tables import readable
from nematex.usecases.cloth.readings import as_reading, how_known
from nematex.usecases.cloth.values import value_of, with_values

NOTHING = (None, "", ())


def respected(
    old: ClothRecord, merged: ClothRecord, list_known: dict[str, str], source: str
) -> tuple[ClothRecord, list[ReadingRecord]]:
    """The merged cloth with better-known old values kept, and the statements that were not put in force."""
    kept: dict[str, Any] = {}
    said = []
    for name, prop in readable().items():
        before, now = value_of(old, prop), value_of(merged, prop)
        if before in NOTHING or now in NOTHING or before == now:
            continue
        stated, held = how_known(name, list_known), how_known(name, old.facts.known)
        if Known.from_word(stated) >= Known.from_word(held):
            continue
        kept[name] = before
        number, word = as_reading(prop, now)
        said.append(ReadingRecord(0, name, number, word, stated, "price list", source, datetime.min))
    as_before = {name: how for name, how in old.facts.known.items() if name in kept}
    kept["known"] = dict(merged.facts.known) | as_before
    return with_values(merged, kept), said
