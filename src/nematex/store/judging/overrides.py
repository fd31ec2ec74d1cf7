"""What hands decided or found, beside what the rules said."""

from __future__ import annotations

from dataclasses import asdict
from datetime import datetime

from sqlalchemy import select, update

from nematex.store.database import Work
from nematex.store.models import OverrideRow
from nematex.store.records import Override

FIELDS = (
    "cloth_id",
    "pattern_id",
    "verdict",
    "rules",
    "reason",
    "check",
    "window",
    "part",
    "by_whom",
    "made",
    "set_at",
    "id",
)


def overrides_of(work: Work, cloth_id: int | None = None, pattern_id: int | None = None) -> list[Override]:
    """Of one cloth, one pattern, one pairing, or all; the latest first."""
    query = select(*(getattr(OverrideRow, name) for name in FIELDS)).where(OverrideRow.binned_at.is_(None))
    query = query.order_by(OverrideRow.set_at.desc(), OverrideRow.id.desc())
    if cloth_id is not None:
        query = query.where(OverrideRow.cloth_id == cloth_id)
    if pattern_id is not None:
        query = query.where(OverrideRow.pattern_id == pattern_id)
    return [Override(**row._mapping) for row in work.execute(query)]


def add_override(work: Work, said: Override) -> int:
    """Keep a verdict by hand; its number."""
    row = OverrideRow(**{name: value for name, value in asdict(said).items() if name not in ("id", "set_at")})
    work.add(row)
    work.flush()
    return row.id


def bin_override(work: Work, verdict_id: int) -> None:
    """Take a verdict by hand back; it stays in the bin."""
    now = datetime.now().replace(microsecond=0)
    work.execute(update(OverrideRow).where(OverrideRow.id == verdict_id).values(binned_at=now))
