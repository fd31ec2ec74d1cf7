"""The shop: its database, the state that is in hand, and what was worked out for it."""

from __future__ import annotations

import gc
import threading
from collections.abc import Mapping
from typing import Any

from nematex.core.judging.corrected import Correction, corrected
from nematex.core.tables import Tables
from nematex.store.cloth.cloths import cloths_gone_since, cloths_since
from nematex.store.cloth.readings import spans
from nematex.store.database import Database, Work
from nematex.store.judging.rule_fixes import rule_fixes
from nematex.store.pattern.patterns import patterns_gone_since, patterns_since
from nematex.store.programme.programmes import all_programmes
from nematex.store.settings import settings
from nematex.store.versions import DRAWER, PROGRAMMES, RULES, SHELF
from nematex.tables import trade_tables
from nematex.usecases.held.cut import as_cut
from nematex.usecases.held.drawer import Drawer
from nematex.usecases.held.memory import Memory
from nematex.usecases.held.shelf import Shelf
from nematex.usecases.held.state import State
from nematex.usecases.held.stored_choices import as_shown
from nematex.usecases.jobs.asking import Enqueue

PREVIEWS, JUDGEMENTS = 3, 400
LARGE = 1000  # cloths
MANY = 2000  # cloths read at once


class Shop:
    """The database with what is remembered of it. Safe to use from several threads.

    `enqueue` hands jobs to the worker.
    """

    def __init__(self, database: Database, enqueue: Enqueue | None = None) -> None:
        self.database = database
        self.enqueue: Enqueue = enqueue or _nobody
        self.memory = Memory()
        self.judgements = Memory(JUDGEMENTS)  # of one cloth each; they are heavier than what is said of them
        self.previews: dict[object, Any] = {}  # the last few price lists as they were understood
        self.large = threading.RLock()  # whoever works out what takes much memory holds it
        self._lock = threading.Lock()
        self._state: State | None = None
        self.as_shipped = trade_tables()
        self._rules: tuple[int, str, Tables] = (0, "", self.as_shipped)

    def now(self) -> State:
        """The shop as it is: the state in hand where nothing has changed, else the next one made from it."""
        with self.database.work() as work:
            found = settings(work)
        state = self._state
        if state and found == state.settings:
            return state
        with self._lock, self.database.snapshot(found) as work:
            self._state = self._renewed(work, settings(work))
            return self._state

    def _renewed(self, work: Work, found: Mapping[str, str]) -> State:
        before, tables = self._state, self._tables(work, int(found.get(RULES, 0)), found.get("cut", ""))
        shelf = self._shelf(work, int(found.get(SHELF, 0)), tables, before.shelf if before else None)
        drawer = self._drawer(work, int(found.get(DRAWER, 0)), tables, before.drawer if before else None)
        number = int(found.get(PROGRAMMES, 0))
        seen = (number, drawer.version, id(tables))
        alike = before and (before.programmes_version, before.drawer.version, id(before.tables)) == seen
        # Picks go with a cloth or a pattern that is taken away, and come back with it.
        if before and alike and before.shelf.place.keys() == shelf.place.keys():
            programmes = before.programmes
        else:
            programmes = tuple(as_shown(each, drawer, tables) for each in all_programmes(work))
        return State(found, tables, shelf, drawer, programmes, number)

    def _tables(self, work: Work, version: int, cut: str) -> Tables:
        """The trade's tables with what this shop has set in them, and how it cuts."""
        if self._rules[:2] != (version, cut):
            fixes = [Correction(fix.place, fix.row, fix.field, fix.value) for fix in rule_fixes(work)]
            self._rules = (version, cut, as_cut(corrected(self.as_shipped, fixes), cut))
        return self._rules[2]

    def _shelf(self, work: Work, version: int, tables: Tables, before: Shelf | None) -> Shelf:
        made, read = before, 0
        if made is None or made.version != version:
            changed = cloths_since(work, made.version if made else None)
            read = len(changed)
            found = spans(work, [record.id for record in changed] if read <= MANY else None)
            if made is None:
                made = Shelf.of(version, changed, tables, found)
            else:
                made = made.renewed(version, changed, cloths_gone_since(work, made.version), found)
        if made.tables is not tables:
            made, read = made.by_other_tables(tables), len(made.records)
        if read > MANY:
            _settle(made)
        return made

    def _drawer(self, work: Work, version: int, tables: Tables, before: Drawer | None) -> Drawer:
        made = before
        if made is None or made.version != version:
            changed = patterns_since(work, made.version if made else None)
            if made is None:
                return Drawer.of(version, changed, tables)
            made = made.renewed(version, changed, patterns_gone_since(work, made.version))
        return made if made.tables is tables else Drawer.of(version, made.records, tables)

    def remember_preview(self, key: object, found: object) -> None:
        with self._lock:
            while len(self.previews) >= PREVIEWS:
                self.previews.pop(next(iter(self.previews)))
            self.previews[key] = found


def _nobody(_kind: str, _job_id: int) -> None:
    """The job waits in its row until a worker starts."""


def _settle(shelf: Shelf) -> None:
    """Take a large shelf out of the garbage collector's rounds, which would walk all of it while pages wait."""
    if len(shelf.records) >= LARGE and shelf.columns:
        gc.collect()
        gc.freeze()
