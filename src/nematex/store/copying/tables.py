"""The tables of a shop as the server has them, whatever revision they are at, and reading all of them at one moment."""

from __future__ import annotations

import hashlib
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from typing import Any, Protocol

from sqlalchemy import Connection, Double, Float, MetaData, Table, event, select, text

from nematex.store.copying.lines import line_of
from nematex.store.database import Database

REVISIONS = "alembic_version"  # which revision the tables are at: told by the manifest, not a row of the shop


class Sink(Protocol):
    """Where lines go."""

    def write(self, line: bytes, /) -> object: ...


class Nowhere:
    """For who wants the digest alone."""

    def write(self, line: bytes, /) -> object:
        return len(line)


@dataclass(frozen=True)
class Held:
    """What a table holds: rows, bytes of their lines, the SHA-256 of these, and the number that the next row will have."""

    rows: int
    size: int
    sha256: str
    next: int | None


def tables_of(connection: Connection) -> list[Table]:
    """The shop's tables, each after those that it points at."""
    found = MetaData()
    event.listen(found, "column_reflect", _as_it_is)
    found.reflect(connection)
    return [table for table in found.sorted_tables if table.name != REVISIONS]


def _as_it_is(_inspector: object, _table: object, column: dict[str, Any]) -> None:
    """A double is read as it is kept: the dialect would round it to ten places of a decimal number."""
    if isinstance(column["type"], Double | Float):
        column["type"] = Double(asdecimal=False)


@contextmanager
def one_moment(database: Database) -> Iterator[Connection]:
    """A connection on which every query sees the database as it was at the first, row after row as they come."""
    with database.engine.connect() as plain:
        connection = plain.execution_options(isolation_level="REPEATABLE READ")
        with connection.begin():
            yield connection


def revision_of(connection: Connection) -> str:
    return str(connection.execute(text(f"select version_num from {REVISIONS}")).scalar() or "")


def write_lines(connection: Connection, table: Table, out: Sink) -> Held:
    """All rows in the order of their keys, a line each. The same rows give the same lines."""
    rows, size, digest = 0, 0, hashlib.sha256()
    wanted = select(table).order_by(*table.primary_key.columns)
    with connection.execute(wanted, execution_options={"stream_results": True, "max_row_buffer": 64}) as found:
        for row in found:
            line = line_of(row)
            digest.update(line)
            out.write(line)
            rows, size = rows + 1, size + len(line)
    return Held(rows, size, digest.hexdigest(), _next(connection, table))


def _next(connection: Connection, table: Table) -> int | None:
    asked = "select auto_increment from information_schema.tables where table_schema = database() and table_name = :name"
    found = connection.execute(text(asked), {"name": table.name}).scalar()
    return int(found) if found is not None else None


def held(database: Database) -> dict[str, Held]:
    """Table → what it holds."""
    with one_moment(database) as connection:
        return {table.name: write_lines(connection, table, Nowhere()) for table in tables_of(connection)}


def is_empty(database: Database) -> bool:
    """Whether there is no table at all."""
    with database.engine.connect() as connection:
        return connection.execute(text("show tables")).first() is None


def drop_all(database: Database) -> None:
    """Take every table away that was made in a database which was empty before."""
    found = MetaData()
    with database.engine.begin() as connection:
        found.reflect(connection)
        found.drop_all(connection)
