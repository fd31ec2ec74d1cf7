"""An upgrade that is ended anywhere is finished by the next start; of two at once one does it; what is refused is said."""

from __future__ import annotations

import threading
from pathlib import Path

import pytest
from conftest import empty
from sqlalchemy import event, text
from store.test_earlier_shops import EDITIONS, counts, load

from nematex.command.mariadb import LocalMariaDB
from nematex.command.service.database import prepare
from nematex.store.database import Database
from nematex.store.faults import SchemaFault
from nematex.store.trail.triggers import out_of_place

pytestmark = pytest.mark.breaking

CHANGES = ("create", "alter", "drop", "insert", "update")


class Killed(BaseException):
    """Stands for the process that is gone; a connection that is closed unkept is all the server sees of it."""


class Killer:
    """Ends a migration right after each statement that changes something, once for each."""

    def __init__(self, database: Database) -> None:
        self.seen: set[str] = set()
        self.kills = 0
        event.listen(database.engine, "after_cursor_execute", self._after)

    def _after(self, _connection: object, _cursor: object, statement: str, given: object, *_rest: object) -> None:
        named = f"{statement} {given}"
        if statement.lstrip().lower().startswith(CHANGES) and named not in self.seen:
            self.seen.add(named)
            self.kills += 1
            raise Killed


def survive(database: Database, killer: Killer) -> None:
    while True:
        before = killer.kills
        try:
            database.migrate()
        except Killed:
            assert killer.kills == before + 1, "it came further than before"
            database.engine.dispose()
            continue
        return


FIRST = "b036a9e"  # a shop of the first revision: on its way it meets every later one
OTHERS = [pytest.param(each, marks=pytest.mark.long) for each in (None, *EDITIONS) if each != FIRST]


@pytest.mark.parametrize("edition", [FIRST, *OTHERS])
def test_killed_after_each_statement_of_each_revision_the_shop_comes_up_whole(bare: Database, edition: str | None) -> None:
    if edition:
        load(bare, edition)
    before = counts(bare)
    killer = Killer(bare)
    survive(bare, killer)
    assert killer.kills > (100 if edition is None else 40)
    bare.check()
    after = counts(bare)
    assert {name: after[name] for name in before if name != "reading"} == {
        name: number for name, number in before.items() if name != "reading"
    }
    with bare.engine.connect() as connection:
        assert out_of_place(connection) == {}
        twice = "select count(*) from (select cloth_id, property, count(*) n from reading group by 1, 2 having n > 1) x"
        assert connection.execute(text(twice)).scalar() == 0, "no first reading was taken twice"


def test_a_table_that_an_ended_upgrade_left_is_taken_as_it_is(bare: Database) -> None:
    """As it was found: the table of revision 0018 there, its number not noted down."""
    bare.migrate("0018")
    with bare.engine.begin() as connection:
        connection.execute(text("update alembic_version set version_num = '0017'"))
    bare.migrate()
    bare.check()
    assert bare.is_current()


def test_a_start_finishes_what_an_earlier_program_left_half_done_and_keeps_a_whole_shop_first(
    bare: Database, tmp_path: Path, monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]
) -> None:
    monkeypatch.setenv("NEMATEX_HOME", str(tmp_path))
    bare.migrate("0017")
    prepare(bare.url, demo=False)
    (kept,) = (tmp_path / ".nematex/backups/before-upgrades/0017").glob("*.tar")
    assert str(kept) in capsys.readouterr().out
    empty(bare)
    bare.migrate("0018")
    with bare.engine.begin() as connection:  # its tables are there, its number is not
        connection.execute(text("update alembic_version set version_num = '0017'"))
    kept.unlink()
    prepare(bare.url, demo=False)
    assert "half way between two versions" in capsys.readouterr().out
    bare.check()


def test_of_several_machines_on_one_empty_database_one_migrates_and_the_others_wait(bare: Database) -> None:
    faults: list[BaseException] = []

    def start() -> None:
        own = Database(bare.url)
        try:
            own.migrate()
            own.check()
        except BaseException as fault:
            faults.append(fault)
        finally:
            own.close()

    machines = [threading.Thread(target=start) for _ in range(4)]
    for each in machines:
        each.start()
    for each in machines:
        each.join()
    assert faults == []


def test_a_name_that_another_shop_of_the_server_holds_is_free(mariadb: LocalMariaDB, bare: Database, tmp_path: Path) -> None:
    """Two shops on one server, each a database of its own: their jobs have the same numbers."""
    with mariadb.connect() as other, other.cursor() as cursor:
        cursor.execute("select get_lock('nematex job 14', 0), get_lock('another: nematex job 14', 0)")
        assert cursor.fetchone() == (1, 1)
        with bare.lock("nematex job 14") as free:
            assert free
            assert bare.is_locked("nematex job 14")
            with bare.lock("nematex job 14") as again:
                assert not again


@pytest.mark.parametrize("trusts", [False, True])
def test_a_binary_log_and_an_ordinary_account(tmp_path: Path, trusts: bool) -> None:
    server = LocalMariaDB(tmp_path, more=("--log-bin=log", f"--log-bin-trust-function-creators={int(trusts)}"))
    server.start()
    try:
        database = Database(server.url)
        if trusts:
            database.migrate()
            database.check()
        else:
            with pytest.raises(SchemaFault, match="log_bin_trust_function_creators = 1"):
                database.migrate()
            with database.engine.connect() as connection:
                assert connection.execute(text("show tables")).first() is None, "nothing was changed"
        database.close()
    finally:
        server.stop()
