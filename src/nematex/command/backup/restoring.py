"""Putting a backup back: into a new data folder, counted, and only then in the place of the old one, which is set aside."""

from __future__ import annotations

import os
import tempfile
from contextlib import closing
from itertools import count
from pathlib import Path

from nematex.command.backup import archive, dump
from nematex.command.backup.archive import BackupFault
from nematex.command.mariadb import LocalMariaDB
from nematex.store.database import Database
from nematex.store.files.column import place


def _keep_file(name: str, content: bytes) -> None:
    where = place()
    if where is None:
        raise BackupFault("this backup holds photos outside the database; say where they go: NEMATEX_FILES=/a/folder")
    where.put(name, content)


def _same(path: Path, wanted: dict[str, list[int]], found: dict[str, list[int]]) -> None:
    wrong = [name for name in wanted if found.get(name) != wanted[name]]
    if wrong:
        raise BackupFault(f"{path}: {', '.join(wrong[:5])} came back otherwise than it was written; nothing was changed")


def restore_here(path: Path, home: Path) -> Path | None:
    """Make the backup the shop of this folder. Returns where the shop of before is set aside, None if there was none.

    Raises BackupFault; whatever happens, the shop of before is whole.
    """
    manifest = archive.read_manifest(path)
    with tempfile.TemporaryDirectory(prefix="restoring-", dir=home) as work:
        sql = archive.unpack(path, Path(work), _keep_file)
        made = LocalMariaDB(Path(work) / "server")
        made.start()
        try:
            dump.load(made.url, sql)
            with closing(Database(made.url)) as database:
                _same(path, manifest.tables, dump.contents(database))
                database.migrate()
                database.check()
        finally:
            made.stop()
        return take_its_place(made.data, home)


def take_its_place(data: Path, home: Path) -> Path | None:
    """Two renames; a start between them finds the new folder by its name and finishes."""
    ready, now = home / "mariadb.restored", home / "mariadb"
    data.rename(ready)
    before = None
    if now.exists():
        before = home / f"mariadb.before-{next(n for n in count(1) if not (home / f'mariadb.before-{n}').exists())}"
        now.rename(before)
    ready.rename(now)
    os.sync()
    return before


def restore_there(path: Path, url: str) -> None:
    """Put the backup into a database of somebody else's server, which must be empty. Raises BackupFault."""
    manifest = archive.read_manifest(path)
    with closing(Database(url)) as database, tempfile.TemporaryDirectory(prefix="restoring-") as work:
        if dump.contents(database):
            raise BackupFault("DATABASE_URL: names a database that is not empty; make an empty one, or empty it yourself")
        dump.load(url, archive.unpack(path, Path(work), _keep_file))
        _same(path, manifest.tables, dump.contents(database))
        database.migrate()
