"""Looks at the machine: disk, processes, feed, backups, certificate, and who may read the shop's folder."""

from __future__ import annotations

import os
import shutil
from collections.abc import Iterator
from datetime import UTC, datetime, timedelta
from pathlib import Path

from cryptography import x509

from nematex.command.backup.archive import BackupFault, trusted
from nematex.command.backup.making import backups_in, folder_of
from nematex.command.backup.sealed import is_sealed
from nematex.command.doctor.finding import Finding, care, ill, well
from nematex.command.service.keys import backup_key
from nematex.core.stock.levels import is_late
from nematex.store.cloth.feed import feed_state
from nematex.store.database import Database
from nematex.store.settings import settings
from nematex.tables import trade_tables
from nematex.usecases.stock.polling import SETTING

LEAST_MB, LITTLE_MB = 500, 2000
OLD_BACKUP = timedelta(days=2)
RENEW = timedelta(days=30)


def look_at_disk(home: Path) -> Iterator[Finding]:
    for what, folder in (("disk", home), ("disk of the backups", folder_of(home))):
        while not folder.exists():
            folder = folder.parent  # noqa: PLW2901
        free = shutil.disk_usage(folder).free // 2**20
        if free < LEAST_MB:
            yield ill(what, f"{free} MB free: saving will soon fail", "make room")
        elif free < LITTLE_MB:
            yield care(what, f"{free} MB free", "make room before long")
        else:
            yield well(what, f"{free // 1024} GB free")


def look_at_rights(home: Path) -> Finding:
    """Whether anybody else may enter the folder."""
    if home.stat().st_mode & 0o077:
        return ill("privacy", f"{home} is open to others", f"chmod -R go-rwx {home}")
    return well("privacy", "the shop's folder is its owner's alone")


def look_at_processes(web: bool, worker: bool) -> Iterator[Finding]:
    for what, runs in (("web server", web), ("worker", worker)):
        yield well(what, "runs") if runs else ill(what, "does not run", "./nematex start")


def look_at_feed(database: Database, now: datetime) -> Finding:
    with database.work() as work:
        address, found = settings(work).get(SETTING, ""), feed_state(work)
    if not address:
        return well("stock feed", "none is asked")
    if found is None or found.came_at is None:
        return care("stock feed", f"{address} has never answered", "see the page Stock feed")
    of = found.stamp or found.came_at
    if found.message or is_late(of, now, trade_tables().judging.feed):
        return care("stock feed", found.message or f"its figures are of {of}", "see the page Stock feed")
    return well("stock feed", f"came at {found.came_at:%H:%M}")


def look_at_backups(home: Path, now: datetime) -> Finding:
    known = backups_in(folder_of(home))
    if not known:
        return care("backups", "there is none yet", "./nematex backup, and copy the file to another machine")
    latest = max(known)
    try:
        if not is_sealed(known[latest]):
            trusted(known[latest], backup_key())
    except BackupFault as fault:
        return ill("backups", str(fault), "./nematex backup")
    if now - latest > OLD_BACKUP:
        return care("backups", f"the latest is of {latest:%Y-%m-%d %H:%M}", "./nematex backup; the worker makes one each day")
    return well("backups", f"{len(known)}, the latest of {latest:%Y-%m-%d %H:%M}")


def look_at_certificate(home: Path) -> Finding | None:
    path = home / "tls" / "server.crt"
    if not path.exists():
        return None
    ends = x509.load_pem_x509_certificate(path.read_bytes()).not_valid_after_utc
    if ends < datetime.now(UTC) + RENEW:
        return care("certificate", f"ends on {ends:%Y-%m-%d}", "./nematex stop, then start --lan, which makes a new one")
    return well("certificate", f"good until {ends:%Y-%m-%d}")


def load_of_machine() -> Finding:
    waiting, cores = os.getloadavg()[1], os.cpu_count() or 1
    if waiting > 4 * cores:
        return care("load", f"{waiting:.0f} processes wait for {cores} cores", "see what else runs on this machine")
    return well("load", f"{waiting:.1f} on {cores} cores")
