"""The shop's acts on a real database: ranking with filters, forms, several people at once, a lost database."""

from __future__ import annotations

import threading
from dataclasses import replace

import pytest
from conftest import tried_app

from nematex.command.mariadb import LocalMariaDB
from nematex.core.errors import FieldFault, UnknownChoice
from nematex.core.pattern.facts import Wish
from nematex.demo.load import load_demo
from nematex.store.cloth.cloths import save_cloths
from nematex.store.database import Database
from nematex.store.programme import programmes as programme_store
from nematex.store.records import Pick
from nematex.tables import trade_tables
from nematex.usecases.cloth.browse import browse_cloths, browse_patterns
from nematex.usecases.cloth.form import form_values, record_from_form
from nematex.usecases.cloth.shelf_filter import ShelfFilter
from nematex.usecases.held.drawer import Drawer
from nematex.usecases.held.shop import Shop
from nematex.usecases.judging.ranking import Filters, each_school, fitting_wish, rank_cloths, rank_patterns, read_wish
from nematex.usecases.pattern.form import form_values as pattern_values
from nematex.usecases.pattern.form import record_from_form as pattern_from_form
from nematex.usecases.programme.notes import entries


def test_filters_narrow_and_counts_follow(demo: Shop) -> None:
    shelf, drawer = demo.now().shelf, demo.now().drawer
    pattern = next(record for record in drawer.records if record.code == "TP-21")
    everything = rank_cloths(demo, demo.now(), pattern, Wish(), Filters(set_aside=True))
    assert everything.total == len(shelf.records) == sum(everything.counts.values())
    offered = rank_cloths(demo, demo.now(), pattern, Wish(), Filters())
    assert offered.total < everything.total
    suits = rank_cloths(demo, demo.now(), pattern, Wish(), Filters(verdict="suits"))
    assert suits.total == offered.counts["suits"]
    assert {row.verdict.word for row in suits.rows} == {"suits"}
    knits = rank_cloths(demo, demo.now(), pattern, Wish(), Filters(structure="knit"))
    assert {row.cloth.structure for row in knits.rows} == {"knit"}
    stocked = rank_cloths(demo, demo.now(), pattern, Wish(), Filters(in_stock=True, set_aside=True))
    assert all((row.cloth_record.stock_m or 0) >= 1.8 for row in stocked.rows)
    assert [row.cloth_record.facts.name for row in rank_cloths(demo, demo.now(), pattern, Wish(), Filters(q="kelp")).rows] == [
        "Kelp Ladder challis"
    ]


def test_pages_cover_the_ranking_without_gap(demo: Shop) -> None:
    pattern = demo.now().drawer.records[0]
    first = rank_cloths(demo, demo.now(), pattern, Wish(), Filters())
    names = [
        row.cloth_record.code
        for page in range(1, first.pages + 1)
        for row in rank_cloths(demo, demo.now(), pattern, Wish(), Filters(page=page)).rows
    ]
    assert len(names) == len(set(names)) == first.total
    assert rank_cloths(demo, demo.now(), pattern, Wish(), Filters(page=999)).page == first.pages


def test_linings_are_offered_only_where_the_list_asks_for_them(demo: Shop) -> None:
    shelf, drawer = demo.now().shelf, demo.now().drawer
    asking = replace(drawer.records[0], facts=replace(drawer.records[0].facts, recommended="viscose lining, satin"))
    state = replace(demo.now(), drawer=Drawer.of(0, [asking], shelf.tables))
    offered = rank_cloths(demo, state, asking, Wish(), Filters(q="Sloe lining"))
    assert "Sloe lining" in [row.cloth_record.facts.name for row in offered.rows]
    for record in drawer.records:
        for row in rank_cloths(demo, demo.now(), record, Wish(), Filters(q="Sloe lining")).rows:
            pytest.fail(f"{row.cloth_record.facts.name} is offered for {record.facts.name}")


def test_both_directions_agree(demo: Shop) -> None:
    shelf = demo.now().shelf
    at = shelf.place[next(record.id for record in shelf.records if record.code == "OW-202")]
    for row in rank_patterns(demo, demo.now(), shelf.records[at], Wish(), Filters()).rows:
        back = rank_cloths(demo, demo.now(), row.pattern_record, Wish(), Filters(q="Oyster Bed", set_aside=True)).rows[0]
        assert (back.verdict, back.amount) == (row.verdict, row.amount)


def test_each_school_is_always_shown(demo: Shop) -> None:
    shelf, drawer = demo.now().shelf, demo.now().drawer
    pattern = next(record for record in drawer.records if record.code == "TP-21")
    poplin = next(cloth for cloth in shelf.cloths if cloth.name == "Thrift viscose lawn")
    assert {school: verdict.word for school, verdict in each_school(demo, demo.now(), pattern, poplin, Wish()).items()} == {
        "list": "with care",
        "kin": "suits",
        "hand": "suits",
    }


def test_a_wish_that_a_pattern_cannot_grant_is_dropped_or_refused(demo: Shop) -> None:
    pattern = demo.now().drawer.records[0]
    assert fitting_wish(pattern, Wish("Z", "99", "tail")) == Wish()
    with pytest.raises(UnknownChoice, match="look: 'wild'"):
        read_wish({"look": "wild"})


def test_browsing_finds_by_code_fibre_mill_and_kind(demo: Shop) -> None:
    shelf, drawer = demo.now().shelf, demo.now().drawer
    for words, codes in (
        ("LF-301", ["LF-301"]),
        ("gannet gingham", ["GM-108"]),
        ("55% hemp", ["OW-207"]),
        ("orrery denim", ["OW-401", "OW-403", "OW-402"]),
        ("gannet denim", []),
    ):
        assert [record.code for record, _ in browse_cloths(shelf, ShelfFilter(q=words)).rows] == codes
    assert [record.code for record in browse_patterns(drawer, Filters(q="tiered")).rows] == ["TP-21"]
    assert {record.facts.structure for record in browse_patterns(drawer, Filters(structure="knit")).rows} == {"knit"}


def test_every_form_gives_back_what_it_was_given(demo: Shop) -> None:
    for record in demo.now().shelf.records:  # a rib 70 cm wide stays 70 cm and does not become 70 in
        again = record_from_form(form_values(record), record, trade_tables())
        assert replace(again, id=record.id, facts=replace(again.facts, known={})) == replace(
            record, facts=replace(record.facts, known={})
        )
    for pattern in demo.now().drawer.records:
        assert replace(pattern_from_form(pattern_values(pattern), pattern, trade_tables()), id=pattern.id) == pattern


@pytest.mark.parametrize(
    ("change", "words"),
    [
        ({"code": ""}, ["article code", "missing"]),
        ({"weight_gsm": "9000"}, ["weight", "9000", "10 to 1500"]),
        ({"stretch_cross_pct": "900"}, ["stretch across", "900", "400"]),
        ({"cloth": "unobtainium", "name": "zzz"}, ["unobtainium", "cloth name"]),
        ({"nap": "perhaps"}, ["nap", "neither yes nor no"]),
    ],
)
def test_a_form_fault_names_field_value_and_rule(demo: Shop, change: dict[str, str], words: list[str]) -> None:
    record = next(one for one in demo.now().shelf.records if one.code == "GM-101")
    with pytest.raises(FieldFault) as fault:
        record_from_form({**form_values(record), **change}, record, trade_tables())
    assert all(word in str(fault.value) for word in words), str(fault.value)


def test_a_pick_whose_size_is_gone_is_still_noted(demo: Shop) -> None:
    with demo.database.work() as work:
        made = programme_store.save_programme(work, "Gone", None, "")
        programme_store.add_pick(
            work, made, Pick(0, demo.now().shelf.records[0].id, demo.now().drawer.records[0].id, "", "no view", "99")
        )
    with demo.database.work() as work:
        found = programme_store.programme(work, made)
    assert found is not None
    entry = entries(demo, demo.now(), found)[0]
    assert entry.pairing is not None
    assert entry.problem == ""


def test_picks_added_at_once_get_places_of_their_own(demo: Shop) -> None:
    cloth, pattern = demo.now().shelf.records[0].id, demo.now().drawer.records[0].id
    with demo.database.work() as work:
        made = programme_store.save_programme(work, "Together", None, "")

    def add(number: int) -> None:
        with demo.database.work() as work:
            programme_store.add_pick(work, made, Pick(0, cloth, pattern, str(number)))

    threads = [threading.Thread(target=add, args=(number,)) for number in range(8)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    with demo.database.work() as work:
        found = programme_store.programme(work, made)
    assert found is not None
    assert sorted(pick.line for pick in found.picks) == [str(number) for number in range(8)]


def test_a_change_by_one_process_is_seen_by_another(demo: Shop) -> None:
    other = Shop(demo.database)
    before = other.now().shelf.version
    record = demo.now().shelf.records[0]
    with demo.database.work() as work:
        save_cloths(work, [replace(record, stock_m=123.5)])
    assert other.now().shelf.version != before
    assert other.now().shelf.records[other.now().shelf.place[record.id]].stock_m == 123.5


def test_a_lost_database_gets_its_own_page_and_comes_back(tmp_path_factory: pytest.TempPathFactory) -> None:
    folder = tmp_path_factory.mktemp("lost")
    server = LocalMariaDB(folder)
    server.start()
    database = Database(server.url)
    database.migrate()
    load_demo(database)
    client = tried_app(database).test_client()
    assert client.get("/shelf").status_code == 200
    server.stop()
    lost = client.get("/shelf")
    assert lost.status_code == 503
    assert "./nematex start" in lost.text
    again = LocalMariaDB(folder)
    again.start(server.port)
    try:
        assert client.get("/shelf").status_code == 200
    finally:
        database.close()
        again.stop()
