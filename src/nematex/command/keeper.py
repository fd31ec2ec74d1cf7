"""`./nematex keep`: once a day a backup, and what is too old goes: backups, sign-ins, the trail. One part of the worker."""

from __future__ import annotations

import logging
import os
import time
from datetime import datetime, timedelta
from pathlib import Path

from nematex.command.backup.archive import BackupFault
from nematex.command.backup.making import backups_in, folder_of, let_old_go, make
from nematex.command.service.keys import backup_key
from nematex.command.worker import handing_over
from nematex.store.database import Database
from nematex.store.people.often import forget
from nematex.usecases.held.shop import Shop
from nematex.usecases.jobs.asking import Enqueue, forgotten
from nematex.usecases.people.trail import forget_old

LOOK_EVERY_S, KEEPS_EACH = 60.0, 5  # each minute for jobs, each five for what is kept
EVERY = timedelta(hours=24)
FIRST_AFTER_S = 600.0  # a shop that was just started is being used
LOCK = "nematex backup"
log = logging.getLogger("nematex")


def is_wanted() -> bool:
    """NEMATEX_BACKUP=off makes none by itself."""
    return os.environ.get("NEMATEX_BACKUP", "daily") != "off"


def back_up_if_due(database: Database, folder: Path, now: datetime, key: bytes) -> Path | None:
    """Make a backup where the last is a day old; of several workers one does it. Returns its file."""
    made = backups_in(folder)
    if made and timedelta(0) <= now - max(made) < EVERY:
        return None
    with database.lock(LOCK) as free:
        if not free:
            return None
        path = make(database.url, folder, now, key)
        let_old_go(folder)
        return path


def take_up_forgotten(database: Database, enqueue: Enqueue, now: datetime) -> int:
    """Tell this machine's worker of jobs whose own worker is gone, or never heard of them; how many."""
    found = forgotten(database, now)
    for job in found:
        enqueue(job.kind, job.id)
    return len(found)


def keep_for_ever(home: Path) -> int:
    """Until the parent ends it; what cannot be done is logged and tried again."""
    database, parent, begun = Database(os.environ["DATABASE_URL"]), os.getppid(), time.monotonic()
    shop, enqueue, looks = Shop(database), handing_over(home), 0
    while os.getppid() == parent:
        try:
            take_up_forgotten(database, enqueue, datetime.now())
            if looks % KEEPS_EACH == 0:
                _keep(shop, home, time.monotonic() - begun)
        except Exception:  # a queue or a database that is away comes back
            log.exception("what is done each minute was not done")
        looks += 1
        until = time.monotonic() + LOOK_EVERY_S
        while os.getppid() == parent and time.monotonic() < until:
            time.sleep(1)
    return 0


def _keep(shop: Shop, home: Path, running_s: float) -> None:
    """A backup where one is due, and what is too old goes."""
    now = datetime.now()
    try:
        if is_wanted() and running_s > FIRST_AFTER_S:
            back_up_if_due(shop.database, folder_of(home), now, backup_key())
    except (BackupFault, RuntimeError, OSError):
        log.exception("the daily backup was not made")
    forget_old(shop, now)
    forget(shop.database, None, time.time())
