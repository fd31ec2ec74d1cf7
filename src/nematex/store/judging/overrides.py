"""What hands decided or found, beside what the rules said."""

from __future__ import annotations

from dataclasses import asdict

from sqlalchemy import delete, func, select

from nematex.store.database import Work
from nematex.store.models import HandVerdictRow
from nematex.store.records import HandVerdict

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


def hand_verdicts(work: Work, cloth_id: int | None = None, pattern_id: int | None = None) -> list[HandVerdict]:
    """Of one cloth, one pattern, one pairing, or all; the latest first."""
    query = select(*(getattr(HandVerdictRow, name) for name in FIELDS)).order_by(
        HandVerdictRow.set_at.desc(), HandVerdictRow.id.desc()
    )
    if cloth_id is not None:
        query = query.where(HandVerdictRow.cloth_id == cloth_id)
    if pattern_id is not None:
        query = query.where(HandVerdictRow.pattern_id == pattern_id)
    return [HandVerdict(**row._mapping) for row in work.execute(query)]


def add_hand_verdict(work: Work, said: HandVerdict) -> None:
    work.add(HandVerdictRow(**{name: value for name, value in asdict(said).items() if name not in ("id", "set_at")}))


def remove_hand_verdict(work: Work, verdict_id: int) -> None:
    work.execute(delete(HandVerdictRow).where(HandVerdictRow.id == verdict_id))


def hand_verdict_count(work: Work) -> int:
    return work.scalar(select(func.count()).select_from(HandVerdictRow)) or 0
