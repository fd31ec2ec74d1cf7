"""What the worker judged and kept is used where it still holds, cloth by cloth, and nowhere else."""

from __future__ import annotations

import json
import zlib
from dataclasses import replace

import numpy as np
import pytest

from nematex.core.judging.matrix import matrix
from nematex.core.pattern.facts import Wish
from nematex.store.cloth.cloths import save_cloths
from nematex.store.pattern.patterns import save_patterns
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State
from nematex.usecases.judging import packed
from nematex.usecases.judging.edition import edition
from nematex.usecases.judging.packed import Kept, pack, unpack


def kept(state: State) -> bytes:
    judged = matrix(state.shelf.columns, state.drawer.demands(Wish()), state.tables)
    return pack(state, judged)


def unpacked(content: bytes) -> Kept:
    found = unpack(content)
    assert found is not None
    return found


def test_what_is_packed_is_unpacked_the_same(demo: Shop) -> None:
    state = demo.now()
    judged = matrix(state.shelf.columns, state.drawer.demands(Wish()), state.tables)
    found = unpacked(pack(state, judged))
    for mine, its in zip(judged._parts, found.matrix._parts, strict=True):
        np.testing.assert_array_equal(mine, its)
    patterns, cloths = found.places(state)
    assert patterns == list(range(len(state.drawer.records)))
    assert cloths == list(range(len(state.shelf.records)))


def test_only_what_the_rules_see_is_judged_anew(demo: Shop) -> None:
    content = kept(demo.now())
    records = demo.now().shelf.records
    with demo.database.work() as work:
        save_cloths(work, [replace(records[3], notes="seen on the table", stock_m=1.5)])
        save_cloths(work, [replace(records[5], facts=replace(records[5].facts, weight_gsm=77.0))])
        pattern = demo.now().drawer.records[2]
        save_patterns(work, [replace(pattern, facts=replace(pattern.facts, details=("gathers",)))])
    state = demo.now()
    patterns, cloths = unpacked(content).places(state)
    assert [state.shelf.records[at].id for at, place in enumerate(cloths) if place < 0] == [records[5].id]
    assert [state.drawer.records[at].id for at, place in enumerate(patterns) if place < 0] == [pattern.id]


def test_what_another_program_kept_is_not_read(demo: Shop, monkeypatch: pytest.MonkeyPatch) -> None:
    state = demo.now()
    content = kept(state)
    _, _, rest = zlib.decompress(content).partition(b"\n")
    earlier = {"cloths": [1, 2], "patterns": [1], "shelf": 3, "drawer": 1, "rules": "0"}
    assert unpack(zlib.compress(json.dumps(earlier).encode() + b"\n" + rest)) is None
    assert unpacked(content).rules == packed.rules_of(state)
    monkeypatch.setattr(packed, "edition", lambda: "of other rules")
    assert unpacked(content).rules != packed.rules_of(state)
    assert len(edition()) == 16
