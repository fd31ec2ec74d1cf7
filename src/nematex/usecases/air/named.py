"""A cloth or a pattern by the name or code that somebody typed."""

from __future__ import annotations

from collections.abc import Sequence
from difflib import get_close_matches
from typing import TypeVar

from nematex.core.errors import FieldFault
from nematex.store.records import ClothRecord, PatternRecord

Record = TypeVar("Record", ClothRecord, PatternRecord)


def named(text: str, field: str, records: Sequence[Record]) -> Record:
    """The record of this name or code; raises FieldFault with the nearest."""
    wanted = text.strip().casefold()
    for each in records:
        if wanted and wanted in (each.facts.name.casefold(), each.code.casefold()):
            return each
    near = get_close_matches(text.strip()[:60], [each.facts.name for each in records], n=3, cutoff=0.4)
    rule = "is none of the shop" if wanted else "is missing"
    raise FieldFault(field, text.strip()[:60], rule + (f"; the nearest are: {', '.join(near)}" if near else ""))
