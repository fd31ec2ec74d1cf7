"""`./nematex consume`: the worker of one lane, who does its jobs."""

from __future__ import annotations

import os
from collections.abc import Callable
from pathlib import Path
from typing import Any

from huey.api import Huey

from nematex.command.orphans import end_with_parent
from nematex.store.database import Database
from nematex.usecases.held.shop import Shop
from nematex.usecases.jobs.asking import Enqueue, left_behind
from nematex.usecases.jobs.lanes import LANES, lane_of
from nematex.usecases.jobs.queue import queue_in, task_of
from nematex.usecases.jobs.running import Runner, run_job
from nematex.usecases.tasks.runners import runners

AGAIN_AFTER_S = 0.5


def workers(lane: str) -> int:
    """How many lays run side by side: NEMATEX_WORKERS, else one for each core up to two. Lists change the shelf in turn."""
    if lane != "lays":
        return 1
    given = os.environ.get("NEMATEX_WORKERS", "")
    return min(int(given), 16) if given.isdecimal() and 0 < len(given) < 3 and int(given) else min(2, os.cpu_count() or 1)


def queue_of(folder: Path, lane: str) -> tuple[Huey, Callable[[int], Any]]:
    """A lane's queue with its one task, as both the web process and the worker know it."""
    queue = queue_in(folder, lane)
    url = os.environ["DATABASE_URL"]
    held: dict[int, tuple[Shop, dict[str, Runner]]] = {}

    def run(job_id: int) -> None:
        pid = os.getpid()  # each process of the consumer has a connection of its own
        if pid not in held:
            held[pid] = _able(url, lane, handing_over(folder))
        run_job(held[pid][0].database, job_id, held[pid][1])

    return queue, task_of(queue, run)


def _able(url: str, lane: str, enqueue: Enqueue) -> tuple[Shop, dict[str, Runner]]:
    """A shop and what can be done with it; the pages' templates are read where a lane draws with them."""
    from nematex.web.app import create_app  # who only hands jobs over needs no page
    from nematex.web.books import DRAWN, drawn_jobs

    if DRAWN.isdisjoint(LANES[lane]):
        shop = Shop(Database(url), enqueue)
        return shop, runners(shop)
    app = create_app(Database(url), "no session is ever opened here", enqueue)
    app.config["TRUSTED_HOSTS"] = None  # it answers what a web process let in, by the address that others see
    shop = app.extensions["shop"]
    return shop, {**runners(shop), **drawn_jobs(app)}


def handing_over(folder: Path) -> Enqueue:
    """How the web process hands a job to the worker."""
    tasks = {lane: queue_of(folder, lane)[1] for lane in LANES}
    return lambda kind, job_id: tasks[lane_of(kind)](job_id)


def consume(folder: Path, lane: str) -> int:
    """Take up what was left behind, then whatever comes, until told to end or until the parent is gone."""
    queue, enqueue = queue_of(folder, lane)
    queue.on_startup()(end_with_parent)  # in each process of the consumer
    end_with_parent()
    queue.flush()
    database = Database(os.environ["DATABASE_URL"])
    for job_id in left_behind(database, lane):
        enqueue(job_id)
    database.close()
    consumer = queue.create_consumer(
        workers=workers(lane), worker_type="process", periodic=False, initial_delay=0.05, max_delay=0.3
    )
    consumer.run()
    return 0
