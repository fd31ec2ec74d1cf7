"""Texts of notes that were written by hand, and the versions that went out."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy import delete, func, select
from sqlalchemy.dialects.mysql import insert

from nematex.store.database import Work
from nematex.store.models import NoteEditRow, PublicationRow


@dataclass(frozen=True)
class Edit:
    """A text as the presenter wrote it, and what the product said then."""

    base: str
    body: str


@dataclass(frozen=True)
class Publication:
    """A version that went out: its number, when, what was told, its texts by kind."""

    number: int
    published_at: datetime
    told: Mapping[str, Any]
    texts: Mapping[str, str]


def edits_of(work: Work, programme_id: int) -> dict[str, Edit]:
    """The texts written by hand, by kind."""
    rows = work.scalars(select(NoteEditRow).where(NoteEditRow.programme_id == programme_id))
    return {row.kind: Edit(row.base, row.body) for row in rows}


def keep_edit(work: Work, programme_id: int, kind: str, edit: Edit) -> None:
    statement = insert(NoteEditRow).values(programme_id=programme_id, kind=kind, base=edit.base, body=edit.body)
    work.execute(statement.on_duplicate_key_update(base=statement.inserted.base, body=statement.inserted.body))


def drop_edit(work: Work, programme_id: int, kind: str) -> None:
    work.execute(delete(NoteEditRow).where(NoteEditRow.programme_id == programme_id, NoteEditRow.kind == kind))


def publications(work: Work, programme_id: int) -> list[Publication]:
    """The versions of a programme that went out, the first first."""
    asked = select(PublicationRow).where(PublicationRow.programme_id == programme_id).order_by(PublicationRow.number)
    return [Publication(row.number, row.published_at, row.told, row.texts) for row in work.scalars(asked)]


def publish(work: Work, programme_id: int, now: datetime, told: Mapping[str, Any], texts: Mapping[str, str]) -> int:
    """Keep a version; its number. The programme is held by the caller, so that two get two numbers."""
    last = work.scalar(select(func.max(PublicationRow.number)).where(PublicationRow.programme_id == programme_id)) or 0
    row = PublicationRow(programme_id=programme_id, number=last + 1, published_at=now, told=dict(told), texts=dict(texts))
    work.add(row)
    return last + 1
