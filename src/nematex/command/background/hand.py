"""A hand of the worker: a child that does the jobs it is given, one after the other, and is let go when there are none."""

from __future__ import annotations

import logging
import os
import signal
import socket
import time
from contextlib import suppress
from dataclasses import dataclass, field

from nematex.command.background.standing_back import stand_back
from nematex.command.service.forking import fork
from nematex.parent import end_with
from nematex.usecases.held.shop import Shop
from nematex.usecases.jobs.lanes import AWAITED
from nematex.usecases.jobs.running import Busy, Runner, run_job

DONE, BUSY = b"done", b"busy"
log = logging.getLogger("nematex")


@dataclass
class Hand:
    """The worker's end: which job is in it, and since when there is none."""

    lane: str
    pid: int
    line: socket.socket
    job: int | None = None
    idle_since: float = field(default_factory=time.monotonic)

    def give(self, job_id: int) -> None:
        """Raises OSError where it has ended."""
        self.line.send(str(job_id).encode())
        self.job = job_id

    def take_back(self) -> bytes:
        """What it says of its job; b"" where it has ended."""
        try:
            said = self.line.recv(16)
        except OSError:
            said = b""
        self.job, self.idle_since = None, time.monotonic()
        return said

    def let_go(self) -> None:
        """End it, and whom it started."""
        self.line.close()
        with suppress(ProcessLookupError):
            os.killpg(self.pid, signal.SIGKILL)
        with suppress(ChildProcessError):
            os.waitpid(self.pid, 0)


def hire(lane: str, shop: Shop, runners: dict[str, Runner]) -> Hand:
    """A new hand for a lane, with the shop as the worker has it."""
    ours, its = socket.socketpair(socket.AF_UNIX, socket.SOCK_SEQPACKET)
    parent = os.getpid()

    def serve() -> None:
        ours.close()
        end_with(parent)
        shop.database.forked()
        if lane != AWAITED:
            stand_back()
        _do_as_told(its, shop, runners)

    pid = fork(lane, serve)
    its.close()
    return Hand(lane, pid, ours)


def _do_as_told(line: socket.socket, shop: Shop, runners: dict[str, Runner]) -> None:
    while told := line.recv(16):
        said = DONE
        try:
            run_job(shop.database, int(told), runners)
        except Busy:
            said = BUSY
        except Exception:  # its row says that it failed; a database that is away comes back
            log.exception("job %s", told.decode())
        line.send(said)
