"""The trail: who changed what, from what to what, by whatever way it was written."""

from __future__ import annotations

from contextlib import suppress
from datetime import datetime, timedelta

import pytest
from sqlalchemy import text

from nematex.store.database import Database, DatabaseRefused
from nematex.store.trail.kept import HIDDEN, KEPT
from nematex.store.trail.reading import Step, forget_before, steps
from nematex.store.trail.triggers import install, out_of_place
from nematex.store.trail.who import UNTOLD, acting
from nematex.usecases.held.shop import Shop


def of(database: Database, kind: str, row_id: int | None = None) -> list[Step]:
    with database.work() as work:
        return steps(work, kind, row_id).rows


def run(database: Database, who: str, sql: str) -> None:
    with acting(who), database.work() as work:
        work.execute(text(sql))


def test_every_column_of_a_cloth_that_changes_is_told_before_and_after(demo: Shop) -> None:
    number = demo.now().shelf.records[0].id
    with demo.database.engine.connect() as connection:
        asked = "select column_name, data_type from information_schema.columns where table_name = 'cloth'"
        columns = connection.execute(text(asked))
        kinds = {name: kind for name, kind in columns if name not in ("id", "code_key", "photo_id", *HIDDEN)}
    fresh = {"date": "'2031-02-03'", "datetime": "'2031-02-03 04:05:06'", "longtext": "'[\"#010203\"]'"}
    fresh["tinyint"] = "1 - coalesce(%s, 0)"
    for name, kind in kinds.items():
        value = fresh.get(kind, "'é'" if "char" in kind or kind == "text" else "7").replace("%s", name)
        run(demo.database, "Wren", f"update cloth set `{name}` = {value} where id = {number}")
        latest = of(demo.database, "cloth", number)[0]
        assert (latest.who, latest.act) == ("Wren", "changed"), name
        assert set(latest.changes) == {name}
        assert latest.changes[name][0] != latest.changes[name][1]


@pytest.mark.parametrize(("before", "after"), [("PE-e", "PE-é"), ("a", "A"), ("🧵", "🪡"), ("x", "x "), ("", "0")])
def test_texts_that_the_collation_takes_for_one_are_told_apart(demo: Shop, before: str, after: str) -> None:
    number = demo.now().shelf.records[0].id
    for value in (before, after):
        with acting("Wren"), demo.database.work() as work:
            work.execute(text("update cloth set notes = :value where id = :id"), {"value": value, "id": number})
    assert of(demo.database, "cloth", number)[0].changes == {"notes": (before, after)}


def test_what_is_as_it_was_and_what_counts_up_leaves_no_step(demo: Shop) -> None:
    number = demo.now().shelf.records[0].id
    before = len(of(demo.database, "cloth", number))
    run(demo.database, "Wren", f"update cloth set version = version + 1, name = name where id = {number}")
    run(demo.database, UNTOLD, f"update cloth set stock_m = 1.5 where id = {number}")
    assert len(of(demo.database, "cloth", number)) == before


def test_a_programmes_trail_has_its_picks_also_those_that_went(demo: Shop) -> None:
    programme = demo.now().programmes[0]
    run(demo.database, "Tamsin", f"update pick set line = 'Touch it.' where id = {programme.picks[0].id}")
    run(demo.database, "Wren", f"delete from pick where id = {programme.picks[0].id}")
    found = of(demo.database, "programme", programme.id)
    told = [(each.kind, each.who, each.act) for each in found[:2]]
    assert told == [("pick", "Wren", "removed"), ("pick", "Tamsin", "changed")]
    assert found[0].changes["line"] == ("Touch it.", None)


def test_what_was_rolled_back_left_no_step_and_a_lost_connection_is_told_again_who_acts(demo: Shop) -> None:
    number = demo.now().shelf.records[0].id
    before = len(of(demo.database, "cloth", number))
    with pytest.raises(DatabaseRefused):
        run(demo.database, "Wren", f"update cloth set notes = 'never', name = repeat('x', 9000) where id = {number}")
    with acting("Wren"), suppress(ZeroDivisionError), demo.database.work() as work:
        work.execute(text(f"update cloth set notes = 'never' where id = {number}"))
        raise ZeroDivisionError
    assert len(of(demo.database, "cloth", number)) == before
    demo.database.close()  # every connection is opened anew
    run(demo.database, "Tamsin", f"update cloth set notes = 'kept' where id = {number}")
    run(demo.database, "Wren", f"update cloth set notes = 'kept again' where id = {number}")
    assert [each.who for each in of(demo.database, "cloth", number)[:2]] == ["Wren", "Tamsin"]


def test_no_secret_is_on_the_trail() -> None:
    person = next(kept for kept in KEPT if kept.kind == "person")
    secret = {column.name for column in person.table.__table__.columns} & HIDDEN
    assert {"password_hash", "code_secret", "spare_codes"} <= secret


def test_triggers_that_were_lost_or_are_anothers_are_put_right(database: Database) -> None:
    with database.engine.begin() as connection:
        assert out_of_place(connection) == {}
        connection.execute(text("drop trigger trail_cloth_update"))
        connection.execute(text("drop trigger trail_pick_delete"))
        connection.execute(text("create trigger trail_pick_delete after delete on pick for each row begin end"))
        assert set(out_of_place(connection)) == {"trail_cloth_update", "trail_pick_delete"}
        install(connection)
        assert out_of_place(connection) == {}


def test_it_is_read_in_pages_and_what_is_old_goes(demo: Shop) -> None:
    number = demo.now().shelf.records[0].id
    for turn in range(55):
        run(demo.database, "Wren", f"update cloth set notes = '{turn}' where id = {number}")
    with demo.database.work() as work:
        first = steps(work, "cloth", number, 1)
        last = steps(work, "cloth", number, first.pages)
        assert (len(first.rows), first.pages) == (50, 2)
        assert first.rows[0].changes["notes"] == ("53", "54")
        assert last.rows
        assert steps(work, "cloth", number, 999).page == 2
        assert forget_before(work, 30, datetime.now() + timedelta(days=31)) >= 55
        assert steps(work, "cloth", number).rows == []
