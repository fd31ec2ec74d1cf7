"""Whoever a pattern does not reach is told of another of its look that does: never of one that does not reach either."""

from __future__ import annotations

from dataclasses import replace

import pytest

from nematex.core.pattern.look import look_of
from nematex.core.pattern.sizing import Body, choose_size
from nematex.store.records import PatternRecord
from nematex.usecases.held.shop import Shop
from nematex.usecases.pattern.sizes import others_reaching


def short(record: PatternRecord) -> PatternRecord:
    """The same pattern with its smallest three sizes alone."""
    return replace(record, facts=replace(record.facts, sizes=record.facts.sizes[:3]))


@pytest.mark.parametrize("hip", [100.0, 120.0, 140.0, 160.0])
def test_every_pattern_that_is_named_reaches_and_is_of_the_same_sort(demo: Shop, hip: float) -> None:
    state, body = demo.now(), Body(bust_cm=hip - 6, hip_cm=hip)
    for record in state.drawer.records:
        found = others_reaching(state.drawer.records, short(record), body, state.tables)
        assert len(found) <= 3
        for each in found:
            assert each.record.id != record.id
            assert each.record.facts.wearer == record.facts.wearer
            assert look_of(each.record.facts, state.tables).kind == look_of(record.facts, state.tables).kind
            sizes = {choice.size for choice in choose_size(each.record.facts, body, state.tables)}
            assert set(each.sizes) <= sizes
            assert each.sizes
        if hip > 143:  # beyond every table of the made-up shop
            assert found == []


def test_the_nearest_in_look_comes_first(demo: Shop) -> None:
    state = demo.now()
    sheath = next(each for each in state.drawer.records if each.facts.name == "Merlin sheath")
    found = others_reaching(state.drawer.records, short(sheath), Body(bust_cm=120.0, hip_cm=126.0), state.tables)
    assert [each.record.facts.garment for each in found]
    assert all("dress" in each.record.facts.garment for each in found)
    twin = replace(sheath, id=99_999)
    first = others_reaching([twin, *state.drawer.records], short(sheath), Body(bust_cm=120.0, hip_cm=126.0), state.tables)[0]
    assert (first.record.id, first.differs) == (99_999, ())
