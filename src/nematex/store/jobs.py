"""Jobs: their rows, which any process reads; the queue only says which is next."""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy import delete, select, update

from nematex.store.database import Work
from nematex.store.models import JobPartRow, JobRow
from nematex.store.records import Job

KEPT = 500  # finished ones of a kind; older ones are let go
FEW = 4  # ... and fewer of those that found much
KEPT_WITH_PARTS = {"sheet": 60, "export": 8}  # but more where many people ask, each for something else
PART_BYTES = 8 * 2**20
OPEN = ("waiting", "running", "stopping")
NAMES = ("id", "kind", "asked", "about", "state", "done", "total", "found", "message", "tries", "made_at")


def _job(row: JobRow) -> Job:
    return Job(**{name: getattr(row, name) for name in NAMES})


def add_job(work: Work, kind: str, asked_key: str, asked: str, about: dict[str, Any], total: int) -> int:
    row = JobRow(kind=kind, asked_key=asked_key, asked=asked, about=about, state="waiting", total=total)
    work.add(row)
    work.flush()
    ended = select(JobRow.id).where(JobRow.kind == kind, JobRow.state.not_in(OPEN)).order_by(JobRow.id.desc())
    work.execute(delete(JobRow).where(JobRow.id.in_(list(work.scalars(ended.offset(KEPT).limit(1000))))))
    return row.id


def job(work: Work, job_id: int) -> Job | None:
    row = work.get(JobRow, job_id)
    return _job(row) if row else None


def job_asked(work: Work, asked_key: str) -> Job | None:
    """The newest job that was asked exactly this and has not failed."""
    wanted = select(JobRow).where(JobRow.asked_key == asked_key, JobRow.state.in_((*OPEN, "done")))
    row = work.scalars(wanted.order_by(JobRow.id.desc()).limit(1)).first()
    return _job(row) if row else None


def open_jobs(work: Work, kinds: Collection[str]) -> list[int]:
    """The jobs of these kinds that are not done, in the order they were asked."""
    wanted = select(JobRow.id).where(JobRow.state.in_(OPEN), JobRow.kind.in_(kinds))
    return list(work.scalars(wanted.order_by(JobRow.id)))


def open_kinds(work: Work) -> list[tuple[int, str]]:
    """Number and kind of each job that is not done, in the order they were asked."""
    wanted = select(JobRow.id, JobRow.kind).where(JobRow.state.in_(OPEN))
    return [(row.id, row.kind) for row in work.execute(wanted.order_by(JobRow.id))]


def open_since(work: Work) -> list[tuple[str, datetime]]:
    """Kind of each job that is not done, and when it was asked."""
    wanted = select(JobRow.kind, JobRow.made_at).where(JobRow.state.in_(OPEN))
    return [(row.kind, row.made_at) for row in work.execute(wanted)]


def opened_before(work: Work, moment: datetime) -> list[Job]:
    """The jobs that are not done and were asked before a moment."""
    wanted = select(JobRow).where(JobRow.state.in_(OPEN), JobRow.made_at < moment)
    return [_job(row) for row in work.scalars(wanted.order_by(JobRow.id))]


def set_job(work: Work, job_id: int, **values: Any) -> None:
    work.execute(update(JobRow).where(JobRow.id == job_id).values(**values))


def ask_to_stop(work: Work, job_id: int) -> None:
    """A job that waits is done with; one that runs is asked to end and keep its best."""
    work.execute(update(JobRow).where(JobRow.id == job_id, JobRow.state == "running").values(state="stopping"))
    cancelled = {"state": "cancelled", "message": "It was stopped before it began."}
    work.execute(update(JobRow).where(JobRow.id == job_id, JobRow.state == "waiting").values(**cancelled))


def keep_content(work: Work, job_id: int, content: bytes) -> None:
    """Keep bytes that a job found; older jobs of its kind that found so much are let go."""
    parts = [content[at : at + PART_BYTES] for at in range(0, len(content), PART_BYTES)]
    work.execute(delete(JobPartRow).where(JobPartRow.job_id == job_id))
    work.add_all(JobPartRow(job_id=job_id, place=place, content=part) for place, part in enumerate(parts))
    work.flush()
    kind_of = select(JobRow.kind).where(JobRow.id == job_id)
    large = (
        select(JobRow.id)
        .join(JobPartRow)
        .where(JobRow.kind == kind_of.scalar_subquery(), JobPartRow.place == 0)
        .order_by(JobRow.id.desc())
    )
    most = KEPT_WITH_PARTS.get(work.scalar(kind_of) or "", FEW)
    work.execute(delete(JobRow).where(JobRow.id.in_(list(work.scalars(large.offset(most).limit(1000))))))


@dataclass(frozen=True)
class Asked:
    """A job's number, what it was asked, and the key of that."""

    id: int
    asked_key: str
    asked: str


def latest_with_parts(work: Work, kind: str) -> Asked | None:
    """The newest job of a kind that is done and found bytes."""
    chosen = select(JobRow.id, JobRow.asked_key, JobRow.asked).join(JobPartRow)
    chosen = chosen.where(JobRow.kind == kind, JobRow.state == "done", JobPartRow.place == 0)
    row = work.execute(chosen.order_by(JobRow.id.desc()).limit(1)).first()
    return Asked(*row) if row else None


def content_of(work: Work, asked_key: str) -> bytes | None:
    """The bytes that a job found which was asked exactly this; None where none has, or not yet."""
    kept = job_asked(work, asked_key)
    if kept is None or kept.state != "done":
        return None
    return parts_of(work, kept.id)


def parts_of(work: Work, job_id: int) -> bytes | None:
    """The bytes that a job found; None where it found none."""
    wanted = select(JobPartRow.content).where(JobPartRow.job_id == job_id).order_by(JobPartRow.place)
    return b"".join(work.scalars(wanted)) or None
