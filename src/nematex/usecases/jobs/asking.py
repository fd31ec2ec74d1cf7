"""Asking for a job, and looking how far it is."""

from __future__ import annotations

import hashlib
import time
from collections.abc import Callable
from datetime import datetime, timedelta
from functools import cache
from pathlib import Path
from typing import Any

import nematex
from nematex.store import jobs
from nematex.store.database import Database
from nematex.store.records import Job
from nematex.store.trail.who import who_acts
from nematex.usecases.jobs.lanes import LANES, lane_of

Enqueue = Callable[[str, int], Any]  # kind, number
LOOK_EVERY_S = 0.05
A_WHILE = timedelta(minutes=1)
SOON_S = 0.9  # as long as a request holds its thread for a job that may be done at once
ASKED_BY = "asked by"  # in what a job is about: whose changes its changes are


@cache
def _program() -> str:
    """What an answer rests on beside its question: the program and its tables, as they are on this disk."""
    root = Path(nematex.__file__).parent
    rests_on = sorted(each for folder in ("core", "data") for each in (root / folder).rglob("*") if each.is_file())
    found = hashlib.sha256()
    for each in rests_on:
        if each.suffix in (".py", ".csv", ".toml"):
            found.update(each.read_bytes())
    return found.hexdigest()


def key_of(kind: str, asked: str) -> str:
    """Where the answer to a question is found again, by whoever asks it."""
    return hashlib.sha256(f"{_program()} {kind} {asked}".encode()).hexdigest()


def name_of(job_id: int) -> str:
    """What who works on a job holds."""
    return f"job {job_id}"


def ask(database: Database, enqueue: Enqueue, kind: str, asked: str, about: dict[str, Any], total: int) -> int:
    """The number of a job that does this; one that was asked exactly this before is not done again."""
    key = key_of(kind, asked)
    with database.lock(f"asks {key[:40]}", wait_s=5), database.work() as work:  # two may ask at the same moment
        known = jobs.job_asked(work, key)
        job_id = known.id if known else jobs.add_job(work, kind, key, asked, about | {ASKED_BY: who_acts()}, total)
    if known is None:
        enqueue(kind, job_id)
    return job_id


def keep(database: Database, kind: str, asked: str, about: dict[str, Any], found: str) -> int:
    """A result that was made without the worker, kept beside the others; it answers no later question."""
    with database.work() as work:
        job_id = jobs.add_job(work, kind, "", asked, about, 0)
        jobs.set_job(work, job_id, state="done", found=found)
    return job_id


def keep_content(database: Database, kind: str, asked: str, content: bytes) -> None:
    """Bytes that were found without a job of their own, kept as if one had found them."""
    with database.work() as work:
        job_id = jobs.add_job(work, kind, key_of(kind, asked), asked, {}, 0)
        jobs.keep_content(work, job_id, content)
        jobs.set_job(work, job_id, state="done")


def content(database: Database, kind: str, asked: str) -> bytes | None:
    """The bytes that were found for this question, if it was answered."""
    with database.work() as work:
        return jobs.content_of(work, key_of(kind, asked))


def under_way(database: Database, kind: str) -> int | None:
    """A job of this kind that waits or runs."""
    with database.work() as work:
        return next(iter(jobs.open_jobs(work, (kind,))), None)


def latest(database: Database, kind: str) -> int | None:
    """The job that found bytes last for any question of this kind, if it was this very program that found them."""
    with database.work() as work:
        found = jobs.latest_with_parts(work, kind)
    return found.id if found and found.asked_key == key_of(kind, found.asked) else None


def content_of_job(database: Database, job_id: int) -> bytes | None:
    """The bytes that a job found."""
    with database.work() as work:
        return jobs.parts_of(work, job_id)


def look(database: Database, job_id: int) -> tuple[Job, int] | None:
    """A job as it stands, and how many wait before it."""
    with database.work() as work:
        found = jobs.job(work, job_id)
        if found is None:
            return None
        before = jobs.open_jobs(work, LANES[lane_of(found.kind)]) if found.state == "waiting" else []
        return found, sum(each < job_id for each in before)


def await_end(database: Database, job_id: int) -> bool:
    """Whether a job ended at once: what is soon done needs no page that waits for it."""
    until = time.monotonic() + SOON_S
    while (found := look(database, job_id)) and found[0].runs:
        if time.monotonic() > until:
            return False
        time.sleep(LOOK_EVERY_S)
    return True


def stop(database: Database, job_id: int) -> None:
    """End a job, keeping the best it has found."""
    with database.work() as work:
        jobs.ask_to_stop(work, job_id)


def all_open(database: Database) -> list[tuple[int, str]]:
    """Number and kind of every job that is not done, in the order they were asked."""
    with database.work() as work:
        return jobs.open_kinds(work)


def left_open(database: Database, now: datetime) -> list[Job]:
    """Jobs that were asked for a while ago and are not done, and that nobody works on: their worker is gone, or never heard.

    The database's clock and this machine's may differ by less than a while.
    """
    with database.work() as work:
        found = jobs.opened_before(work, now - A_WHILE)
    return [each for each in found if not database.is_locked(name_of(each.id))]
