"""Saved filters of the shelf."""

from __future__ import annotations

from sqlalchemy import delete, select
from sqlalchemy.dialects.mysql import insert

from nematex.store.database import Work
from nematex.store.models import FilterRow


def saved_filters(work: Work) -> list[tuple[int, str, str]]:
    """(id, name, query) of each, by name."""
    rows = work.execute(select(FilterRow.id, FilterRow.name, FilterRow.query).order_by(FilterRow.name))
    return [(row.id, row.name, row.query) for row in rows]


def save_filter(work: Work, name: str, query: str) -> None:
    """Keep a filter under its name; one of the same name is replaced."""
    statement = insert(FilterRow).values(name=name, query=query)
    work.execute(statement.on_duplicate_key_update(query=query))


def remove_filter(work: Work, filter_id: int) -> None:
    work.execute(delete(FilterRow).where(FilterRow.id == filter_id))
