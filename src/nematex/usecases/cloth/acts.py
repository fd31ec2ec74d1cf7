"""A cloth of the shelf: saved from its form, taken off, and its readings; and the filters that are kept."""

from __future__ import annotations

from collections.abc import Mapping

from nematex.core.cloth.readings import in_force
from nematex.core.errors import FieldFault
from nematex.store.cloth import filters
from nematex.store.cloth.cloths import ids_by_code, remove_cloths
from nematex.store.cloth.readings import readings_of
from nematex.store.records import ClothRecord, ReadingRecord
from nematex.tables import readable
from nematex.usecases.cloth.form import record_from_form
from nematex.usecases.cloth.readings import keep_cloths, keep_readings
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State

NAME_LETTERS, QUERY_LETTERS = 80, 1000


def save_cloth(shop: Shop, state: State, values: Mapping[str, str], old: ClothRecord | None) -> int:
    """Save what the form says; returns the cloth's number. Raises FieldFault."""
    codes = {record.code.casefold() for record in state.shelf.records}
    record = record_from_form(values, old, codes, state.tables)
    with shop.database.work() as work:
        keep_cloths(work, [record], {old.code.casefold(): old} if old else {}, "the shop", "typed")
        return ids_by_code(work, [record.code])[record.code.casefold()]


def remove_cloth(shop: Shop, cloth_id: int) -> None:
    with shop.database.work() as work:
        remove_cloths(work, [cloth_id])


def keep_measurement(shop: Shop, record: ClothRecord, readings: list[ReadingRecord]) -> None:
    """Add readings to a cloth and bring the values in force up to date."""
    with shop.database.work() as work:
        keep_readings(work, record, readings)


def readings_by_property(shop: Shop, cloth_id: int) -> dict[str, list[ReadingRecord]]:
    """Every reading of a cloth, the newest first, under its property in the order of the table."""
    with shop.database.work() as work:
        found = readings_of(work, cloth_id)
    by_property: dict[str, list[ReadingRecord]] = {name: [] for name in readable()}
    for reading in found:
        if reading.property in by_property:  # one of an earlier version's properties is kept and not shown
            by_property[reading.property].append(reading)
    return {name: readings for name, readings in by_property.items() if readings}


def readings_in_force(shop: Shop, cloth_id: int) -> dict[str, tuple[ReadingRecord, int]]:
    """Property → the reading in force and how many there are."""
    every = readings_by_property(shop, cloth_id)
    return {name: (best, len(readings)) for name, readings in every.items() if (best := in_force(readings))}


def saved_filters(shop: Shop) -> list[tuple[int, str, str]]:
    """The kept filters of the shelf: number, name, address."""
    with shop.database.work() as work:
        return filters.saved_filters(work)


def keep_filter(shop: Shop, name: str, query: str) -> None:
    """Keep a filter under a name; raises FieldFault."""
    called = name.strip()[:NAME_LETTERS]
    if not called:
        raise FieldFault("name of the filter", "", "is missing; call it something you will know again")
    with shop.database.work() as work:
        filters.save_filter(work, called, query[:QUERY_LETTERS])


def drop_filter(shop: Shop, filter_id: int) -> None:
    with shop.database.work() as work:
        filters.remove_filter(work, filter_id)
