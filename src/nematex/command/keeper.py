"""`./nematex keep`: once a day a backup, and what is too old goes: backups, sign-ins, the trail. One part of the worker."""

from __future__ import annotations

import logging
import os
import time
from datetime import datetime, timedelta
from pathlib import Path

from sqlalchemy.exc import SQLAlchemyError

from nematex.command.backup.archive import BackupFault
from nematex.command.backup.making import backups_in, folder_of, let_old_go, make
from nematex.command.service.keys import backup_key
from nematex.store.database import Database
from nematex.store.people.often import forget
from nematex.usecases.held.shop import Shop
from nematex.usecases.people.trail import forget_old

LOOK_EVERY_S = 300.0
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


def keep_for_ever(home: Path) -> int:
    """Until the parent ends it; what cannot be done is logged and tried again."""
    database, parent, begun = Database(os.environ["DATABASE_URL"]), os.getppid(), time.monotonic()
    shop = Shop(database)
    while os.getppid() == parent:
        try:
            if is_wanted() and time.monotonic() - begun > FIRST_AFTER_S:
                back_up_if_due(database, folder_of(home), datetime.now(), backup_key())
            forget_old(shop, datetime.now())
            forget(database, None, time.time())
        except (SQLAlchemyError, BackupFault, RuntimeError, OSError):
            log.exception("the daily backup was not made")
        until = time.monotonic() + LOOK_EVERY_S
        while os.getppid() == parent and time.monotonic() < until:
            time.sleep(1)
    return 0
