"""What is done each few minutes: once a day a backup, and what is too old goes: backups, sign-ins, the trail."""

from __future__ import annotations

import logging
import os
import time
from datetime import datetime, timedelta
from pathlib import Path

from nematex.command.backup.archive import BackupFault
from nematex.command.backup.making import backups_in, folder_of, let_old_go, make
from nematex.command.service.keys import backup_key
from nematex.store.database import Database
from nematex.store.people.often import forget
from nematex.usecases.held.shop import Shop
from nematex.usecases.people.trail import forget_old

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


def keep_house(shop: Shop, home: Path, running_s: float) -> None:
    """A backup where one is due, and what is too old goes."""
    now = datetime.now()
    try:
        if is_wanted() and running_s > FIRST_AFTER_S:
            back_up_if_due(shop.database, folder_of(home), now, backup_key())
    except (BackupFault, RuntimeError, OSError):
        log.exception("the daily backup was not made")
    forget_old(shop, now)
    forget(shop.database, None, time.time())
