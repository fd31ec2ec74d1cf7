"""Asking for a job, and looking how far it is."""

from __future__ import annotations

import hashlib
from collections.abc import Callable
from typing import Any

import nematex
from nematex.store import jobs
from nematex.store.database import Database
from nematex.store.records import Job

Enqueue = Callable[[int], Any]


def ask(database: Database, enqueue: Enqueue, kind: str, asked: str, about: dict[str, Any], total: int) -> int:
    """The number of a job that does this; one that was asked exactly this before is not done again."""
    key = hashlib.sha256(f"{nematex.__version__} {kind} {asked}".encode()).hexdigest()
    with database.work() as work:
        known = jobs.job_asked(work, key)
        job_id = known.id if known else jobs.add_job(work, kind, key, asked, about, total)
    if known is None:
        enqueue(job_id)
    return job_id


def keep(database: Database, kind: str, asked: str, about: dict[str, Any], found: str) -> int:
    """A result that was made without the worker, kept beside the others; it answers no later question."""
    with database.work() as work:
        job_id = jobs.add_job(work, kind, "", asked, about, 0)
        jobs.set_job(work, job_id, state="done", found=found)
    return job_id


def look(database: Database, job_id: int) -> tuple[Job, int] | None:
    """A job as it stands, and how many wait before it."""
    with database.work() as work:
        found = jobs.job(work, job_id)
        return (found, jobs.waiting_before(work, job_id) if found.state == "waiting" else 0) if found else None


def stop(database: Database, job_id: int) -> None:
    """End a job, keeping the best it has found."""
    with database.work() as work:
        jobs.ask_to_stop(work, job_id)


def left_behind(database: Database) -> list[int]:
    """The jobs that a worker has to take up when it starts, in the order they were asked."""
    with database.work() as work:
        return jobs.open_jobs(work)
