"""A backup holds the whole shop, is proved, and makes the same shop elsewhere."""

from __future__ import annotations

import threading
import time
from datetime import datetime, timedelta
from pathlib import Path

import backups
import pytest
from backups import GIVEN_OUT, KEY, NOON, exports, put_back, running
from sqlalchemy import text

from nematex.command.background.keeping import back_up_if_due
from nematex.command.backup.archive import BackupFault
from nematex.command.backup.making import backups_in, let_old_go, make
from nematex.command.backup.restoring import opened, restore_there, take_its_place
from nematex.command.mariadb import LocalMariaDB
from nematex.core.retention import kept
from nematex.store.database import Database
from nematex.store.trail.triggers import out_of_place
from nematex.usecases.held.shop import Shop

pytestmark = pytest.mark.breaking
backup = backups.backup  # the fixture


def test_on_an_empty_machine_it_makes_a_shop_of_equal_exports(demo: Shop, tmp_path: Path) -> None:
    with demo.database.work() as work:
        work.execute(text("delete from job where id = (select max(id) from job)"))  # a number that was given out once
    path = make(demo.database.url, tmp_path / "backups", NOON, KEY)
    assert path.stat().st_mode & 0o077 == 0
    elsewhere = tmp_path / "empty"
    elsewhere.mkdir()
    assert put_back(path, elsewhere) is None
    numbers = text(
        "select table_name, auto_increment from information_schema.tables where table_schema = database() order by 1"
    )
    with running(elsewhere) as restored:
        assert exports(restored) == exports(demo.database)
        with restored.engine.connect() as connection, demo.database.engine.connect() as before:
            assert out_of_place(connection) == {}
            found, wanted = (dict(each.execute(numbers).all()) for each in (connection, before))  # type: ignore[arg-type]
            assert found | {"trail": 0} == wanted | {"trail": 0}  # that the links ended is on the trail
            names = [name for (name,) in before.execute(text("show tables"))]
            assert len(names) > 35
            for name in names:
                query = text(f"select * from `{name}`")
                found, wanted = list(connection.execute(query)), list(before.execute(query))
                if name in ("programme", "sew_along", "setting", "trail", *GIVEN_OUT):
                    continue  # public links and what else was given out are ended: below
                assert found == wanted, name


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
    while not written:
        time.sleep(0.01)
    try:
        path = make(demo.database.url, tmp_path / "backups", NOON, KEY)
    finally:
        stop.set()
        writer.join()
    assert len(written) > 5
    put_back(path, tmp_path)
    with running(tmp_path) as database, database.engine.connect() as connection:
        query = text(f"select count(distinct notes) from cloth where id in ({first}, {second})")
        assert connection.execute(query).scalar() == 1


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


def test_a_database_of_somebody_elses_server_must_be_empty(backup: Path, demo: Shop, tmp_path: Path) -> None:
    with opened(backup, KEY, "", False, tmp_path) as found, pytest.raises(BackupFault, match="not empty"):
        restore_there(found, demo.database.url)


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
    first = back_up_if_due(demo.database, tmp_path, NOON, KEY)
    assert first is not None
    assert back_up_if_due(demo.database, tmp_path, NOON + timedelta(hours=23), KEY) is None
    assert back_up_if_due(demo.database, tmp_path, NOON + timedelta(hours=25), KEY) is not None
    assert back_up_if_due(demo.database, tmp_path, NOON - timedelta(days=3), KEY) is not None, "a clock that jumped back"
    (tmp_path / "nematex-20190101T000000.tar").write_bytes(b"old")
    for day in range(1, 9):
        (tmp_path / f"nematex-201902{day:02}T000000.tar").write_bytes(b"old")
    let_old_go(tmp_path)
    assert len(backups_in(tmp_path)) <= 23


def test_it_goes_to_a_second_place_too(database: Database, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("NEMATEX_BACKUPS_TOO", str(tmp_path / "other disk"))
    path = make(database.url, tmp_path / "backups", NOON, KEY)
    assert (tmp_path / "other disk" / path.name).read_bytes() == path.read_bytes()
    monkeypatch.setenv("NEMATEX_BACKUPS_TOO", "/proc/nowhere")
    with pytest.raises(BackupFault, match=r"NEMATEX_BACKUPS_TOO.*could not be copied"):
        make(database.url, tmp_path / "backups", NOON + timedelta(seconds=1), KEY)
    assert len(backups_in(tmp_path / "backups")) == 2, "the backup itself is made"
