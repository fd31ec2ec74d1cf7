"""What a list only states does not push out what was measured: the statement is kept as a reading and said."""

from __future__ import annotations

from dataclasses import replace
from datetime import datetime

from nematex.core.cloth.facts import HOW_KNOWN
from nematex.core.quantity.estimate import Known
from nematex.store.records import ClothRecord, ReadingRecord
from nematex.tables import properties
from nematex.usecases.cloth.readings import how_known


def respected(
    old: ClothRecord, merged: ClothRecord, list_known: dict[str, str], source: str
) -> tuple[ClothRecord, list[ReadingRecord]]:
    """The merged cloth with better-known old values kept, and the statements that were not put in force."""
    kept, said = {}, []
    for name in HOW_KNOWN:
        before, now = getattr(old.facts, name), getattr(merged.facts, name)
        if before is None or now is None or before == now:
            continue
        stated, held = how_known(name, list_known), how_known(name, old.facts.known)
        if Known.from_word(stated) >= Known.from_word(held):
            continue
        kept[name] = before
        number, word = (float(now), None) if properties()[name].kind == "number" else (None, str(now))
        said.append(ReadingRecord(0, name, number, word, stated, "price list", source, datetime.min))
    return replace(merged, facts=replace(merged.facts, **kept)), said
