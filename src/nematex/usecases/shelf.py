"""The shelf in memory: all cloths with their columns, read again when the store's version moves."""

from __future__ import annotations

import gc
import threading
from dataclasses import dataclass
from functools import cached_property
from typing import Any

import numpy as np

from nematex.core.cloth import Cloth, known_cloth
from nematex.core.columns import ClothColumns, columns
from nematex.core.corrected import Correction, corrected
from nematex.core.demand import read_pattern
from nematex.core.envelope import Reading
from nematex.core.lexicon import key
from nematex.core.tables import Tables
from nematex.core.verdict import Floats
from nematex.store import cloths as cloth_store
from nematex.store import patterns as pattern_store
from nematex.store.database import Database, Work
from nematex.store.records import ClothRecord, PatternRecord
from nematex.store.rule_fixes import RULES_VERSION, rule_fixes
from nematex.store.settings import settings
from nematex.tables import trade_tables
from nematex.usecases.shelf_columns import ShelfColumns, shelf_columns

PREVIEWS = 3
LARGE = 1000  # cloths


@dataclass(frozen=True)
class Shelf:
    """One state of the shelf; position n is the same cloth in records, cloths and columns."""

    version: str
    records: list[ClothRecord]
    tables: Tables
    before: Shelf | None = None  # the state it came from: cloths that did not change are taken over

    @cached_property
    def cloths(self) -> list[Cloth]:
        tables = self.tables
        before, old = self.before, {}
        if before and before.tables is tables:
            old = {record.id: (record.facts, cloth) for record, cloth in zip(before.records, before.cloths, strict=True)}
        object.__setattr__(self, "before", None)  # or every earlier state of the shelf would be kept alive
        return [
            found[1] if (found := old.get(record.id)) and found[0] == record.facts else known_cloth(record.facts, tables)
            for record in self.records
        ]

    @cached_property
    def columns(self) -> ClothColumns:
        return columns(self.cloths, self.tables)

    @cached_property
    def filed(self) -> ShelfColumns:
        """What the filters look at."""
        return shelf_columns(self.records, self.cloths)

    @cached_property
    def stock_m(self) -> Floats:
        """Metres in stock, 0 where not known."""
        return np.array([record.stock_m or 0.0 for record in self.records], dtype=np.float64)

    @cached_property
    def place(self) -> dict[int, int]:
        """Cloth id → position."""
        return {record.id: at for at, record in enumerate(self.records)}

    @cached_property
    def search_keys(self) -> list[str]:
        """What a search looks through, in one folded line per cloth."""
        return [
            key(f"{record.code} {cloth.name} {record.facts.cloth or ''} {record.facts.fibres or ''} {record.supplier}"
                f" {cloth.type.name if cloth.type else ''}")
            for record, cloth in zip(self.records, self.cloths, strict=True)
        ]  # fmt: skip


@dataclass(frozen=True)
class Drawer:
    """One state of the patterns, with their envelopes read by the shop's tables."""

    version: str
    records: list[PatternRecord]
    tables: Tables

    @cached_property
    def by_id(self) -> dict[int, PatternRecord]:
        return {record.id: record for record in self.records}

    @cached_property
    def readings(self) -> dict[int, Reading]:
        return {record.id: read_pattern(record.facts, self.tables) for record in self.records}


def _settle(shelf: Shelf) -> None:
    """Take a large shelf out of the garbage collector's rounds, which would walk all of it while pages wait."""
    if len(shelf.records) >= LARGE and shelf.columns:
        gc.collect()
        gc.freeze()


class Shop:
    """The database with what is remembered of it. Safe to use from several threads."""

    def __init__(self, database: Database) -> None:
        self.database = database
        self._lock = threading.Lock()
        self._shelf: Shelf | None = None
        self._drawer: Drawer | None = None
        self._rules: tuple[str, Tables] = ("0", trade_tables())
        self.previews: dict[object, Any] = {}  # the last few price lists as they were understood
        self._remembered: dict[str, tuple[tuple[object, ...], object]] = {}
        self._jobs: dict[int | str, tuple[int, int]] = {}

    def remember_preview(self, key: object, found: object) -> None:
        with self._lock:
            while len(self.previews) >= PREVIEWS:
                self.previews.pop(next(iter(self.previews)))
            self.previews[key] = found

    def remembered(self, state: tuple[object, ...]) -> object:
        """What was worked out for this state of the shop, (name, versions …); None if it has moved since."""
        held = self._remembered.get(str(state[0]))
        return held[1] if held and held[0] == state else None

    def remember(self, state: tuple[object, ...], found: object) -> None:
        self._remembered[str(state[0])] = (state, found)

    def claim_job(self, number: int | str) -> bool:
        """Whether a background job of this number may start: one at a time."""
        with self._lock:
            if number in self._jobs:
                return False
            self._jobs[number] = (0, 0)
            return True

    def progress(self, number: int | str, done: int, total: int) -> None:
        self._jobs[number] = (done, total)

    def release_job(self, number: int | str) -> None:
        with self._lock:
            self._jobs.pop(number, None)

    def job(self, number: int | str) -> tuple[int, int] | None:
        """How far a running job is: (done, total); None if it does not run here."""
        return self._jobs.get(number)

    def settings(self) -> dict[str, str]:
        with self.database.work() as work:
            return settings(work)

    def _tables(self, work: Work, version: str) -> Tables:
        """The trade's tables with what this shop has set in them; call it with the lock held."""
        if self._rules[0] != version:
            fixes = [Correction(fix.place, fix.row, fix.field, fix.value) for fix in rule_fixes(work)]
            self._rules = (version, corrected(trade_tables(), fixes))
        return self._rules[1]

    def tables(self) -> Tables:
        """The tables in force."""
        return self.drawer().tables

    def shelf(self) -> Shelf:
        """The shelf as it is now."""
        with self.database.work() as work:
            now = settings(work)
            rules = now.get(RULES_VERSION, "0")
            version = f"{now.get(cloth_store.SHELF_VERSION, '0')}.{rules}"
            if self._shelf and self._shelf.version == version:
                return self._shelf
            with self._lock:
                if self._shelf is None or self._shelf.version != version:
                    self._shelf = Shelf(version, cloth_store.all_cloths(work), self._tables(work, rules), self._shelf)
                    _settle(self._shelf)
                return self._shelf

    def drawer(self) -> Drawer:
        """The patterns as they are now."""
        with self.database.work() as work:
            now = settings(work)
            rules = now.get(RULES_VERSION, "0")
            version = f"{now.get(pattern_store.DRAWER_VERSION, '0')}.{rules}"
            if self._drawer and self._drawer.version == version:
                return self._drawer
            with self._lock:
                if self._drawer is None or self._drawer.version != version:
                    self._drawer = Drawer(version, pattern_store.all_patterns(work), self._tables(work, rules))
                return self._drawer
