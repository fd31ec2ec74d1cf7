"""`./nematex work`: the worker. A parent that starts the queue's consumer again whenever it dies, and the consumer itself."""

from __future__ import annotations

import os
import signal
import subprocess
import sys
import threading
import time
from contextlib import suppress
from pathlib import Path
from types import FrameType

from huey.api import Huey

from nematex.store.database import Database
from nematex.usecases.jobs.asking import Enqueue, left_behind
from nematex.usecases.jobs.queue import queue_in, task_of
from nematex.usecases.jobs.runners import RUNNERS
from nematex.usecases.jobs.running import run_job

AGAIN_AFTER_S = 0.5
NICE = 10  # pages come first


def workers() -> int:
    """How many jobs run side by side: NEMATEX_WORKERS, else one for each core up to two."""
    given = os.environ.get("NEMATEX_WORKERS", "")
    return min(int(given), 16) if given.isdecimal() and 0 < len(given) < 3 and int(given) else min(2, os.cpu_count() or 1)


def queue_of(folder: Path) -> tuple[Huey, Enqueue]:
    """The queue with its one task, as both the web process and the worker know it."""
    queue = queue_in(folder)
    url = os.environ["DATABASE_URL"]
    held: dict[int, Database] = {}

    def run(job_id: int) -> None:
        pid = os.getpid()  # each process of the consumer has a connection of its own
        if pid not in held:
            held[pid] = Database(url)
        run_job(held[pid], job_id, RUNNERS)

    return queue, task_of(queue, run)


def consume(folder: Path) -> int:
    """Take up what was left behind, then whatever comes, until told to end or until the parent is gone."""
    os.nice(NICE)
    queue, enqueue = queue_of(folder)
    parent = os.getppid()

    queue.on_startup()(_watch)
    threading.Thread(target=_end_with, args=(parent,), daemon=True).start()
    if not os.environ.get("REDIS_URL"):
        queue.flush()
    database = Database(os.environ["DATABASE_URL"])
    for job_id in left_behind(database):
        enqueue(job_id)
    database.close()
    consumer = queue.create_consumer(workers=workers(), worker_type="process", periodic=False, initial_delay=0.1, max_delay=1.0)
    consumer.run()
    return 0


def _watch() -> None:
    """In each process of the consumer: end with it."""
    threading.Thread(target=_end_with, args=(os.getppid(),), daemon=True).start()


def _end_with(parent: int) -> None:
    """An orphan ends: who starts the worker again takes its job up."""
    while os.getppid() == parent:
        time.sleep(AGAIN_AFTER_S)
    os.killpg(0, signal.SIGKILL)  # the whole family, the queue's own scheduler too


def work(_folder: Path) -> int:
    """The parent: one consumer, started again when it dies."""
    ending = threading.Event()
    child: list[subprocess.Popen[bytes]] = []

    def on_signal(_number: int, _frame: FrameType | None) -> None:
        ending.set()
        for each in child:
            each.terminate()

    signal.signal(signal.SIGTERM, on_signal)
    while not ending.is_set():
        child[:] = [subprocess.Popen([sys.executable, "-m", "nematex.command", "consume"], start_new_session=True)]
        child[0].wait()
        with suppress(ProcessLookupError):
            os.killpg(child[0].pid, signal.SIGKILL)  # whom a consumer leaves behind when it is killed
        ending.wait(AGAIN_AFTER_S)
    return 0
