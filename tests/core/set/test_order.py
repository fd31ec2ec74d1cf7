"""A place that was moved lands where it was put, and leaves every other move alone."""

from __future__ import annotations

from hypothesis import given
from hypothesis import strategies as st

from nematex.core.set.order import with_moved

ORDERS = st.lists(st.integers(1, 30), unique=True, min_size=1, max_size=12)


@given(ORDERS, st.data())
def test_with_nobody_else_about_it_is_what_was_seen(now: list[int], data: st.DataObject) -> None:
    moved = data.draw(st.sampled_from(now))
    seen = [each for each in now if each != moved]
    seen.insert(data.draw(st.integers(0, len(seen))), moved)
    assert with_moved(now, seen, moved) == seen


@given(ORDERS, ORDERS, st.integers(1, 30))
def test_nothing_is_lost_doubled_or_put_about_but_the_one_that_was_moved(now: list[int], seen: list[int], moved: int) -> None:
    found = with_moved(now, seen, moved)
    assert sorted(found) == sorted(now)
    assert [each for each in found if each != moved] == [each for each in now if each != moved]


def test_two_moves_of_one_order_both_hold() -> None:
    start = [1, 2, 3, 4, 5]
    first = with_moved(start, [5, 1, 2, 3, 4], 5)
    assert with_moved(first, [2, 3, 1, 4, 5], 1) == [5, 2, 3, 1, 4]
