"""Sew-alongs as they were typed, and the key of their public page."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from datetime import datetime

from sqlalchemy import select

from nematex.store.database import Work
from nematex.store.models import SewAlongRow
from nematex.store.versions import PROGRAMMES, next_version


@dataclass(frozen=True)
class SewAlong:
    """A sew-along: its pattern, its cloths, the texts of its form, the key of its public page (None: it has none)."""

    id: int
    name: str
    pattern_id: int
    cloth_ids: tuple[int, ...]
    typed: Mapping[str, str] = field(default_factory=dict)
    public_key: str | None = None
    changes: int = 0


def _record(row: SewAlongRow) -> SewAlong:
    return SewAlong(row.id, row.name, row.pattern_id, tuple(row.cloth_ids), row.typed, row.public_key, row.changes)


def sew_alongs(work: Work) -> list[SewAlong]:
    """Those that are not in the bin, the newest first."""
    asked = select(SewAlongRow).where(SewAlongRow.binned_at.is_(None)).order_by(SewAlongRow.id.desc())
    return [_record(row) for row in work.scalars(asked)]


def sew_along(work: Work, sew_along_id: int) -> SewAlong | None:
    row = work.get(SewAlongRow, sew_along_id)
    return _record(row) if row and row.binned_at is None else None


def by_key(work: Work, key: str) -> SewAlong | None:
    """The one whose public page has this key."""
    row = work.scalar(select(SewAlongRow).where(SewAlongRow.public_key == key, SewAlongRow.binned_at.is_(None)))
    return _record(row) if row else None


def save(
    work: Work, sew_along_id: int | None, name: str, pattern_id: int, cloth_ids: Sequence[int], typed: Mapping[str, str]
) -> int:
    """Make one, or change the one of this number, which must be there."""
    next_version(work, PROGRAMMES)
    row = SewAlongRow(changes=0) if sew_along_id is None else work.get_one(SewAlongRow, sew_along_id)
    work.add(row)
    row.name, row.pattern_id, row.cloth_ids, row.typed = name, pattern_id, list(cloth_ids), dict(typed)
    row.changes = (row.changes or 0) + 1
    work.flush()
    return row.id


def set_key(work: Work, sew_along_id: int, key: str | None) -> None:
    next_version(work, PROGRAMMES)
    work.get_one(SewAlongRow, sew_along_id).public_key = key


def bin_sew_along(work: Work, sew_along_id: int) -> None:
    next_version(work, PROGRAMMES)
    work.get_one(SewAlongRow, sew_along_id).binned_at = datetime.now().replace(microsecond=0)
