"""What a measurement changes: the pairings whose verdict moves, before and after."""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from nematex.core.cloth.columns import columns
from nematex.core.cloth.estimates import placed_cloth
from nematex.core.judging.matrix import matrix
from nematex.core.judging.verdict import Verdict
from nematex.core.pattern.facts import Wish
from nematex.core.quantity.estimate import Known
from nematex.store.records import ClothRecord, PatternRecord, ReadingRecord
from nematex.tables import readable
from nematex.usecases.cloth.readings import how_known
from nematex.usecases.cloth.values import value_of, with_values
from nematex.usecases.held.drawer import Drawer, spread

MOST_TRIED = 500  # patterns, while somebody waits for the page


@dataclass(frozen=True)
class Move:
    """One pairing whose verdict moves."""

    pattern: PatternRecord
    before: str
    after: str


@dataclass(frozen=True)
class Moves:
    """All moves, how many pairings of each verdict there are before and after, and of how many patterns these are."""

    moved: list[Move]
    before: dict[str, int]
    after: dict[str, int]
    tried: int


def with_readings(record: ClothRecord, readings: Sequence[ReadingRecord]) -> ClothRecord:
    """The cloth as it would be with these readings, where they would be in force."""
    values: dict[str, Any] = {}
    known = dict(record.facts.known)
    for reading in readings:
        held = value_of(record, readable()[reading.property])
        how = how_known(reading.property, record.facts.known)
        if held not in (None, "", ()) and Known.from_word(reading.known) < Known.from_word(how):
            continue
        values[reading.property] = reading.word if reading.number is None else reading.number
        known[reading.property] = reading.known
    return with_values(record, {**values, "known": known})


def moves(drawer: Drawer, record: ClothRecord, readings: Sequence[ReadingRecord]) -> Moves:
    """The patterns judged with the cloth as it is and as it would be; of a large drawer a part, evenly spread."""
    tables, tried = drawer.tables, spread(drawer.records, MOST_TRIED)
    pair = columns([placed_cloth(each.facts, tables) for each in (record, with_readings(record, readings))], tables)
    judged = matrix(pair, drawer.demands(Wish(), tried), tables)
    moved, before, after = [], Counter[str](), Counter[str]()
    for pattern, codes in zip(tried, judged.verdict, strict=True):
        old, new = (Verdict(int(each)).word for each in codes)
        before[old] += 1
        after[new] += 1
        if old != new:
            moved.append(Move(pattern, old, new))
    words = [each.word for each in reversed(Verdict)]
    return Moves(moved, {word: before[word] for word in words}, {word: after[word] for word in words}, len(tried))
