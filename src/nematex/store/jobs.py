"""Jobs: their rows, which any process reads; the queue only says which is next."""

from __future__ import annotations

from typing import Any

from sqlalchemy import delete, select, update

from nematex.store.database import Work
from nematex.store.models import JobRow
from nematex.store.records import Job

KEPT = 500  # finished ones of a kind; older ones are let go
OPEN = ("waiting", "running", "stopping")
NAMES = ("id", "kind", "asked", "about", "state", "done", "total", "found", "message", "tries")


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


def open_jobs(work: Work) -> list[int]:
    """The jobs that are not done, in the order they were asked."""
    return list(work.scalars(select(JobRow.id).where(JobRow.state.in_(OPEN)).order_by(JobRow.id)))


def waiting_before(work: Work, job_id: int) -> int:
    """How many open jobs were asked before this one."""
    return len([each for each in open_jobs(work) if each < job_id])


def set_job(work: Work, job_id: int, **values: Any) -> None:
    work.execute(update(JobRow).where(JobRow.id == job_id).values(**values))


def ask_to_stop(work: Work, job_id: int) -> None:
    """A job that waits is done with; one that runs is asked to end and keep its best."""
    work.execute(update(JobRow).where(JobRow.id == job_id, JobRow.state == "running").values(state="stopping"))
    cancelled = {"state": "cancelled", "message": "It was stopped before it began."}
    work.execute(update(JobRow).where(JobRow.id == job_id, JobRow.state == "waiting").values(**cancelled))
