"""A pattern of the drawer: saved from its form, and taken out."""

from __future__ import annotations

from collections.abc import Callable, Mapping

from nematex.core.codes import code_key
from nematex.core.errors import FieldFault
from nematex.store.pattern import patterns as store
from nematex.store.records import PatternRecord
from nematex.usecases.forms.merging import merged
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State
from nematex.usecases.pattern.form import FIELDS, form_values, label_of, record_from_form

BINNED = "is in the bin: put it back first, then save again"


def save_pattern(shop: Shop, state: State, given: Mapping[str, str], pattern_id: int | None) -> int:
    """Save what the form says, on the pattern as it is now; returns its number. Raises FieldFault, Clashing."""
    with shop.database.work() as work:
        store.announce_change(work)
        if pattern_id is None:
            record = record_from_form(given, None, state.tables)
            if code_key(record.code) in store.ids_of_patterns(work):
                raise FieldFault("Code", record.code, "is in the drawer or in the bin already; choose another")
        else:
            old = store.pattern(work, pattern_id)
            if old is None:
                raise FieldFault("pattern", given.get("name", ""), BINNED)
            record = record_from_form(merged(given, form_values(old), FIELDS, label_of), old, state.tables)
        store.save_patterns(work, [record])
        return store.ids_of_patterns(work)[code_key(record.code)]


def change_pattern(shop: Shop, pattern_id: int, change: Callable[[PatternRecord], PatternRecord]) -> None:
    """Change a pattern as it is now, not as a page knew it; raises FieldFault."""
    with shop.database.work() as work:
        store.announce_change(work)
        record = store.pattern(work, pattern_id)
        if record is None:
            raise FieldFault("pattern", str(pattern_id), BINNED)
        store.save_patterns(work, [change(record)])


def take_out(shop: Shop, pattern_id: int) -> None:
    """Take a pattern out of the drawer, into the bin."""
    with shop.database.work() as work:
        store.bin_pattern(work, pattern_id)
