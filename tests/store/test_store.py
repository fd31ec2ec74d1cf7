"""The store on a real MariaDB: round trips, migrations, import twice, crash and restart."""

from __future__ import annotations

import json
import os
import signal
from dataclasses import replace
from pathlib import Path

import pytest
from alembic.autogenerate import compare_metadata
from alembic.migration import MigrationContext
from messy import MESSY_LIST

from nematex.command.mariadb import LocalMariaDB
from nematex.demo.load import load_demo
from nematex.store.cloth.cloths import save_cloths
from nematex.store.database import Database
from nematex.store.models import Base
from nematex.store.programme import programmes as programme_store
from nematex.store.records import Pick
from nematex.tables import trade_tables
from nematex.usecases.cloth.exchange import cloths_csv, cloths_json
from nematex.usecases.cloth.lists.choosing import choose_columns
from nematex.usecases.cloth.lists.importing import apply, preview, send
from nematex.usecases.held.shop import Shop
from nematex.usecases.pattern.exchange import patterns_csv, patterns_json, read_patterns
from nematex.usecases.pattern.importing import import_patterns


def test_the_migrations_make_exactly_the_models(database: Database) -> None:
    with database.engine.connect() as connection:
        context = MigrationContext.configure(connection, opts={"compare_type": True})
        assert compare_metadata(context, Base.metadata) == []


def test_the_demo_loads_once_and_holds_what_it_should(demo: Shop) -> None:
    assert load_demo(demo.database) is False
    shelf, drawer = demo.now().shelf, demo.now().drawer
    assert len(shelf.records) >= 60
    assert len(drawer.records) >= 18
    assert all(record.facts.requirements and record.facts.sizes for record in drawer.records)
    assert {cloth.structure for cloth in shelf.cloths} == {"woven", "knit", "net"}
    assert {record.facts.print.direction for record in shelf.records} >= {"one-way", "two-way", "all-over", "none"}
    assert any(record.facts.deadstock for record in shelf.records)
    with demo.database.work() as work:
        assert len(programme_store.all_programmes(work)) >= 3


@pytest.mark.parametrize("export", [cloths_csv, cloths_json])
def test_cloths_come_back_the_same(demo: Shop, export) -> None:  # type: ignore[no-untyped-def]
    before = demo.now().shelf.records
    sent = send(demo, "cloths", export(before).encode())
    found = preview(demo, sent)
    assert found is not None
    assert found.faults == []
    assert {change.kind for change in found.changes} == {"same"}
    with demo.database.work() as work:
        save_cloths(work, [change.record for change in found.changes])
    assert demo.now().shelf.records == before


@pytest.mark.parametrize("export", [patterns_csv, patterns_json])
def test_patterns_come_back_the_same(demo: Shop, export) -> None:  # type: ignore[no-untyped-def]
    before = demo.now().drawer.records
    records, faults = read_patterns(export(before).encode(), "patterns", trade_tables())
    assert faults == []
    assert [replace(record, id=0) for record in before] == records


def test_importing_again_updates_by_code_and_doubles_nothing(database: Database) -> None:
    shop = Shop(database)
    first = apply(shop, send(shop, "list.csv", MESSY_LIST.encode("cp1252")))
    assert first is not None
    assert (first.count("new"), len(first.bad)) == (7, 2)
    again = apply(shop, send(shop, "list.csv", MESSY_LIST.encode("cp1252")))
    assert again is not None
    assert (again.count("new"), again.count("same")) == (0, 7)
    dearer = MESSY_LIST.replace("£11.40", "£12.10").replace("Fen-edge jersey", "Fen edge jersey")
    third = apply(shop, send(shop, "list.csv", dearer.encode("cp1252")))
    assert third is not None
    changed = [change for change in third.changes if change.kind == "changed"]
    assert [(label, old, new) for label, old, new in changed[0].fields] == [
        ("name", "Fen-edge jersey", "Fen edge jersey"),
        ("price", "11.4", "12.1"),
    ]
    assert len(shop.now().shelf.records) == 7


def test_what_a_list_leaves_out_stays(database: Database) -> None:
    shop = Shop(database)
    apply(shop, send(shop, "a.csv", b"code,name,weight,width,price\nA,blue lawn,80,140,9\n"))
    apply(shop, send(shop, "b.csv", b"code,name,price\nA,blue lawn,11\n"))
    record = shop.now().shelf.records[0]
    assert (record.facts.weight_gsm, record.facts.width_cm, str(record.price_per_m)) == (80, 140, "11.0000")


def test_a_corrected_mapping_is_used(database: Database) -> None:
    shop = Shop(database)
    sent = send(shop, "a.csv", b"nr,text,x\nA,blue lawn,80\n")
    choose_columns(shop, sent, {0: "code", 1: "name", 2: "weight_gsm"})
    apply(shop, sent)
    assert shop.now().shelf.records[0].facts.weight_gsm == 80
    with pytest.raises(ValueError, match="choose it once"):
        choose_columns(shop, sent, {0: "code", 1: "code"})


def test_picks_keep_their_order(demo: Shop) -> None:
    cloth, pattern = demo.now().shelf.records[0].id, demo.now().drawer.records[0].id
    with demo.database.work() as work:
        made = programme_store.save_programme(work, "Order", None, "")
        for line in "abc":
            programme_store.add_pick(work, made, Pick(0, cloth, pattern, line))
            work.flush()

    def lines() -> str:
        with demo.database.work() as work:
            found = programme_store.programme(work, made)
        assert found is not None
        return "".join(pick.line for pick in found.picks)

    def move(line: str, step: int) -> None:
        with demo.database.work() as work:
            found = programme_store.programme(work, made)
            assert found is not None
            programme_store.move_pick(work, made, next(p.id for p in found.picks if p.line == line), step)

    assert lines() == "abc"
    move("c", -1)
    assert lines() == "acb"
    move("a", -1)
    assert lines() == "acb"
    move("a", 1)
    assert lines() == "cab"


def test_bad_patterns_are_returned_and_the_good_ones_kept(database: Database) -> None:
    shop = Shop(database)
    rows = [
        {"code": "A", "name": "Good", "structure": "woven"},
        {"code": "B", "name": "Bad", "structure": "paper"},
        {"code": "C"},
    ]
    saved, faults = import_patterns(shop, "p.json", json.dumps(rows).encode())
    assert saved == 1
    assert {(fault.row, fault.column) for fault in faults} == {(2, "structure"), (3, "name")}


def test_after_a_killed_database_every_committed_row_is_there(tmp_path: Path) -> None:
    server = LocalMariaDB(tmp_path)
    server.start()
    database = Database(server.url)
    database.migrate()
    load_demo(database)
    before = Shop(database).now().shelf.records
    assert server.process is not None
    os.kill(server.process.pid, signal.SIGKILL)
    server.process.wait()
    again = LocalMariaDB(tmp_path)
    again.start(server.port)
    try:
        assert again.port == server.port
        assert Shop(database).now().shelf.records == before  # the same engine: its dead connections are replaced
    finally:
        database.close()
        again.stop()
