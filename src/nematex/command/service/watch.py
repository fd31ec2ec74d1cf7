"""`./nematex watch`: looks every second whether all of the shop's processes live, and starts again what does not."""

from __future__ import annotations

import logging
import os
import subprocess
import time
from collections import deque

from sqlalchemy.exc import SQLAlchemyError

from nematex.command.service.database import database_url
from nematex.command.service.processes import GIVEN, start_beside, start_web
from nematex.command.service.starting import network_of
from nematex.command.service.state import (
    State,
    database_runs,
    keep,
    read_state,
    start_lock,
    till_runs,
    web_pids_of,
    worker_runs,
)

LOOK_EVERY_S = 1.0
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


def look(children: list[subprocess.Popen[bytes]], own_database: bool) -> bool:
    """Start again what does not live; whether there was something."""
    state = read_state()
    dead = own_database and not database_runs(state)
    url = database_url()
    pids = web_pids_of(state)
    missing = int(state.get("wanted", len(pids))) - len(pids)
    if missing > 0:
        _start_webs(children, url, state, missing)
    if not worker_runs(state) or (state.get("till_pid") and not till_runs(state)):
        start_beside(url)
    for child in children:
        child.poll()  # takes leave of those that ended
    return dead or missing > 0


def _start_webs(children: list[subprocess.Popen[bytes]], url: str, state: State, missing: int) -> None:
    """Web processes in the place of those that died; none that could not be noted down, as on a full disk."""
    made = [start_web(url, state["web_port"], network_of(state.get("lan", ""))) for _ in range(missing)]
    pids = [*web_pids_of(state), *(child.pid for child in made)]
    try:
        keep(web_pid=pids[0], web_pids=pids)
    except OSError:
        for child in made:
            child.kill()
            child.wait()
        raise
    children.extend(made)
    log.warning("%d web processes had died; others take their place", missing)


def watch() -> int:
    """Until it is ended, or another watches in its place."""
    own_database = os.environ.get(GIVEN) != "1"
    if own_database:
        os.environ.pop("DATABASE_URL", None)  # ours is brought up again where it died
    children: list[subprocess.Popen[bytes]] = []
    patience = Patience()
    while True:
        time.sleep(LOOK_EVERY_S)
        with start_lock(wait=False) as free:
            if not free:
                continue  # somebody starts or stops it just now
            if read_state().get("watch_pid") not in (None, os.getpid()):
                return 0
            try:
                if look(children, own_database):
                    patience.started(time.monotonic())
            except (RuntimeError, OSError, SQLAlchemyError):  # a database that is away comes back: who watches stays
                log.exception("something that died could not be started again")
                patience.started(time.monotonic())
        time.sleep(patience.wait_s(time.monotonic()))
