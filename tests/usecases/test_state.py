"""One state in hand, renewed by what changed: after any change it is what a shop that starts now would read."""

from __future__ import annotations

import gc
import threading
from collections.abc import Callable
from dataclasses import fields, replace

import numpy as np
import pytest
from conftest import tried_app
from sqlalchemy import event, text

from nematex.core.quantity.arrays import Column
from nematex.store.cloth.cloths import bin_cloths, change_cloth, change_cloths, save_cloths
from nematex.store.database import Database
from nematex.store.judging.rule_fixes import set_rule
from nematex.store.pattern.patterns import bin_pattern, save_patterns
from nematex.store.programme.programmes import add_pick, save_programme
from nematex.store.records import RuleFix
from nematex.usecases.held.shelf import Shelf
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State
from nematex.usecases.judging.carried import Carried
from nematex.usecases.judging.whole_matrix import whole


def work_everything_out(state: State) -> State:
    """As pages do: columns, filters and searches are there, so that the next state takes them over."""
    shelf = state.shelf
    assert len(shelf.columns) == len(shelf.records) == len(shelf.filed.regular) == len(shelf.search_keys)
    return state


def parts_of(value: object) -> dict[str, object]:
    """A column or a mapping by its parts; anything else as it is."""
    if isinstance(value, Column):
        return {each.name: getattr(value, each.name) for each in fields(value)}
    return dict(value) if isinstance(value, dict) else {"": value}


def same_columns(one: object, other: object) -> None:
    for each in fields(one):  # type: ignore[arg-type]
        mine, its = parts_of(getattr(one, each.name)), parts_of(getattr(other, each.name))
        for name, value in mine.items():
            if isinstance(value, np.ndarray) and value.dtype.kind == "f":
                np.testing.assert_allclose(value, its[name], err_msg=f"{each.name} {name}")  # type: ignore[arg-type]
            else:
                np.testing.assert_array_equal(value, its[name], err_msg=f"{each.name} {name}")  # type: ignore[arg-type]


def same_shelf(one: Shelf, other: Shelf) -> None:
    assert one.records == other.records
    assert [cloth.weight for cloth in one.cloths] == [cloth.weight for cloth in other.cloths]
    same_columns(one.columns, other.columns)
    same_columns(one.filed, other.filed)
    assert one.search_keys == other.search_keys
    assert (one.place, dict(one.spans)) == (other.place, dict(other.spans))


CHANGES: dict[str, Callable[[Shop, State], None]] = {}


def change(name: str) -> Callable[[Callable[[Shop, State], None]], Callable[[Shop, State], None]]:
    def keep(act: Callable[[Shop, State], None]) -> Callable[[Shop, State], None]:
        CHANGES[name] = act
        return act

    return keep


@change("a value")
def _value(shop: Shop, state: State) -> None:
    with shop.database.work() as work:
        change_cloth(work, state.shelf.records[7].id, {"weight_gsm": 133.0, "price_per_m": 9})


@change("a name, and so its place")
def _name(shop: Shop, state: State) -> None:
    with shop.database.work() as work:
        change_cloth(work, state.shelf.records[0].id, {"name": "Zz last of all", "colours": ["#102030", "#405060"]})


@change("one more, one less")
def _more_and_less(shop: Shop, state: State) -> None:
    record = state.shelf.records[3]
    with shop.database.work() as work:
        save_cloths(work, [replace(record, code="NEW-1", facts=replace(record.facts, name="A first of all"))])
        bin_cloths(work, [state.shelf.records[5].id])


@change("a removed cloth that comes again")
def _again(shop: Shop, state: State) -> None:
    record = state.shelf.records[4]
    with shop.database.work() as work:
        bin_cloths(work, [record.id])
    shop.now()
    with shop.database.work() as work:
        save_cloths(work, [record])


@change("the price of every cloth")
def _prices(shop: Shop, state: State) -> None:
    with shop.database.work() as work:
        change_cloths(work, {record.id: {"price_per_m": 3 + record.id, "stock_m": 2.0} for record in state.shelf.records})


@change("some cloths to the rules, others in price alone")
def _mixed(shop: Shop, state: State) -> None:
    with shop.database.work() as work:
        values = [{"weight_gsm": 99.0 + at} if at % 3 else {"supplier": f"Mill {at}"} for at in range(len(state.shelf.records))]
        change_cloths(work, {record.id: value for record, value in zip(state.shelf.records, values, strict=True)})


@change("a pattern")
def _pattern(shop: Shop, state: State) -> None:
    first, second = state.drawer.records[:2]
    with shop.database.work() as work:
        save_patterns(work, [replace(first, facts=replace(first.facts, recommended="denim, canvas"))])
        bin_pattern(work, second.id)


@change("a pattern that was picked")
def _picked(shop: Shop, state: State) -> None:
    with shop.database.work() as work:
        bin_pattern(work, state.programmes[0].picks[0].pattern_id)


@change("a programme and a pick")
def _programme(shop: Shop, state: State) -> None:
    first = state.programmes[0]
    with shop.database.work() as work:
        add_pick(work, first.id, replace(first.picks[0], line="once more"))
        save_programme(work, "Shown twice", None, "")


@change("a rule, a cloth and a pattern")
def _both(shop: Shop, state: State) -> None:
    _rule(shop, state)
    _value(shop, state)
    _pattern(shop, state)


@change("a rule")
def _rule(shop: Shop, state: State) -> None:
    with shop.database.work() as work:
        set_rule(work, RuleFix("judging", "tolerance", "weight", 0.3, 0.15, "tried"))


@pytest.mark.parametrize("name", CHANGES)
def test_a_renewed_state_is_what_a_shop_that_starts_now_reads(demo: Shop, name: str) -> None:
    before = work_everything_out(demo.now())
    known = whole(demo, before)
    CHANGES[name](demo, before)
    after, fresh = demo.now(), Shop(demo.database)
    assert after is not before
    same_shelf(after.shelf, fresh.now().shelf)
    assert after.drawer.records == fresh.now().drawer.records
    assert (after.programmes, after.times_picked) == (fresh.now().programmes, fresh.now().times_picked)
    assert after.drawer.interpretations == fresh.now().drawer.interpretations
    renewed, anew = whole(demo, after), whole(fresh, fresh.now())
    np.testing.assert_array_equal(renewed.verdict, anew.verdict)
    np.testing.assert_allclose(renewed.score, anew.score)
    np.testing.assert_array_equal(renewed.open_checks, anew.open_checks)
    assert known.verdict.shape == (len(before.drawer.records), len(before.shelf.records)), "the state before stays as it was"


def test_a_matrix_is_carried_over_many_changes_and_judged_where_somebody_looks(demo: Shop) -> None:
    first = demo.now()
    held = Carried.nothing(first).completed()
    assert (held.due, Carried.nothing(first).due) == (0, held.matrix.verdict.size)
    of_one = ("a value", "a name, and so its place", "one more, one less", "a removed cloth that comes again", "a pattern")
    for name in (*of_one, "the price of every cloth", "a pattern that was picked", "a programme and a pick"):
        CHANGES[name](demo, demo.now())
        carried = held.to(demo.now())
        assert carried is not None
        held = carried
    state = demo.now()
    patterns, cloths = np.arange(len(state.drawer.records)), np.arange(len(state.shelf.records))
    assert 0 < held.due < len(patterns) * len(cloths) / 4, "most of it was taken over"
    anew = Carried.nothing(state).completed().matrix
    parts = ((patterns, cloths), (patterns[::-1], cloths[:1]), (patterns[2:5], cloths[::3]), (patterns[:0], cloths))
    for rows, columns in parts:
        found, wanted = held.part(rows, columns), anew.taken(rows, columns)
        for mine, its in zip(found._parts, wanted._parts, strict=True):
            np.testing.assert_allclose(mine, its)
    assert held.due, "looking at a part leaves the rest due"
    assert held.completed().due == 0
    CHANGES["a rule"](demo, state)
    assert held.to(demo.now()) is None


def test_what_did_not_change_is_taken_over_and_only_the_changed_rows_are_read(demo: Shop) -> None:
    before = work_everything_out(demo.now())
    read: list[int] = []

    def count(_c: object, _cursor: object, statement: str, *_: object) -> None:
        if statement.startswith("SELECT cloth.") and "cloth.version >" in statement:
            read.append(1)

    _value(demo, before)
    event.listen(demo.database.engine, "before_cursor_execute", count)
    after = demo.now()
    event.remove(demo.database.engine, "before_cursor_execute", count)
    assert read == [1]
    untouched = [one is other for one, other in zip(before.shelf.cloths, after.shelf.cloths, strict=True)]
    assert untouched.count(False) == 1
    assert after.drawer is before.drawer
    assert after.programmes is before.programmes
    assert demo.now() is after


def test_another_price_of_every_cloth_leaves_nothing_to_be_judged(demo: Shop) -> None:
    before = work_everything_out(demo.now())
    held = Carried.nothing(before).completed()
    _prices(demo, before)
    after = demo.now()
    assert [record.stock_m for record in after.shelf.records] == [2.0] * len(before.shelf.records)
    carried = held.to(after)
    assert carried is not None
    assert carried.due == 0


def test_every_process_sees_the_others_changes(demo: Shop) -> None:
    other = Shop(demo.database)
    record = other.now().shelf.records[0]
    with demo.database.work() as work:
        change_cloth(work, record.id, {"stock_m": 77.5})
    assert other.now().shelf.records[other.now().shelf.place[record.id]].stock_m == 77.5


def test_two_writers_never_take_one_number(demo: Shop) -> None:
    before, ids = demo.now().shelf.version, [record.id for record in demo.now().shelf.records[:8]]

    def write(cloth_id: int) -> None:
        with demo.database.work() as work:
            change_cloth(work, cloth_id, {"notes": "at once"})

    threads = [threading.Thread(target=write, args=(cloth_id,)) for cloth_id in ids]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    state = demo.now()
    assert state.shelf.version == before + len(ids)
    versions = [state.shelf.records[state.shelf.place[cloth_id]].version for cloth_id in ids]
    assert sorted(versions) == list(range(before + 1, before + len(ids) + 1))


def test_hundreds_of_changes_leave_nothing_behind(demo: Shop) -> None:
    """Counted in objects, not in bytes: earlier states and their cloths are let go."""
    cloth_id = demo.now().shelf.records[0].id

    def held() -> int:
        gc.collect()
        return sum(isinstance(each, (Shelf, State)) for each in gc.get_objects())

    for number in range(20):
        with demo.database.work() as work:
            change_cloth(work, cloth_id, {"stock_m": float(number)})
        work_everything_out(demo.now())
    first = held()
    for number in range(300):
        with demo.database.work() as work:
            change_cloth(work, cloth_id, {"stock_m": float(number % 90)})
        demo.now()
    assert held() <= first + 1


def test_an_envelope_that_cannot_be_read_takes_no_page_down(demo: Shop, monkeypatch: pytest.MonkeyPatch) -> None:
    from nematex.usecases.held import drawer as room

    bad = demo.now().drawer.records[2]
    sound = room.read_pattern

    def broken(facts: object, tables: object) -> object:
        if facts == bad.facts:
            raise IndexError("as version 0.3.0 did")
        return sound(facts, tables)  # type: ignore[arg-type]

    monkeypatch.setattr(room, "read_pattern", broken)
    client = tried_app(demo.database).test_client()
    pages = ("/", "/patterns", f"/patterns/{bad.id}", "/pairing", "/shelf/1", "/pairing/cloth/1", "/matrix", "/quality")
    for address in (*pages, "/bench/1", "/bench", "/hands", "/programmes/1", "/programmes/1/notes"):
        assert client.get(address).status_code == 200, address
    shown = client.get(f"/patterns/{bad.id}").get_data(as_text=True)
    assert "cannot be read" in shown


def test_the_versions_survive_a_restart(database: Database) -> None:
    shop = Shop(database)
    assert shop.now().shelf.version == 0
    with database.engine.begin() as connection:
        assert connection.execute(text("select count(*) from gone")).scalar() == 0
