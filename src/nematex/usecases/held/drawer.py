"""One state of the drawer of patterns, with each envelope read; the next one is made from it."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from typing import TypeVar

from propcache.api import cached_property

from nematex.core.cloth.lexicon import key
from nematex.core.judging.demand import Demand, demand, read_pattern
from nematex.core.pattern.envelope import Interpretation
from nematex.core.pattern.facts import Pattern, Wish
from nematex.core.tables import Tables
from nematex.store.records import PatternRecord

T = TypeVar("T")

HELD_DEMANDS = 3000  # of patterns by wishes; the least lately made go first
CANNOT_BE_READ = "the envelope's text cannot be read; correct it in the form"


def _order(record: PatternRecord) -> tuple[str, int]:
    return record.facts.name.casefold(), record.id


def _read(record: PatternRecord, tables: Tables) -> tuple[Interpretation, bool]:
    """An envelope read apart from all others; False with an empty reading where it cannot be."""
    try:
        return read_pattern(record.facts, tables), True
    except Exception:  # whatever stands in one envelope, the rest of the drawer opens
        return Interpretation(unread=[CANNOT_BE_READ]), False


@dataclass(frozen=True)
class Drawer:
    """The patterns by name. `version` is the last change that is in it; `unreadable` are ids."""

    version: int
    records: list[PatternRecord]
    tables: Tables
    interpretations: Mapping[int, Interpretation]
    unreadable: frozenset[int] = frozenset()
    _demands: dict[tuple[int, Wish], tuple[Pattern, Demand]] = field(default_factory=dict)

    @classmethod
    def of(cls, version: int, records: Sequence[PatternRecord], tables: Tables) -> Drawer:
        """A drawer read from nothing."""
        read = {record.id: _read(record, tables) for record in records}
        unreadable = frozenset(pattern_id for pattern_id, (_, well) in read.items() if not well)
        readings = {pattern_id: reading for pattern_id, (reading, _) in read.items()}
        return cls(version, sorted(records, key=_order), tables, readings, unreadable)

    def renewed(self, version: int, changed: Sequence[PatternRecord], gone: set[int]) -> Drawer:
        """The next state: changed envelopes are read anew, the rest is taken over."""
        fresh = Drawer.of(version, changed, self.tables)
        moved = gone | set(fresh.by_id)
        kept = [record for record in self.records if record.id not in moved]
        return Drawer(
            version,
            sorted(kept + fresh.records, key=_order),
            self.tables,
            {**{each: reading for each, reading in self.interpretations.items() if each not in moved}, **fresh.interpretations},
            (self.unreadable - moved) | fresh.unreadable,
            {asked: made for asked, made in list(self._demands.items()) if asked[0] not in moved},
        )

    @cached_property
    def by_id(self) -> dict[int, PatternRecord]:
        return {record.id: record for record in self.records}

    @cached_property
    def place(self) -> dict[int, int]:
        """Pattern id → position."""
        return {record.id: place for place, record in enumerate(self.records)}

    def demand(self, record: PatternRecord, wish: Wish) -> Demand:
        """What a pattern of this drawer demands for a wish; raises FieldFault."""
        asked = (record.id, wish)
        made = self._demands.get(asked)
        if made is None or made[0] is not record.facts:
            made = record.facts, demand(record.facts, wish, self.tables, self.interpretations[record.id])
            while len(self._demands) >= HELD_DEMANDS:
                self._demands.pop(next(iter(self._demands)), None)
            self._demands[asked] = made
        return made[1]

    def demands(self, wish: Wish, records: Sequence[PatternRecord] | None = None) -> list[Callable[[], Demand]]:
        """The demand of each of these patterns, or of all, made when it is called for."""
        asked = self.records if records is None else records
        return [lambda record=record: self.demand(record, wish) for record in asked]  # type: ignore[misc]

    def holding(self, words: str) -> list[PatternRecord]:
        """The patterns that hold all of these words: the one search of the drawer."""
        asked = key(words).split()
        if not asked:
            return list(self.records)
        return [record for record in self.records if all(word in _search_key(record) for word in asked)]


def spread(every: Sequence[T], most: int) -> Sequence[T]:
    """At most so many of these, evenly spread over them: for what is tried while somebody waits."""
    return every if len(every) <= most else [every[place * len(every) // most] for place in range(most)]


def _search_key(record: PatternRecord) -> str:
    return key(f"{record.facts.name} {record.facts.garment} {record.house} {record.code}")
