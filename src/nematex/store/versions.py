"""Counters that tell what has changed: each write of a cloth, pattern or rule takes the next number, rows carry theirs.

The counter's row stays locked until the write is committed, so whoever sees a number sees every row up to it. A writer
takes its number before it touches a row; else two of them could wait for each other.
"""

from __future__ import annotations

from collections.abc import Iterable

from sqlalchemy import Integer, cast, select
from sqlalchemy.dialects.mysql import insert

from nematex.store.database import Work
from nematex.store.models import GoneRow, SettingRow

SHELF, DRAWER, RULES, PROGRAMMES = "shelf version", "drawer version", "rules version", "programmes version"


def next_version(work: Work, name: str) -> int:
    """Count up, and hold the counter until the unit of work ends."""
    counted = cast(SettingRow.value, Integer) + 1
    work.execute(insert(SettingRow).values(name=name, value="1").on_duplicate_key_update(value=counted))
    return int(work.execute(select(SettingRow.value).where(SettingRow.name == name)).scalar_one())


def note_gone(work: Work, kind: str, ids: Iterable[int], version: int) -> None:
    """Remember that rows of this kind were removed."""
    values = [{"kind": kind, "row_id": row_id, "version": version} for row_id in ids]
    if values:
        statement = insert(GoneRow)
        work.execute(statement.on_duplicate_key_update(version=statement.inserted.version), values)


def gone_since(work: Work, kind: str, version: int) -> set[int]:
    """Rows of this kind that were removed after a version."""
    chosen = select(GoneRow.row_id).where(GoneRow.kind == kind, GoneRow.version > version)
    return set(work.scalars(chosen))
