"""Two changes of one text in one: what one side left alone follows the other."""

from __future__ import annotations

from hypothesis import given
from hypothesis import strategies as st

from nematex.core.three_way import merge

TEXTS = st.lists(st.sampled_from(["one\n", "two\n", "three\n", "\n", "four\n"]), max_size=12)


@given(was=TEXTS, now=TEXTS)
def test_where_one_side_is_as_it_was_the_other_comes_out_whole(was: list[str], now: list[str]) -> None:
    assert merge(was, was, now) == (now, 0)
    assert merge(was, now, was) == (now, 0)
    assert merge(was, now, now) == (now, 0)


@given(was=TEXTS, mine=TEXTS, theirs=TEXTS)
def test_who_is_on_which_side_decides_clashes_alone(was: list[str], mine: list[str], theirs: list[str]) -> None:
    one, other = merge(was, mine, theirs), merge(was, theirs, mine)
    assert one[1] == other[1]
    assert one[0] == other[0] or one[1]


def test_both_change_and_clash_where_they_meet() -> None:
    was = ["intro\n", "price 9\n", "middle\n", "end\n"]
    apart = merge(was, ["my intro\n", *was[1:]], [*was[:3], "their end\n"])
    assert apart == (["my intro\n", "price 9\n", "middle\n", "their end\n"], 0)
    clash = merge(was, [*was[:1], "price 7\n", *was[2:]], [*was[:1], "price 8\n", *was[2:]])
    assert clash == ([*was[:1], "price 7\n", *was[2:]], 1)
