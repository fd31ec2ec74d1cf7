"""A section of a table as a frozen record: every key known, none missing, every value of its kind."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import fields, is_dataclass
from typing import TypeVar, get_args, get_origin, get_type_hints

from nematex.core.errors import TableFault
from nematex.core.quantity.estimate import Range

T = TypeVar("T")


def read_record(kind: type[T], raw: object, place: str) -> T:
    """A record of this kind from a mapping with exactly its fields."""
    if not isinstance(raw, Mapping):
        raise TableFault(place, raw, "must be a section")
    wanted = {field.name: hint for field in fields(kind) for hint in (get_type_hints(kind)[field.name],)}  # type: ignore[arg-type]
    for name in raw:
        if name not in wanted:
            raise TableFault(f"{place}: {name}", raw[name], f"is not known here; the keys are {', '.join(wanted)}")
    for name in wanted:
        if name not in raw:
            raise TableFault(f"{place}: {name}", "", "is missing")
    return kind(**{name: _value(hint, raw[name], f"{place}: {name}") for name, hint in wanted.items()})


def _value(hint: object, raw: object, place: str) -> object:
    """One value of the file, as its field wants it."""
    if is_dataclass(hint) and isinstance(hint, type) and hint is not Range:
        return read_record(hint, raw, place)
    if get_origin(hint) is tuple and isinstance(raw, list):
        return tuple(_value(get_args(hint)[0], item, place) for item in raw)
    if get_origin(hint) is not None and isinstance(raw, Mapping):
        return {name: _value(get_args(hint)[1], item, f"{place}: {name}") for name, item in raw.items()}
    if hint is Range and isinstance(raw, list) and len(raw) == 2:
        low, high = (float(end) for end in raw)
        if low <= high:
            return Range(low, high)
    if hint is float and isinstance(raw, int | float) and not isinstance(raw, bool):
        return float(raw)
    if hint in (int, str, bool) and type(raw) is hint:
        return raw
    raise TableFault(place, raw, f"must be {_said(hint)}")


def _said(hint: object) -> str:
    words = {
        float: "a number",
        int: "a whole number",
        str: "a text",
        bool: "true or false",
        Range: "two numbers, the lower first",
    }
    return next((word for kind, word in words.items() if hint is kind), "a list" if get_origin(hint) is tuple else "a section")
