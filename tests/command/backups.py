"""What the tests of backups share: a backup of the made-up shop, putting one back, and a server to put it on."""

from __future__ import annotations

import contextlib
from collections.abc import Iterator
from datetime import datetime
from pathlib import Path

import pytest
from hypothesis import strategies as st

from nematex.command.backup.archive import BackupFault
from nematex.command.backup.making import make
from nematex.command.backup.restoring import opened, restore_here
from nematex.command.mariadb import LocalMariaDB
from nematex.store.database import Database
from nematex.usecases.cloth.exchange import cloths_json
from nematex.usecases.held.shop import Shop
from nematex.usecases.pattern.exchange import patterns_json

NOON = datetime(2026, 11, 27, 12)
KEY, OTHER_KEY = b"k" * 64, b"o" * 64
WORD = "bean row lawn and kelp"


def put_back(path: Path, home: Path, word: str = "", another_shops: bool = False) -> Path | None:
    """As `./nematex restore` does it; returns where the shop of before lies."""
    with opened(path, KEY, word, another_shops, home) as found:
        return restore_here(found, home)[0]


@contextlib.contextmanager
def running(home: Path) -> Iterator[Database]:
    server = LocalMariaDB(home)
    server.start()
    try:
        with contextlib.closing(Database(server.url)) as database:
            yield database
    finally:
        server.stop()


def exports(database: Database) -> tuple[str, str]:
    state = Shop(database).now()
    return cloths_json(state.shelf.records), patterns_json(state.drawer.records)


GIVEN_OUT = ("sign_in", "invitation", "remote", "remote_press")


@pytest.fixture(scope="module")
def backup(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """A backup of an empty shop."""
    server = LocalMariaDB(tmp_path_factory.mktemp("small"))
    server.start()
    try:
        database = Database(server.url)
        database.migrate()
        database.close()
        return make(server.url, tmp_path_factory.mktemp("backups"), NOON, KEY)
    finally:
        server.stop()


def refused(path: Path, home: Path) -> str | None:
    """What is said of a backup that is not put back; None where it was."""
    try:
        put_back(path, home)
    except BackupFault as fault:
        return str(fault)
    return None


WORDS = st.one_of(
    st.none(), st.booleans(), st.integers(), st.floats(), st.text(max_size=40), st.lists(st.integers(), max_size=3)
)
