"""Shop-wide settings and counters."""

from __future__ import annotations

from sqlalchemy import delete, select
from sqlalchemy.dialects.mysql import insert

from nematex.store.database import Work
from nematex.store.models import SettingRow

DEMO = "made-up shop"  # set where the demo was loaded


def settings(work: Work) -> dict[str, str]:
    return {row.name: row.value for row in work.execute(select(SettingRow.name, SettingRow.value))}


def value_held(work: Work, name: str) -> str:
    """A setting's value, "" where it has none; nobody else changes it until the unit of work ends."""
    work.execute(insert(SettingRow).values(name=name, value="").on_duplicate_key_update(name=name))
    return str(work.execute(select(SettingRow.value).where(SettingRow.name == name)).scalar_one())


def put(work: Work, name: str, value: str) -> None:
    statement = insert(SettingRow).values(name=name, value=value)
    work.execute(statement.on_duplicate_key_update(value=statement.inserted.value))


def drop(work: Work, name: str) -> None:
    """Forget a setting."""
    work.execute(delete(SettingRow).where(SettingRow.name == name))
