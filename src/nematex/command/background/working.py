"""The worker: looks which jobs are open, and gives them to its hands, lane by lane in the order they were asked.

The rows are the truth. It looks when it is poked, when a hand is free again, and every two seconds for what another machine
asked or left behind; a job is done by who holds its name in the database, so that two workers never do one job.
"""

from __future__ import annotations

import logging
import os
import time
from collections.abc import Callable
from contextlib import suppress
from pathlib import Path

from flask import Flask
from sqlalchemy.exc import SQLAlchemyError

from nematex.command.background.feed import ask_for_ever
from nematex.command.background.hand import BUSY, Hand, hire
from nematex.command.background.poke import Poked, poking
from nematex.command.background.standing_back import stand_back
from nematex.command.service.database import expected_url
from nematex.command.service.forking import fork
from nematex.command.service.processes import bring_watch_back
from nematex.command.service.roles import WORKER, become
from nematex.command.service.state import home
from nematex.parent import end_with
from nematex.store.database import Database
from nematex.usecases.held.shop import Shop
from nematex.usecases.jobs.asking import all_open
from nematex.usecases.jobs.lanes import LANES, lane_of
from nematex.usecases.jobs.running import Runner
from nematex.usecases.tasks.runners import runners
from nematex.web.app import create_app
from nematex.web.books import drawn_jobs

LOOK_EVERY_S, KEEP_EVERY_S = 2.0, 300.0
IDLE_S = 60.0  # a hand without a job is let go after so long, and what it has read with it
ELSEWHERE_S = 5.0  # a job that another machine's worker holds is left alone for so long
log = logging.getLogger("nematex")


def lays_at_once() -> int:
    """How many lays run side by side: NEMATEX_WORKERS, else one for each core up to two."""
    given = os.environ.get("NEMATEX_WORKERS", "")
    return min(int(given), 16) if given.isdecimal() and 0 < len(given) < 3 and int(given) else min(2, os.cpu_count() or 1)


def hands_of(lane: str) -> int:
    """How many jobs of a lane are done side by side. Lists change the shelf in turn."""
    return lays_at_once() if lane == "lays" else 1


def able(app: Flask) -> dict[str, Runner]:
    """Every kind of job, done on this application's shop and with its pages."""
    app.config["TRUSTED_HOSTS"] = None  # it answers what a web process let in, by the address that others see
    return {**runners(app.extensions["shop"]), **drawn_jobs(app)}


class Worker:
    """The parent of the hands. It does no job itself."""

    def __init__(self, shop: Shop, runners: dict[str, Runner], folder: Path) -> None:
        self.shop, self.runners, self.folder = shop, runners, folder
        self.poked = Poked(folder)
        self.hands: list[Hand] = []
        self.elsewhere: dict[int, float] = {}
        self.begun = self.kept = self.looked = time.monotonic()
        self.feed = self.keeping = 0

    def run(self) -> None:
        """Until it is ended."""
        due = True
        while True:
            if due:
                self._look()
            self._tend()
            poked, ready = self.poked.wait(LOOK_EVERY_S, [hand.line.fileno() for hand in self.hands])
            for number in ready:
                self._hear(number)
            due = poked or bool(ready) or time.monotonic() - self.looked >= LOOK_EVERY_S * 0.9

    def _hear(self, number: int) -> None:
        """A hand has done its job, could not have it, or has ended."""
        hand = next(each for each in self.hands if each.line.fileno() == number)
        job_id = hand.job
        said = hand.take_back()
        if said == BUSY and job_id is not None:
            self.elsewhere[job_id] = time.monotonic()
        if not said:
            self.hands.remove(hand)
            hand.let_go()

    def _look(self) -> None:
        """Give open jobs to free hands."""
        self.looked = now = time.monotonic()
        self.elsewhere = {job_id: at for job_id, at in self.elsewhere.items() if now - at < ELSEWHERE_S}
        try:
            asked = all_open(self.shop.database)
            for lane in LANES:
                self._give(lane, [job_id for job_id, kind in asked if lane_of(kind) == lane])
        except SQLAlchemyError:  # a database that is away comes back
            log.exception("the jobs could not be looked at")

    def _give(self, lane: str, asked: list[int]) -> None:
        own = [hand for hand in self.hands if hand.lane == lane]
        under_way = {hand.job for hand in own} | set(self.elsewhere)
        for job_id in (each for each in asked if each not in under_way):
            hand = next((each for each in own if each.job is None), None)
            if hand is None and len(own) < hands_of(lane):
                self.shop.now()  # once here, so that not each hand has to read what has changed
                hand = hire(lane, self.shop, self.runners)
                self.hands.append(hand)
                own.append(hand)
            if hand is None:
                return
            with suppress(OSError):  # it has just ended: that is heard, and the job given to the next
                hand.give(job_id)

    def _tend(self) -> None:
        """Let idle hands go; see to the feed, to what is due, and to who watches."""
        now = time.monotonic()
        for hand in [each for each in self.hands if each.job is None and now - each.idle_since > IDLE_S]:
            self.hands.remove(hand)
            hand.let_go()
        if not _lives(self.feed):
            self.feed = self._child("feed", lambda: ask_for_ever(self.shop, self.folder))
        if now - self.kept >= KEEP_EVERY_S and not _lives(self.keeping):
            self.kept = now
            self.keeping = self._child("keep", lambda: self._keep(now - self.begun))
        with suppress(OSError, RuntimeError):
            bring_watch_back()

    def _keep(self, running_s: float) -> None:
        from nematex.command.background.keeping import keep_house  # with all that makes a backup

        stand_back()
        keep_house(self.shop, self.folder, running_s)

    def _child(self, role: str, run: Callable[[], None]) -> int:
        parent = os.getpid()

        def begin() -> None:
            end_with(parent)
            self.shop.database.forked()
            run()

        return fork(role, begin)


def _lives(pid: int) -> bool:
    """Whether a child of ours lives; takes leave of one that does not."""
    if not pid:
        return False
    try:
        return os.waitpid(pid, os.WNOHANG)[0] == 0
    except ChildProcessError:
        return False


def work(app: Flask, folder: Path) -> None:
    """The worker, in the foreground of a process that was just forked; ended by a signal, with all its hands."""
    shop: Shop = app.extensions["shop"]
    shop.database.forked()
    Worker(shop, able(app), folder).run()


def work_alone() -> int:
    """The worker of a machine that has no web processes: it does what others ask in the database that DATABASE_URL names."""
    become(WORKER)
    app = create_app(Database(expected_url()), "no session is ever opened here", poking(home()))
    work(app, home())
    return 0
