"""What the doctor sees of a well shop and of ill ones, and what it says to do."""

from __future__ import annotations

from datetime import datetime, timedelta
from pathlib import Path

import pytest
from sqlalchemy import text

from nematex.command.doctor import machine
from nematex.command.doctor.contradictions import CONTRADICTIONS
from nematex.command.doctor.data import look_at_data
from nematex.command.doctor.finding import CARE, ILL, WELL, Finding
from nematex.usecases.held.shop import Shop


def found(shop: Shop, now: datetime | None = None) -> dict[str, Finding]:
    return {each.what: each for each in look_at_data(shop.database, now or datetime.now())}


def test_the_made_up_shop_is_well_but_for_its_owner(demo: Shop) -> None:
    seen = found(demo)
    assert {each.what for each in seen.values() if each.state != WELL} == {"people"}
    assert seen["people"].do


SPOILT = {
    "data": "update cloth set stock_m = -3 where id = 1",
    "trail": "drop trigger trail_pattern_update",
    "jobs": "insert into job (kind, asked_key, asked, about, state, done, total, found, message, tries, made_at) "
    "values ('lay', 'k', '', '{}', 'waiting', 0, 0, '', '', 0, '2020-01-01')",
    "photos": "update photo set content = 'nematex-file:0000' limit 1",
    "migrations": "update alembic_version set version_num = '0019'",
}


@pytest.mark.parametrize("what", SPOILT)
def test_what_is_spoilt_is_seen_and_says_what_to_do(demo: Shop, what: str) -> None:
    with demo.database.engine.begin() as connection:
        connection.execute(text(SPOILT[what]))
    try:
        seen = found(demo)[what]
    finally:
        with demo.database.engine.begin() as connection:
            connection.execute(text("update alembic_version set version_num = '0020'"))
        demo.database.migrate()
    assert seen.state == ILL
    assert seen.do


def test_a_clock_that_is_off_is_seen(demo: Shop) -> None:
    assert found(demo, datetime.now() + timedelta(days=2))["clock"].state == ILL
    with demo.database.engine.begin() as connection:
        made = "insert into trail (at, who, kind, row_id, act, changes) values ('2099-01-01', 'x', 'cloth', 1, 'made', '{}')"
        connection.execute(text(made))
    assert found(demo)["clock"].state == CARE


def test_every_contradiction_is_a_query_that_runs(demo: Shop) -> None:
    with demo.database.engine.connect() as connection:
        assert [connection.exec_driver_sql(query).scalar() for _, query in CONTRADICTIONS] == [0] * len(CONTRADICTIONS)


def test_a_folder_that_others_may_enter_and_old_backups_are_seen(tmp_path: Path) -> None:
    tmp_path.chmod(0o755)
    assert machine.look_at_rights(tmp_path).state == ILL
    tmp_path.chmod(0o700)
    assert machine.look_at_rights(tmp_path).state == WELL
    assert machine.look_at_backups(tmp_path, datetime.now()).state == CARE
    (tmp_path / "backups").mkdir()
    (tmp_path / "backups" / "nematex-20200101T000000.tar").write_bytes(b"no backup")
    assert machine.look_at_backups(tmp_path, datetime.now()).state == ILL
    assert all(each.state in (WELL, CARE, ILL) for each in machine.look_at_disk(tmp_path))
