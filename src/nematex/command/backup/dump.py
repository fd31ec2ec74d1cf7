"""The database as SQL and back, by the server's own programs; the password reaches them in a private file."""

from __future__ import annotations

import gzip
import shutil
import subprocess
import tempfile
from collections.abc import Iterator
from contextlib import contextmanager, suppress
from pathlib import Path
from typing import IO

from sqlalchemy import make_url

from nematex.command.backup.archive import BackupFault
from nematex.store.connecting import read_url
from nematex.store.database import Database

CHUNK = 2**20
HOW = ("--single-transaction", "--quick", "--hex-blob", "--skip-triggers", "--skip-lock-tables", "--no-tablespaces")


@contextmanager
def _told(url: str) -> Iterator[tuple[list[str], str]]:
    """Arguments that name server and account, and the database's name."""
    first, places = read_url(url)
    lines = ["[client]", f"user={first.username}", f'password="{first.password}"', "default-character-set=utf8mb4"]
    near = make_url(str(first)).query.get("unix_socket")
    lines += [f"socket={near}"] if near else [f"host={places[0][0]}", f"port={places[0][1]}", "protocol=tcp"]
    with tempfile.TemporaryDirectory(prefix="nematex-") as folder:
        path = Path(folder) / "client.cnf"
        path.touch(mode=0o600)
        path.write_text("\n".join(lines) + "\n")
        yield [f"--defaults-file={path}"], first.database or "nematex"


def _program(name: str) -> str:
    found = shutil.which(name)
    if found is None:
        raise BackupFault(f"{name} is missing; install it: apt-get install mariadb-client")
    return found


def dump(url: str, path: Path) -> None:
    """Write the database as it was at one moment, while others go on writing. Triggers are the program's, not the data's."""
    with _told(url) as (told, name), gzip.open(path, "wb", compresslevel=5) as out, tempfile.TemporaryFile() as said:
        asked = [_program("mariadb-dump"), *told, *HOW, name]
        with subprocess.Popen(asked, stdout=subprocess.PIPE, stderr=said) as done:
            assert done.stdout is not None
            shutil.copyfileobj(done.stdout, out, CHUNK)
        _must_be_well(done.returncode, said, "mariadb-dump did not end well")


def load(url: str, path: Path) -> None:
    """Put a dump into an empty database. Raises BackupFault."""
    with _told(url) as (told, name), gzip.open(path, "rb") as content, tempfile.TemporaryFile() as said:
        asked = [_program("mariadb"), *told, "--max-allowed-packet=512M", name]
        with subprocess.Popen(asked, stdin=subprocess.PIPE, stderr=said) as done:
            assert done.stdin is not None
            with suppress(BrokenPipeError):  # what went wrong is said below
                shutil.copyfileobj(content, done.stdin, CHUNK)
        _must_be_well(done.returncode, said, "the backup could not be put back")


def _must_be_well(code: int | None, said: IO[bytes], what: str) -> None:
    said.seek(0)
    if code:
        raise BackupFault(f"{what}: {said.read().decode(errors='replace').strip()[-500:]}")


def contents(database: Database) -> dict[str, list[int]]:
    """Table → [rows, checksum] as the server reckons them."""
    found = {}
    with database.engine.connect() as connection:
        names = [str(row[0]) for row in connection.exec_driver_sql("show tables")]
        for name in names:
            rows = connection.exec_driver_sql(f"select count(*) from `{name}`").scalar()
            check = connection.exec_driver_sql(f"checksum table `{name}`").fetchone()
            found[name] = [int(rows or 0), int(check[1] or 0) if check else 0]
    return found
