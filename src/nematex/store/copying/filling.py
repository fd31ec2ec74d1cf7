"""Filling the tables of an empty shop from lines of JSON.

The tables are those that this program's own migrations make; a line can fill them and do nothing else. Rows go in parents
first, with every key checked by the server; either all of them are in, or none.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import Any, Protocol

from sqlalchemy import Connection, Table, text
from sqlalchemy.exc import SQLAlchemyError

from nematex.store.copying.lines import LONGEST_LINE, LineFault, reader_of, row_of
from nematex.store.copying.tables import Held, tables_of
from nematex.store.database import Database
from nematex.store.trail.who import UNTOLD, acting

AT_ONCE, AT_ONCE_BYTES = 500, 4 * 2**20
HIGHEST = 2**63 - 1


class Lines(Protocol):
    """What gives the next line, at most so many bytes of it."""

    def readline(self, size: int = ..., /) -> bytes: ...


class FillingFault(ValueError):
    """What cannot be filled in; the message names table, row and what is wrong."""


def fill(database: Database, told: Mapping[str, Held], lines: Mapping[str, Lines]) -> None:
    """Fill every table from its lines; raises FillingFault, and nothing was filled."""
    try:
        with acting(UNTOLD), database.engine.begin() as connection:
            tables = tables_of(connection)
            _same_tables({table.name for table in tables}, set(told))
            for table in reversed(tables):  # migrations write rows of their own
                connection.execute(table.delete())
            for table in tables:
                _fill_table(connection, table, told[table.name], lines[table.name])
        with database.engine.begin() as connection:
            for table in tables:
                _count_on(connection, table, told[table.name].next)
    except SQLAlchemyError as fault:
        why = str(getattr(fault, "orig", None) or fault)
        raise FillingFault(f"the database refuses what stands in it: {why[:300]}") from fault


def _same_tables(known: set[str], told: set[str]) -> None:
    if strange := sorted(told - known):
        raise FillingFault(f"{strange[0][:60]!r} is no table of a shop at that revision")
    if lacking := sorted(known - told):
        raise FillingFault(f"the table {lacking[0]!r} is missing")


def _fill_table(connection: Connection, table: Table, told: Held, lines: Lines) -> None:
    columns = list(table.columns)
    readers = [reader_of(column) for column in columns]
    waiting: list[dict[str, Any]] = []
    size = number = 0
    for line in _lines_of(table.name, told, lines):
        number += 1
        try:
            waiting.append(row_of(line, columns, readers))
        except LineFault as fault:
            raise FillingFault(f"{table.name}, row {number}: {fault}") from fault
        size += len(line)
        if len(waiting) >= AT_ONCE or size >= AT_ONCE_BYTES:
            connection.execute(table.insert(), waiting)
            waiting, size = [], 0
    if waiting:
        connection.execute(table.insert(), waiting)
    if number != told.rows:
        raise FillingFault(f"{table.name}: has {number} rows, and {told.rows} were written")


def _lines_of(name: str, told: Held, lines: Lines) -> Iterator[bytes]:
    """Line by line, and never more than was told."""
    left = told.size
    while line := lines.readline(min(left, LONGEST_LINE) + 1):
        left -= len(line)
        if left < 0 or len(line) > LONGEST_LINE:
            raise FillingFault(f"{name}: holds more than was written")
        yield line


def _count_on(connection: Connection, table: Table, following: int | None) -> None:
    """The number that was to be next is next again: one that was given out once is not given out twice."""
    if following is not None and 0 < following <= HIGHEST:
        connection.execute(text(f"alter table `{table.name}` auto_increment = {int(following)}"))
