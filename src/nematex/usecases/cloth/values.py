"""The value of any property of a cloth's record, wherever the record keeps it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from typing import Any

from nematex.core.cloth.properties import Home, Property
from nematex.store.records import ClothRecord
from nematex.tables import properties


def in_print(prop: Property) -> str:
    """Its name among the facts of the print."""
    return prop.name.removeprefix("print_")


def value_of(record: ClothRecord, prop: Property) -> Any:
    """The value; None, an empty text or an empty list where nothing is known."""
    if prop.home is Home.FACTS:
        return getattr(record.facts, prop.name)
    if prop.home is Home.PRINT:
        return getattr(record.facts.print, in_print(prop))
    return record.more.get(prop.name) if prop.home is Home.MORE else getattr(record, prop.name)


def with_values(record: ClothRecord, values: Mapping[str, Any]) -> ClothRecord:
    """The record with these properties set, by their names."""
    by_home: dict[Home, dict[str, Any]] = {home: {} for home in Home}
    for name, value in values.items():
        prop = properties()[name]
        by_home[prop.home][in_print(prop) if prop.home is Home.PRINT else name] = value
    facts = replace(record.facts, **by_home[Home.FACTS])
    if by_home[Home.PRINT]:
        facts = replace(facts, print=replace(facts.print, **by_home[Home.PRINT]))
    return replace(record, facts=facts, more={**record.more, **by_home[Home.MORE]}, **by_home[Home.SHOP])
