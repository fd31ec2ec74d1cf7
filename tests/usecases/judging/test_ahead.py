"""What is judged before it is saved holds when it is there: nothing is left for the pages, and nothing wrong is taken over."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from nematex.core.judging.matrix import matrix
from nematex.core.pattern.facts import Wish
from nematex.store.cloth.cloths import save_cloths
from nematex.store.pattern.patterns import save_patterns
from nematex.store.records import ClothRecord, PatternRecord
from nematex.usecases.cloth.exchange import cloths_csv
from nematex.usecases.cloth.lists.importing import apply, send
from nematex.usecases.cloth.together import Change, ask_change, seen_by
from nematex.usecases.held.shop import Shop
from nematex.usecases.jobs.asking import look
from nematex.usecases.judging import ahead, whole_matrix
from nematex.usecases.judging.ahead import judge_ahead
from nematex.usecases.judging.carried import Carried
from nematex.usecases.judging.whole_matrix import whole


@pytest.fixture(autouse=True)
def large(monkeypatch: pytest.MonkeyPatch) -> None:
    """Any shop is too large for a page to judge by the way."""
    for module in (ahead, whole_matrix):
        monkeypatch.setattr(module, "AT_ONCE", 0)


def new_cloths(demo: Shop, count: int = 25) -> list[ClothRecord]:
    return [
        replace(record, id=0, code=f"NEW-{at}", facts=replace(record.facts, name=f"New {at}", weight_gsm=71.5 + 9 * at))
        for at, record in enumerate(demo.now().shelf.records[:count])
    ]


def new_patterns(demo: Shop, count: int = 5) -> list[PatternRecord]:
    return [
        replace(record, id=0, code=f"NEW-{at}", facts=replace(record.facts, name=f"New {at}", details=("gathers",)))
        for at, record in enumerate(demo.now().drawer.records[:count])
    ]


def carried(shop: Shop) -> Carried:
    """What another process of the shop finds, which has judged nothing itself."""
    found = whole_matrix._carried(shop, shop.now())
    assert found is not None
    return found


def holds(shop: Shop) -> bool:
    """Whether the matrix is what one judged from nothing is."""
    state = shop.now()
    judged = matrix(state.shelf.columns, state.drawer.demands(Wish()), state.tables)
    found = whole(shop, state)
    return all(np.array_equal(mine, its) for mine, its in zip(found._parts, judged._parts, strict=True))


def test_what_was_judged_ahead_is_there_when_it_is_saved(demo: Shop) -> None:
    cloths, patterns = new_cloths(demo), new_patterns(demo)
    judge_ahead(demo, cloths, patterns)
    with demo.database.work() as work:
        save_cloths(work, cloths)
        save_patterns(work, patterns)
    other = Shop(demo.database)
    assert carried(other).due == 0
    assert holds(other)


def test_what_is_saved_otherwise_than_foreseen_is_judged_anew(demo: Shop) -> None:
    cloths = new_cloths(demo)
    judge_ahead(demo, cloths)
    moved = replace(cloths[3], facts=replace(cloths[3].facts, weight_gsm=402.0))
    with demo.database.work() as work:
        save_cloths(work, [*cloths[:3], moved, *cloths[4:]])
    other = Shop(demo.database)
    state, found = other.now(), carried(other)
    assert [state.shelf.records[at].code for at in np.flatnonzero(found.cloths_due)] == [moved.code]
    assert holds(other)


def test_a_price_list_is_judged_before_it_is_on_the_shelf(demo: Shop) -> None:
    listed = send(demo, "list.csv", cloths_csv(new_cloths(demo)).encode(), "Mill")
    assert apply(demo, listed) is not None
    other = Shop(demo.database)
    assert carried(other).due == 0
    assert holds(other)


def test_a_change_to_many_is_judged_before_it_is_made(demo: Shop) -> None:
    numbers = [record.id for record in demo.now().shelf.records[:30]]
    seen = ask_change(demo, Change(numbers, "width_cm", "137", "test"), [])
    looked = look(demo.database, seen)
    assert looked is not None
    sign = seen_by(looked[0])
    assert sign is not None
    ask_change(demo, Change(numbers, "width_cm", "137", "test", sign.sign), [])
    other = Shop(demo.database)
    assert {record.facts.width_cm for record in other.now().shelf.records if record.id in numbers} == {137}
    assert carried(other).due == 0
    assert holds(other)


def test_little_is_left_to_the_pages(demo: Shop, monkeypatch: pytest.MonkeyPatch) -> None:
    for module in (ahead, whole_matrix):
        monkeypatch.setattr(module, "AT_ONCE", 200_000)
    judge_ahead(demo, new_cloths(demo))
    assert whole_matrix._fetched(Shop(demo.database), demo.now(), 0) == (None, 0)
