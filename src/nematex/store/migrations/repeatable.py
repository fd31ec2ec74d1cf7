"""Every step of every revision can be done again: what is there already is left as it is.

MariaDB commits each change of a table at once, so a migration that is ended in its middle leaves half a revision behind, whose
number is not noted down. The next one begins that revision anew. Its changes of rows are no matter: they are kept together with
the number, or not at all.
"""

from __future__ import annotations

from typing import Any

from alembic.ddl.mysql import MySQLImpl
from sqlalchemy import Column, Constraint, Index, Inspector, Table, UniqueConstraint, inspect
from sqlalchemy.schema import CreateIndex


class Repeatable(MySQLImpl):
    """Alembic's way of changing MariaDB's tables, which it takes for the dialect of this name from here on."""

    __dialect__ = "mysql"

    def _now(self) -> Inspector:
        assert self.connection is not None
        return inspect(self.connection)  # a new one each time: it remembers what it saw

    def _columns(self, table: str) -> set[str]:
        return {each["name"] for each in self._now().get_columns(table)}

    def _indexes(self, table: str) -> set[str]:
        return {str(each["name"]) for each in self._now().get_indexes(table)}

    def create_table(self, table: Table, **kw: Any) -> None:
        if not self._now().has_table(table.name):
            super().create_table(table, **kw)
            return
        for index in table.indexes:  # made after the table, one by one
            if index.name not in self._indexes(table.name):
                self._exec(CreateIndex(index))

    def add_column(self, table_name: str, column: Column[Any], **kw: Any) -> None:
        if column.name not in self._columns(table_name):
            super().add_column(table_name, column, **kw)

    def drop_column(self, table_name: str, column: Column[Any], **kw: Any) -> None:
        if column.name in self._columns(table_name):
            super().drop_column(table_name, column, **kw)

    def create_index(self, index: Index, **kw: Any) -> None:
        if index.table is None or index.name not in self._indexes(index.table.name):
            super().create_index(index, **kw)

    def add_constraint(self, const: Any, **kw: Any) -> None:
        if not isinstance(const, UniqueConstraint) or const.name not in self._indexes(const.table.name):
            super().add_constraint(const, **kw)

    def drop_constraint(self, const: Constraint, **kw: Any) -> None:
        if not isinstance(const, UniqueConstraint) or const.name in self._indexes(const.table.name):
            super().drop_constraint(const, **kw)
