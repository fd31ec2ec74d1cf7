"""Making a backup, proving it, and letting old ones go."""

from __future__ import annotations

import os
import shutil
import tempfile
from collections.abc import Iterator
from contextlib import closing
from datetime import datetime
from pathlib import Path

import nematex
from nematex.command.backup import archive, dump
from nematex.command.backup.archive import STAMP, BackupFault, Manifest
from nematex.command.mariadb import LocalMariaDB
from nematex.core.retention import kept
from nematex.store.database import Database
from nematex.store.files.column import place

LEAST_FREE = 3  # times the last backup's size, else no new one is begun


def backups_in(folder: Path) -> dict[datetime, Path]:
    """When → file, of the backups in a folder."""
    found = {}
    for path in folder.glob("nematex-*.tar"):
        try:
            found[datetime.strptime(path.stem.removeprefix("nematex-"), STAMP)] = path
        except ValueError:
            continue
    return found


def folder_of(home: Path) -> Path:
    """Where backups go: NEMATEX_BACKUPS, else below the shop's own folder."""
    return Path(os.environ.get("NEMATEX_BACKUPS") or home / "backups")


def _files() -> Iterator[tuple[str, bytes]]:
    where = place()
    if where is not None:
        for name in where.names():
            yield name, where.get(name)


def make(url: str, folder: Path, now: datetime) -> Path:
    """Write a backup and prove it: it is put into a database of its own, whose tables are counted. Raises BackupFault."""
    folder.mkdir(parents=True, exist_ok=True, mode=0o700)
    _room(folder)
    path = folder / f"nematex-{now.strftime(STAMP)}.tar"
    with tempfile.TemporaryDirectory(prefix="nematex-backup-", dir=folder) as work:
        sql = Path(work) / archive.SQL
        dump.dump(url, sql)
        proved = Path(work) / "proof"
        manifest = prove(sql, proved, now)
        archive.write(path, manifest, sql, _files())
    return path


def _room(folder: Path) -> None:
    """Refuse where the disk would fill up; raises BackupFault."""
    known = backups_in(folder)
    size = known[max(known)].stat().st_size if known else 0
    free = shutil.disk_usage(folder).free
    if free < max(LEAST_FREE * size, 200 * 2**20):
        raise BackupFault(f"{folder}: has {free // 2**20} MB free, too little for a backup; make room, or set NEMATEX_BACKUPS")


def prove(sql: Path, folder: Path, now: datetime) -> Manifest:
    """Put a dump into a server of its own, look at its tables, and say what they hold. Raises BackupFault."""
    server = LocalMariaDB(folder)
    server.start()
    try:
        dump.load(server.url, sql)
        with closing(Database(server.url)) as database, database.engine.connect() as connection:
            held = dump.contents(database)
            revision = str(connection.exec_driver_sql("select version_num from alembic_version").scalar())
    finally:
        server.stop()
    return Manifest(archive.FORMAT, nematex.__version__, revision, now.isoformat(timespec="seconds"), held, {})


def let_old_go(folder: Path) -> list[Path]:
    """Remove the backups that no day, week or month needs."""
    found = backups_in(folder)
    gone = [path for made, path in found.items() if made not in kept(found)]
    for path in gone:
        path.unlink()
    return gone
