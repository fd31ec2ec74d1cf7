"""A row as a line of JSON and back. Inverse: a line that was written is read as the same row, of every type of column.

A number or a text stands as it is; what JSON has no kind for stands as [kind, text].
"""

from __future__ import annotations

import base64
import json
from collections.abc import Callable, Sequence
from datetime import date, datetime
from decimal import Decimal
from typing import Any

from sqlalchemy import Column, Date, DateTime, Double, Float, Integer, LargeBinary, Numeric, String
from sqlalchemy.types import _Binary

LONGEST_LINE = 96 * 2**20  # bytes: a server takes 32 MB at once, which base64 and escapes make longer
Value = Any


class LineFault(ValueError):
    """A line that is no row of its table; the message names the column and what it wants."""


def _bytes(value: Value) -> bytes:
    return base64.b64decode(_tagged(value, "bytes"), validate=True)


def _tagged(value: Value, kind: str) -> str:
    if not isinstance(value, list) or len(value) != 2 or value[0] != kind or not isinstance(value[1], str):
        raise ValueError(f'["{kind}", text]')
    return value[1]


def _whole(value: Value) -> int:
    if not isinstance(value, int):  # a boolean is kept as 0 or 1
        raise ValueError("a whole number")
    return int(value)


def _number(value: Value) -> float:
    if isinstance(value, bool) or not isinstance(value, int | float):
        raise ValueError("a number")
    return float(value)


def _text(value: Value) -> str:
    if not isinstance(value, str):
        raise ValueError("a text")
    value.encode()  # half signs are no text
    return value


# In this order: the first type that fits. SQLAlchemy's bytes are `_Binary` where the server's own kinds are meant.
READERS: tuple[tuple[type[Any], Callable[[Value], Value]], ...] = (
    (Integer, _whole),
    (Double, _number),
    (Float, _number),
    (Numeric, lambda value: Decimal(_tagged(value, "decimal"))),
    (DateTime, lambda value: datetime.fromisoformat(_tagged(value, "datetime"))),
    (Date, lambda value: date.fromisoformat(_tagged(value, "date"))),
    (LargeBinary, _bytes),
    (_Binary, _bytes),
    (String, _text),
)


def reader_of(column: Column[Any]) -> Callable[[Value], Value]:
    """How a value of this column is read; raises LineFault for a kind of column that no shop has."""
    for kind, reader in READERS:
        if isinstance(column.type, kind):
            return reader
    raise LineFault(f"{column.name}: is of a kind that no shop has ({column.type})")


def _written(value: Value) -> Value:
    if isinstance(value, bytes):
        return ["bytes", base64.b64encode(value).decode()]
    if isinstance(value, Decimal):
        return ["decimal", str(value)]
    if isinstance(value, datetime):
        return ["datetime", value.isoformat()]
    if isinstance(value, date):
        return ["date", value.isoformat()]
    return value


def line_of(row: Sequence[Value]) -> bytes:
    """A row as its line, with the line's end."""
    return json.dumps([_written(value) for value in row], ensure_ascii=False, separators=(",", ":")).encode() + b"\n"


def row_of(line: bytes, columns: Sequence[Column[Any]], readers: Sequence[Callable[[Value], Value]]) -> dict[str, Value]:
    """Column → value; raises LineFault."""
    try:
        found = json.loads(line)
    except (ValueError, RecursionError) as fault:
        raise LineFault(f"is no line of JSON ({str(fault)[:80]})") from fault
    if not isinstance(found, list) or len(found) != len(columns):
        raise LineFault(f"does not have the table's {len(columns)} values")
    made = {}
    for column, reader, value in zip(columns, readers, found, strict=True):
        try:
            made[column.name] = None if value is None else reader(value)
        except (ValueError, ArithmeticError) as fault:
            raise LineFault(f"{column.name}: {str(value)[:40]!r} is not what this column holds ({str(fault)[:80]})") from fault
    return made
