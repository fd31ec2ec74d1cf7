"""`./nematex watch`: the parent of all that serves the shop. It has read program and shop once; web processes and worker are
forked from it and share that. It looks whether they and the database live, and starts again what does not.
"""

from __future__ import annotations

import gc
import logging
import os
import select
import signal
import sys
import time
from collections import deque
from collections.abc import Callable
from contextlib import suppress
from typing import TYPE_CHECKING

from sqlalchemy.exc import SQLAlchemyError

from nematex.command.service.database import database_url
from nematex.command.service.processes import GIVEN, START
from nematex.command.service.roles import WATCH, become
from nematex.command.service.state import database_runs, keep, read_state, start_lock, web_pids_of, worker_runs

if TYPE_CHECKING:
    from nematex.command.service.house import House

LOOK_EVERY_S = 2.0
OFTEN, WITHIN_S, THEN_WAIT_S = 6, 60.0, 30.0  # what dies so often is given a pause: it would die again
log = logging.getLogger("nematex.watch")


class Patience:
    """How long to wait before something that died is started again."""

    def __init__(self) -> None:
        self.starts: deque[float] = deque(maxlen=OFTEN)

    def started(self, now: float) -> None:
        self.starts.append(now)

    def wait_s(self, now: float) -> float:
        often = len(self.starts) == OFTEN and now - self.starts[0] < WITHIN_S
        return THEN_WAIT_S if often else 0.0


def look(house: House, own_database: bool) -> bool:
    """Start again what does not live; whether there was something."""
    state = read_state()
    dead = own_database and not database_runs(state)
    pids = web_pids_of(state)
    missing = int(state.get("wanted", len(pids))) - len(pids)
    wants_worker = not worker_runs(state)
    if dead or missing > 0 or wants_worker:
        house.furnish(database_url(), state)
    if missing > 0:
        _fork_webs(house, pids, missing)
    if wants_worker:
        _noted([house.fork_worker()], lambda made: keep(worker_pid=made[0]))
    return dead or missing > 0


def _fork_webs(house: House, pids: list[int], missing: int) -> None:
    """Web processes in the place of those that died."""
    died = bool(house.doors)
    made = [house.fork_web() for _ in range(missing)]
    _noted(made, lambda new: keep(web_pids=[*pids, *new]))
    if died:
        log.warning("%d web processes had died; others take their place", missing)


def _noted(made: list[int], note: Callable[[list[int]], None]) -> None:
    """Note new processes down; those that cannot be, as on a full disk, are ended: nobody would find them again."""
    try:
        note(made)
    except OSError:
        for pid in made:
            with suppress(ProcessLookupError):
                os.kill(pid, signal.SIGKILL)
        raise


class Pause:
    """Waiting that ends at once where a child has ended."""

    def __init__(self) -> None:
        self.heard, told = os.pipe2(os.O_NONBLOCK | os.O_CLOEXEC)
        signal.signal(signal.SIGCHLD, lambda _number, _frame: None)
        signal.set_wakeup_fd(told, warn_on_full_buffer=False)

    def wait(self, seconds: float) -> None:
        if select.select([self.heard], [], [], seconds)[0]:
            os.read(self.heard, 4096)
        with suppress(ChildProcessError):
            while os.waitpid(-1, os.WNOHANG)[0]:
                pass


def watch(port: int) -> int:
    """Until it is ended, or another watches in its place. Read first, so that it is ready when the database is."""
    become(WATCH)
    own_database = os.environ.get(GIVEN) != "1"
    gc.disable()  # of what is read now nothing is let go
    from nematex.command.service.house import House

    house = House(port)
    told = sys.stdin.readline().strip()
    if not told:
        return 1  # whoever wanted the shop has gone
    if own_database:
        os.environ.pop("DATABASE_URL", None)  # ours is brought up again where it died
    if told == START:
        look(house, own_database)  # whoever starts it holds the lock, and waits; a fault is said and ends this process
    gc.enable()
    pause, patience = Pause(), Patience()
    while True:
        with start_lock(wait=False) as free:
            if free:  # else somebody starts or stops it just now
                if read_state().get("watch_pid") not in (None, os.getpid()):
                    return 0
                try:
                    if look(house, own_database):
                        patience.started(time.monotonic())
                except (RuntimeError, OSError, SQLAlchemyError):  # a database that is away comes back: who watches stays
                    log.exception("something that died could not be started again")
                    patience.started(time.monotonic())
        pause.wait(LOOK_EVERY_S)
        time.sleep(patience.wait_s(time.monotonic()))
