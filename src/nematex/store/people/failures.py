"""Sign-ins that were refused."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime, timedelta

from sqlalchemy import delete, select

from nematex.store.database import Work
from nematex.store.models import FailedSignInRow, PersonRow

TOGETHER = timedelta(hours=1)
MOST_KEPT = 500


@dataclass(frozen=True)
class Failure:
    """When last, whose name it was (None: nobody's), from where, on what, and how often within an hour."""

    at: datetime
    name: str | None
    address: str
    device: str
    tries: int


def note_failure(work: Work, person_id: int | None, address: str, device: str, now: datetime) -> None:
    """Count a refused sign-in with the others of its hour, its name and its address; only so many are kept."""
    whose = FailedSignInRow.person_id == person_id if person_id is not None else FailedSignInRow.person_id.is_(None)
    known = select(FailedSignInRow).where(whose, FailedSignInRow.address == address[:60], FailedSignInRow.at > now - TOGETHER)
    row = work.scalar(known.order_by(FailedSignInRow.id.desc()).limit(1).with_for_update())
    if row:
        row.tries, row.at, row.device = row.tries + 1, now, device[:120]
        return
    work.add(FailedSignInRow(at=now, person_id=person_id, address=address[:60], device=device[:120], tries=1))
    old = work.scalars(select(FailedSignInRow.id).order_by(FailedSignInRow.id.desc()).offset(MOST_KEPT).limit(100)).all()
    work.execute(delete(FailedSignInRow).where(FailedSignInRow.id.in_(list(old))))


def failures(work: Work, most: int) -> list[Failure]:
    """The latest first."""
    wanted = select(FailedSignInRow, PersonRow.name).outerjoin(PersonRow, PersonRow.id == FailedSignInRow.person_id)
    rows = work.execute(wanted.order_by(FailedSignInRow.at.desc(), FailedSignInRow.id.desc()).limit(most))
    return [Failure(row.at, name, row.address, row.device, row.tries) for row, name in rows]
