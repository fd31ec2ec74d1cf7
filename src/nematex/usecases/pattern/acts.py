"""A pattern of the drawer: saved from its form, and taken out."""

from __future__ import annotations

from collections.abc import Mapping

from nematex.store.pattern.patterns import id_of_code, remove_pattern, save_patterns
from nematex.store.records import PatternRecord
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State
from nematex.usecases.pattern.form import record_from_form


def save_pattern(shop: Shop, state: State, values: Mapping[str, str], old: PatternRecord | None) -> int:
    """Save what the form says; returns the pattern's number. Raises FieldFault."""
    record = record_from_form(values, old, {each.code.casefold() for each in state.drawer.records}, state.tables)
    with shop.database.work() as work:
        save_patterns(work, [record])
        return id_of_code(work, record.code)


def take_out(shop: Shop, pattern_id: int) -> None:
    with shop.database.work() as work:
        remove_pattern(work, pattern_id)
