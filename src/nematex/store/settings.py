"""Shop-wide settings and counters."""

from __future__ import annotations

from sqlalchemy import select
from sqlalchemy.dialects.mysql import insert

from nematex.store.database import Work
from nematex.store.models import SettingRow

DEMO = "made-up shop"  # set where the demo was loaded


def settings(work: Work) -> dict[str, str]:
    return {row.name: row.value for row in work.execute(select(SettingRow.name, SettingRow.value))}


def put(work: Work, name: str, value: str) -> None:
    statement = insert(SettingRow).values(name=name, value=value)
    work.execute(statement.on_duplicate_key_update(value=statement.inserted.value))
