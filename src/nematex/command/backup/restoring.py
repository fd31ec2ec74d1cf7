"""Putting a backup back: into new tables, read again, and only then in the place of the old ones, which are set aside."""

from __future__ import annotations

import os
import tempfile
from collections.abc import Iterator
from contextlib import closing, contextmanager
from itertools import count
from pathlib import Path

from nematex.command.backup import archive, sealed
from nematex.command.backup.archive import FILES, ROWS, AnotherShops, BackupFault, Manifest
from nematex.command.backup.making import put_in
from nematex.command.mariadb import LocalMariaDB
from nematex.store.copying.tables import drop_all, is_empty
from nematex.store.database import Database
from nematex.store.files.column import place
from nematex.usecases.people.clean_cut import ComeBack, who_came_back


@contextmanager
def opened(path: Path, key: bytes, word: str, another_shops: bool, near: Path) -> Iterator[tuple[Manifest, Path]]:
    """What a backup holds, unpacked into a folder beside `near`, every part held against its hash. Raises BackupFault."""
    with tempfile.TemporaryDirectory(prefix="restoring-", dir=near) as work:
        if sealed.is_sealed(path):
            if not word:
                raise BackupFault(f"{path}: is sealed; give the passphrase, or name its file: {sealed.SETTING}")
            path = sealed.unseal(path, Path(work), word)
        try:
            manifest = archive.trusted(path, key)
        except AnotherShops:
            if not another_shops:
                raise
            manifest = archive.read_manifest(path)
        archive.unpack(path, manifest, Path(work))
        yield manifest, Path(work)


def _keep_files(folder: Path) -> None:
    where = place()
    for each in sorted((folder / FILES).iterdir()):
        if where is None:
            raise BackupFault("this backup holds photos outside the database; say where they go: NEMATEX_FILES=/a/folder")
        where.put(each.name, each.read_bytes())


def _made_ours(database: Database) -> ComeBack:
    """At this program's own revision, and nobody in it who was not let in anew."""
    database.migrate()
    database.check()
    return who_came_back(database)


def restore_here(opened_: tuple[Manifest, Path], home: Path) -> tuple[Path | None, ComeBack]:
    """Make the backup the shop of this folder. Returns where the shop of before is set aside (None: there was none), and
    who is in the shop again.

    Raises BackupFault; whatever happens, the shop of before is whole.
    """
    manifest, work = opened_
    made = LocalMariaDB(work / "server")
    made.start()
    try:
        with closing(Database(made.url)) as database:
            put_in(database, manifest, work / ROWS)
            back = _made_ours(database)
    finally:
        made.stop()
    _keep_files(work)
    return take_its_place(made.data, home), back


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


def restore_there(opened_: tuple[Manifest, Path], url: str) -> ComeBack:
    """Put the backup into a database of somebody else's server, which must be empty, and is again where it goes wrong.

    Raises BackupFault.
    """
    manifest, work = opened_
    with closing(Database(url)) as database:
        if not is_empty(database):
            raise BackupFault("DATABASE_URL: names a database that is not empty; make an empty one, or empty it yourself")
        try:
            put_in(database, manifest, work / ROWS)
            _keep_files(work)
            return _made_ours(database)
        except BaseException:
            drop_all(database)
            raise
