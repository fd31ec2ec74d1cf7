"""A backup holds the whole shop, is proved, and makes the same shop elsewhere; what is damaged is refused, nothing is lost."""

from __future__ import annotations

import shutil
import tarfile
import threading
from datetime import datetime, timedelta
from pathlib import Path

import pytest
from sqlalchemy import text

from nematex.command.backup import archive
from nematex.command.backup.archive import BackupFault, read_manifest
from nematex.command.backup.making import backups_in, let_old_go, make
from nematex.command.backup.restoring import restore_here, restore_there, take_its_place
from nematex.command.keeper import back_up_if_due
from nematex.command.mariadb import LocalMariaDB
from nematex.core.retention import kept
from nematex.store.database import Database
from nematex.store.trail.triggers import out_of_place
from nematex.usecases.cloth.exchange import cloths_json
from nematex.usecases.held.shop import Shop
from nematex.usecases.pattern.exchange import patterns_json

NOON = datetime(2026, 11, 27, 12)


def exports(database: Database) -> tuple[str, str]:
    state = Shop(database).now()
    return cloths_json(state.shelf.records), patterns_json(state.drawer.records)


def test_on_an_empty_machine_it_makes_a_shop_of_equal_exports(demo: Shop, tmp_path: Path) -> None:
    path = make(demo.database.url, tmp_path / "backups", NOON)
    assert path.stat().st_mode & 0o077 == 0
    elsewhere = tmp_path / "empty"
    elsewhere.mkdir()
    assert restore_here(path, elsewhere) is None
    server = LocalMariaDB(elsewhere)
    server.start()
    try:
        restored = Database(server.url)
        assert exports(restored) == exports(demo.database)
        with restored.engine.connect() as connection, demo.database.engine.connect() as before:
            assert out_of_place(connection) == {}
            for name in ("photo", "reading", "pick", "trail", "person", "setting", "make", "take_event"):
                query = text(f"select * from `{name}`")
                assert list(connection.execute(query)) == list(before.execute(query)), name
        restored.close()
    finally:
        server.stop()


def test_it_is_of_one_moment_while_others_write(demo: Shop, tmp_path: Path) -> None:
    """Two cloths are always changed together; in no backup do they differ."""
    first, second = (record.id for record in demo.now().shelf.records[:2])
    stop, written = threading.Event(), []

    def write() -> None:
        while not stop.is_set():
            with demo.database.work() as work:
                for number in (first, second):
                    work.execute(text(f"update cloth set notes = 'turn {len(written)}' where id = {number}"))
            written.append(1)

    writer = threading.Thread(target=write)
    writer.start()
    try:
        path = make(demo.database.url, tmp_path / "backups", NOON)
    finally:
        stop.set()
        writer.join()
    assert len(written) > 5
    restore_here(path, tmp_path)
    server = LocalMariaDB(tmp_path)
    server.start()
    try:
        database = Database(server.url)
        with database.engine.connect() as connection:
            query = text(f"select count(distinct notes) from cloth where id in ({first}, {second})")
            assert connection.execute(query).scalar() == 1
        database.close()
    finally:
        server.stop()


@pytest.fixture(scope="module")
def backup(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """A backup of an empty shop."""
    server = LocalMariaDB(tmp_path_factory.mktemp("small"))
    server.start()
    try:
        database = Database(server.url)
        database.migrate()
        database.close()
        return make(server.url, tmp_path_factory.mktemp("backups"), NOON)
    finally:
        server.stop()


@pytest.mark.parametrize("share", [0.0, 0.01, 0.3, 0.9, 0.999])
def test_a_damaged_one_is_refused_and_the_shop_of_before_is_whole(backup: Path, tmp_path: Path, share: float) -> None:
    (tmp_path / "mariadb").mkdir()
    (tmp_path / "mariadb" / "shop").write_text("whole")
    content = bytearray(backup.read_bytes())
    for name, cut in (("cut.tar", True), ("turned.tar", False)):
        at = int(share * (len(content) - 2048)) + 600
        spoilt = content[:at] if cut else content[:at] + bytes([content[at] ^ 0xFF]) + content[at + 1 :]
        (tmp_path / name).write_bytes(spoilt)
        said = refused(tmp_path / name, tmp_path)
        if said is None:  # the spoilt letter stood where tar keeps nothing
            assert not cut
            (before,) = tmp_path.glob("mariadb.before-*")
            shutil.rmtree(tmp_path / "mariadb")
            before.rename(tmp_path / "mariadb")
        assert (tmp_path / "mariadb" / "shop").read_text() == "whole"


def refused(path: Path, home: Path) -> str | None:
    """What is said of a backup that is not put back; None where it was."""
    try:
        restore_here(path, home)
    except BackupFault as fault:
        return str(fault)
    return None


def test_what_is_no_backup_is_named(tmp_path: Path) -> None:
    for name, content in (("none.tar", None), ("empty.tar", b""), ("text.tar", b"a price list\n" * 500)):
        if content is not None:
            (tmp_path / name).write_bytes(content)
        with pytest.raises(BackupFault, match=name):
            read_manifest(tmp_path / name)
    with tarfile.open(tmp_path / "other.tar", "w") as tar:
        archive._add(tar, archive.MANIFEST, b'{"format": 99}')
    with pytest.raises(BackupFault, match="another Nematex"):
        read_manifest(tmp_path / "other.tar")


def test_the_shop_of_before_is_set_aside_and_a_kill_between_the_renames_is_mended_by_the_next_start(tmp_path: Path) -> None:
    for name in ("mariadb", "new"):
        (tmp_path / name).mkdir()
        (tmp_path / name / "of").write_text(name)
    before = take_its_place(tmp_path / "new", tmp_path)
    assert before is not None
    assert (before / "of").read_text() == "mariadb"
    assert (tmp_path / "mariadb" / "of").read_text() == "new"
    server = LocalMariaDB(tmp_path / "killed")
    server.start()
    server.stop()
    server.data.rename(tmp_path / "killed" / "mariadb.restored")
    again = LocalMariaDB(tmp_path / "killed")
    again.start()
    again.stop()
    assert not list((tmp_path / "killed").glob("mariadb.unfinished*"))


def test_a_database_of_somebody_elses_server_must_be_empty(backup: Path, demo: Shop) -> None:
    with pytest.raises(BackupFault, match="not empty"):
        restore_there(backup, demo.database.url)


def test_a_day_a_week_a_month_is_kept() -> None:
    every = [NOON - timedelta(hours=12 * n) for n in range(2 * 500)]
    stay = kept(every)
    assert {NOON - timedelta(days=n) for n in range(7)} <= stay
    assert len(stay) <= 7 + 4 + 12
    assert min(stay) > NOON - timedelta(days=366)
    assert len({each.strftime("%Y-%m") for each in stay}) == 12
    assert kept(stay) == stay, "what stays today stays when nothing new came"


@pytest.mark.parametrize("nights", [400])
def test_kept_night_by_night_it_is_never_without_one_of_each_month(nights: int) -> None:
    held: set[datetime] = set()
    for night in range(nights):
        held = kept(held | {NOON + timedelta(days=night)})
    months = {each.strftime("%Y-%m") for each in held}
    assert len(months) == 12
    assert len(held) <= 23


def test_the_worker_makes_one_a_day_and_lets_old_ones_go(demo: Shop, tmp_path: Path) -> None:
    first = back_up_if_due(demo.database, tmp_path, NOON)
    assert first is not None
    assert back_up_if_due(demo.database, tmp_path, NOON + timedelta(hours=23)) is None
    assert back_up_if_due(demo.database, tmp_path, NOON + timedelta(hours=25)) is not None
    assert back_up_if_due(demo.database, tmp_path, NOON - timedelta(days=3)) is not None, "a clock that jumped back"
    (tmp_path / "nematex-20190101T000000.tar").write_bytes(b"old")
    for day in range(1, 9):
        (tmp_path / f"nematex-201902{day:02}T000000.tar").write_bytes(b"old")
    let_old_go(tmp_path)
    assert len(backups_in(tmp_path)) <= 23
