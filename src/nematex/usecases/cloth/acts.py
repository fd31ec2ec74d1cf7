"""A cloth of the shelf: saved from its form, taken off into the bin, and its readings; and the filters that are kept."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

from nematex.core.cloth.readings import in_force
from nematex.core.codes import code_key
from nematex.core.errors import FieldFault
from nematex.store.cloth import filters
from nematex.store.cloth.cloths import announce_change, bin_cloths, cloth, cloths_by_code, ids_by_code
from nematex.store.cloth.readings import newest_reading, read_since, readings_of
from nematex.store.cloth.uploads import steps_of
from nematex.store.database import Work
from nematex.store.records import ClothRecord, ReadingRecord
from nematex.tables import properties, readable
from nematex.usecases.cloth.form import form_values, record_from_form
from nematex.usecases.cloth.readings import keep_cloths, keep_readings
from nematex.usecases.cloth.shelf_filter import ShelfFilter, read_filter
from nematex.usecases.forms.merging import merged
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State

NAME_LETTERS, QUERY_LETTERS, LONGEST_NUMBER = 80, 1000, 9


def _label(name: str) -> str:
    return properties()[name].form_label


def save_cloth(shop: Shop, state: State, given: Mapping[str, str], cloth_id: int | None) -> int:
    """Save what the form says, on the cloth as it is now; returns its number. Raises FieldFault, Clashing."""
    with shop.database.work() as work:
        announce_change(work)
        if cloth_id is None:
            record = record_from_form(given, None, state.tables)
            _check_free(work, record.code)
            keep_cloths(work, [record], {}, "the shop", "typed")
        else:
            old = cloth(work, cloth_id)
            if old is None:
                raise FieldFault("cloth", given.get("name", ""), "is in the bin: put it back first, then save again")
            values = merged(given, form_values(old), properties(), _label)
            record = record_from_form(values, old, state.tables)
            keep_cloths(work, [record], {code_key(old.code): old}, "the shop", "typed")
        return ids_by_code(work, [record.code])[code_key(record.code)]


def _check_free(work: Work, code: str) -> None:
    """Raise FieldFault where a cloth of this code is there already."""
    for other in cloths_by_code(work, [code]).values():
        where = "in the bin; choose another, or put that cloth back" if other.binned else "on the shelf already; choose another"
        raise FieldFault("article code", code, f"is {where} ({other.facts.name})")


def remove_cloth(shop: Shop, cloth_id: int) -> None:
    """Take a cloth off the shelf, into the bin."""
    with shop.database.work() as work:
        bin_cloths(work, [cloth_id])


def latest_reading(shop: Shop, cloth_id: int) -> int:
    """The number of a cloth's newest reading; 0 where it has none."""
    with shop.database.work() as work:
        return newest_reading(work, cloth_id)


def keep_measurement(shop: Shop, record: ClothRecord, readings: list[ReadingRecord], seen: int | None = None) -> None:
    """Add readings to a cloth and bring the values in force up to date.

    `seen` is the newest reading that the page knew; raises FieldFault where somebody else has read the same since.
    """
    with shop.database.work() as work:
        announce_change(work)
        if seen is not None and (other := read_since(work, record.id, {each.property for each in readings}, seen)):
            raise _read_meanwhile(other)
        keep_readings(work, record, readings)


def _read_meanwhile(other: ReadingRecord) -> FieldFault:
    value = other.word if other.number is None else f"{other.number:g}"
    label, when = readable()[other.property].label, f"{other.taken_at:%-d %B, %H:%M}"
    rule = f"was kept by {other.by_whom or 'somebody'} on {when}, while this page was open. Keep yours too, and it is in force"
    return FieldFault(label, value, rule)


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


def asked_filter(shop: Shop, state: State, given: Mapping[str, str]) -> tuple[ShelfFilter, list[FieldFault]]:
    """The filter in an address, and what in it could not be read; `list` narrows to what that list brought."""
    chosen, faults = read_filter(given, state.tables)
    number = given.get("list", "")
    if number.isdecimal() and number.isascii() and len(number) < LONGEST_NUMBER:
        with shop.database.work() as work:
            codes = frozenset(code_key(code) for code, _before, _after in steps_of(work, int(number)))
        chosen = replace(chosen, codes=codes)
    return chosen, faults


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
