"""Making a backup, proving it, sending it elsewhere too, and letting old ones go."""

from __future__ import annotations

import gzip
import os
import shutil
import tempfile
from collections.abc import Iterator, Mapping
from contextlib import ExitStack, closing, contextmanager
from datetime import datetime
from pathlib import Path

import nematex
from nematex.command.backup import archive, elsewhere, sealed
from nematex.command.backup.archive import FORMAT, LINES, STAMP, BackupFault, Manifest, NotProved, TableTold, hash_of
from nematex.command.mariadb import LocalMariaDB
from nematex.core.retention import kept
from nematex.store.copying.filling import FillingFault, fill
from nematex.store.copying.tables import Held, held, one_moment, revision_of, tables_of, write_lines
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


def make(url: str, folder: Path, now: datetime, key: bytes) -> Path:
    """Write a backup and prove it: it is put into a database of its own, whose rows are read again. Raises BackupFault.

    It is sealed where there is a passphrase, and has its name when it is whole.
    """
    word = sealed.passphrase()
    folder.mkdir(parents=True, exist_ok=True, mode=0o700)
    _room(folder)
    path = folder / f"nematex-{now.strftime(STAMP)}.tar"
    with tempfile.TemporaryDirectory(prefix="nematex-backup-", dir=folder) as work:
        rows, plain = Path(work) / "rows", Path(work) / "shop.tar"
        manifest = read_rows(url, rows, now)
        prove(manifest, rows, Path(work) / "proof")
        archive.write(plain, manifest, rows, _files(), key)
        if word:
            fresh = Path(work) / "sealed.tar"
            sealed.seal(plain, fresh, word)
            fresh.replace(path)
        else:
            plain.replace(path)
    elsewhere.send(path)
    return path


def _room(folder: Path) -> None:
    """Refuse where the disk would fill up; raises BackupFault."""
    known = backups_in(folder)
    size = known[max(known)].stat().st_size if known else 0
    free = shutil.disk_usage(folder).free
    if free < max(LEAST_FREE * size, 200 * 2**20):
        raise BackupFault(f"{folder}: has {free // 2**20} MB free, too little for a backup; make room, or set NEMATEX_BACKUPS")


def read_rows(url: str, rows: Path, now: datetime) -> Manifest:
    """All rows of one moment as lines, while others go on writing; what they are, without the files."""
    rows.mkdir()
    tables = {}
    with closing(Database(url)) as database, one_moment(database) as connection:
        revision = revision_of(connection)
        for table in tables_of(connection):
            part = rows / f"{table.name}{LINES}"
            with gzip.open(part, "wb", compresslevel=5) as out:
                found = write_lines(connection, table, out)
            told: dict[str, object] = {"part_size": part.stat().st_size, "part_sha256": hash_of(part)}
            tables[table.name] = TableTold.model_validate(vars(found) | told)
    made_at = now.isoformat(timespec="seconds")
    return Manifest(format=FORMAT, program=nematex.__version__, revision=revision, made_at=made_at, tables=tables, files={})


@contextmanager
def _opened(manifest: Manifest, rows: Path) -> Iterator[Mapping[str, gzip.GzipFile]]:
    with ExitStack() as stack:
        yield {name: stack.enter_context(gzip.open(rows / f"{name}{LINES}", "rb")) for name in manifest.tables}


def put_in(database: Database, manifest: Manifest, rows: Path) -> None:
    """Make the tables of the manifest's revision in an empty database, fill them, and read them again. Raises BackupFault."""
    if not database.knows(manifest.revision):
        raise BackupFault(f"the backup is of a newer Nematex: its tables are at {manifest.revision}; install that one first")
    database.migrate(manifest.revision)
    told = {name: Held(one.rows, one.size, one.sha256, one.next) for name, one in manifest.tables.items()}
    try:
        with _opened(manifest, rows) as lines:
            fill(database, told, lines)
    except (FillingFault, *archive.UNREADABLE) as fault:
        raise BackupFault(f"the backup cannot be put back: {fault}; {archive.DAMAGED}") from fault
    found = held(database)
    wrong = [name for name, one in told.items() if (found[name].rows, found[name].sha256) != (one.rows, one.sha256)]
    if wrong:
        raise BackupFault(f"{', '.join(wrong[:5])} came back otherwise than it was written; {archive.DAMAGED}")


def prove(manifest: Manifest, rows: Path, folder: Path) -> None:
    """Put it into a server of its own, and find the same rows there. Raises NotProved."""
    server = LocalMariaDB(folder)
    server.start()
    try:
        with closing(Database(server.url)) as database:
            put_in(database, manifest, rows)
    except BackupFault as fault:
        raise NotProved(str(fault)) from fault
    finally:
        server.stop()


def let_old_go(folder: Path) -> list[Path]:
    """Remove the backups that no day, week or month needs."""
    found = backups_in(folder)
    gone = [path for made, path in found.items() if made not in kept(found)]
    for path in gone:
        path.unlink()
    return gone
