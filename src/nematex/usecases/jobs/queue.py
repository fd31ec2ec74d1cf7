"""The queue: huey, embedded in the shop's folder, or in Redis where REDIS_URL names one; one for each lane.

It carries numbers of jobs and nothing else; their rows in the database are the truth. A number that is lost or doubled
does no harm: the worker asks for every open job when it starts, and a job is only taken up by who holds its name.
"""

from __future__ import annotations

import hashlib
import os
from collections.abc import Callable
from pathlib import Path
from typing import Any

from huey import RedisHuey, SqliteHuey
from huey.api import Huey

NAME = "nematex"
RETRIES, RETRY_AFTER_S = 5, 2


def queue_in(folder: Path, lane: str) -> Huey:
    """The queue of this shop for one lane."""
    address = os.environ.get("REDIS_URL")
    if address:
        shop = hashlib.sha256(os.environ.get("DATABASE_URL", "").encode()).hexdigest()[:8]  # several may share a Redis
        return RedisHuey(f"{NAME}-{shop}-{lane}", url=address, results=False)
    return SqliteHuey(f"{NAME}-{lane}", filename=str(folder / "queue.db"), results=False)


def task_of(queue: Huey, run: Callable[[int], None]) -> Callable[[int], Any]:
    """How a job's number is put into the queue; `run` is what the worker does with it."""
    found: Callable[[int], Any] = queue.task(name="job", retries=RETRIES, retry_delay=RETRY_AFTER_S)(run)
    return found
