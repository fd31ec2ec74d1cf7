"""A request that lost a race for the database's rows is answered once more: nothing of it was kept."""

from __future__ import annotations

import logging
import time

from flask import Flask, g, request
from flask.typing import ResponseReturnValue

from nematex.store.database import DatabaseGone, disk_is_full, lost_a_race

TRIES = 4
PAUSE_S = 0.05
log = logging.getLogger(__name__)


class Patient(Flask):
    """An application that tries again where two writers stood in each other's way."""

    def dispatch_request(self) -> ResponseReturnValue:
        for attempt in range(1, TRIES):
            try:
                return super().dispatch_request()
            except DatabaseGone as fault:
                if not lost_a_race(fault):
                    raise
                log.warning("attempt %d of %s %s lost a race: %s", attempt, request.method, request.path, fault.orig)
                g.pop("state", None)
                for sent in request.files.values():
                    sent.seek(0)
                time.sleep(PAUSE_S * attempt)
        return super().dispatch_request()


RACED = "Others saved at the same moment, several times over. Nothing of this was kept: send it again."
FULL = (
    "Nothing of this was kept, and nothing is lost that was saved. Make room on the disk of the machine that runs Nematex, "
    "then send it again."
)
AWAY = (
    "Nothing is lost that was saved. The database is started again by itself, mostly within half a minute. If it stays away, "
    "run ./nematex start on the machine that runs Nematex."
)


def why_lost(fault: DatabaseGone) -> tuple[str, str]:
    """The title and text of the page for a request that the database could not serve."""
    if lost_a_race(fault):
        return "Somebody else was saving", RACED
    return ("The disk is full", FULL) if disk_is_full(fault) else ("The database does not answer", AWAY)
