"""One job, as the worker does it: taken up by name, told how far it is, stopped when asked, kept when done."""

from __future__ import annotations

import time
from collections.abc import Callable
from dataclasses import dataclass, field

from nematex.core.errors import NematexError
from nematex.store import jobs
from nematex.store.database import Database
from nematex.store.records import Job
from nematex.store.trail.who import THE_PROGRAM, acting
from nematex.usecases.jobs.asking import ASKED_BY, name_of

TOLD_EVERY_S = 0.4
MOST_TRIES = 3


class Busy(RuntimeError):
    """Another process still holds the job's name; try again soon."""


class Stopped(NematexError):
    """A job that keeps nothing half done was asked to stop, or is no longer wanted."""


@dataclass
class Handle:
    """What a runner is given: it tells what it found so far, and asks whether it should stop."""

    database: Database
    job: Job
    begun: float = field(default_factory=time.monotonic)
    told: float = 0.0
    stopping: bool = False

    def tell(self, found: str) -> None:
        """Keep what has been found so far."""
        with self.database.work() as work:
            jobs.set_job(work, self.job.id, found=found)

    def keep(self, content: bytes) -> None:
        """Keep what was found where it is no text."""
        with self.database.work() as work:
            jobs.keep_content(work, self.job.id, content)

    def stopped(self) -> bool:
        """Whether it was asked to stop; says by the way how many seconds it has run."""
        self._say(min(round(time.monotonic() - self.begun), self.job.total), self.job.total)
        return self.stopping

    def progress(self, done: int, total: int) -> None:
        """Say how far it is; raises Stopped if it was asked to stop."""
        self._say(done, total)
        if self.stopping:
            raise Stopped("It was stopped. Nothing was changed.")

    def _say(self, done: int, total: int) -> None:
        now = time.monotonic()
        if now - self.told >= TOLD_EVERY_S:
            self.told = now
            with self.database.work() as work:
                kept = jobs.job(work, self.job.id)
                self.stopping = kept is None or kept.state == "stopping"
                jobs.set_job(work, self.job.id, done=done, total=total)


Runner = Callable[[Handle], str]
Progress = Callable[[int, int], None]  # done, of how many


def half_of(progress: Progress | None, half: int, total: int) -> Progress | None:
    """What tells of the first (0) or second (1) half of a job that counts to this in all."""
    if progress is None:
        return None
    return lambda done, of: progress(round(total * (half + done / max(1, of)) / 2), total)


def run_job(database: Database, job_id: int, runners: dict[str, Runner]) -> None:
    """Do a job that waits, or that a worker left behind; raises Busy while another still holds it."""
    with database.lock(name_of(job_id)) as taken:
        if not taken:
            raise Busy(name_of(job_id))
        with database.work() as work:
            kept = jobs.job(work, job_id)
            if kept is None or not kept.runs:
                return
            if kept.tries >= MOST_TRIES:
                jobs.set_job(work, job_id, state="failed", message="Its worker ended three times while it worked on it.")
                return
            jobs.set_job(work, job_id, state="stopping" if kept.state == "stopping" else "running", tries=kept.tries + 1)
        _do(database, kept, runners)


def _do(database: Database, kept: Job, runners: dict[str, Runner]) -> None:
    end: dict[str, object] = {}
    try:
        with acting(str(kept.about.get(ASKED_BY) or THE_PROGRAM)):
            end = {"state": "done", "found": runners[kept.kind](Handle(database, kept))}
    except Stopped as why:
        end = {"state": "cancelled", "message": str(why)}
    except NematexError as fault:
        end = {"state": "failed", "message": str(fault)[:600]}
    except Exception:
        end = {"state": "failed", "message": "Something unforeseen stopped it; the log of the worker says more."}
        raise
    finally:
        if end:
            with database.work() as work:
                jobs.set_job(work, kept.id, **end)
