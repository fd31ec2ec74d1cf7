"""Takes and chapters, by hand and by properties; that a chapter lasts 10 s and the first begins at 0 is common practice, no
source, of services that show films."""

from __future__ import annotations

from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from nematex.core.air.pace import CLOSING, OPENING, PLACE, Filmed, learned
from nematex.core.air.take import (
    KINDS,
    LEAST_CHAPTER_S,
    Chapter,
    Event,
    chapters,
    film_s,
    filmed_again,
    is_over,
    length_s,
    seconds_by_part,
    taken_out,
)
from nematex.tables import trade_tables


def take(*told: tuple[str, float, int]) -> list[Event]:
    return [Event(kind, at_s, part) for kind, at_s, part in told]


PLAIN = take(("open", 0, 0), ("open", 40, 1), ("said", 50, 1), ("open", 130, 2), ("open", 260, 3), ("end", 290, 3))


def test_chapters_of_a_take_that_went_through() -> None:
    assert chapters(PLAIN) == [Chapter(0, (0,)), Chapter(40, (1,)), Chapter(130, (2,)), Chapter(260, (3,))]
    assert seconds_by_part(PLAIN) == {0: 40, 1: 90, 2: 130, 3: 30}
    assert is_over(PLAIN)
    assert not is_over(PLAIN[:-1])


def test_a_pause_and_a_place_filmed_again_are_not_in_the_film() -> None:
    """Place 1 begins at 40, stands still from 60 to 75 (so 15 s), and is filmed again at 100: 60 s of it go, pause and all."""
    told = take(
        ("open", 0, 0), ("open", 40, 1), ("pause", 60, 1), ("go", 75, 1), ("again", 100, 1), ("open", 190, 2), ("end", 250, 2)
    )
    assert taken_out(told) == [(40, 100)]
    assert filmed_again(told) == [(40, 100)]
    assert chapters(told) == [Chapter(0, (0,)), Chapter(40, (1,)), Chapter(130, (2,))]
    assert seconds_by_part(told) == {0: 40, 1: 90, 2: 60}
    assert length_s(told) == 190


def test_only_a_pause() -> None:
    told = take(("open", 0, 0), ("pause", 20, 0), ("pause", 25, 0), ("open", 50, 1), ("end", 100, 1))
    assert taken_out(told) == [(20, 50)]
    assert film_s(35, taken_out(told)) == 20
    assert chapters(told) == [Chapter(0, (0,)), Chapter(20, (1,))]


def test_going_back_makes_no_second_chapter_and_counts_for_its_own_place() -> None:
    told = take(
        ("open", 0, 0), ("open", 30, 1), ("open", 100, 2), ("open", 120, 1), ("open", 150, 2), ("open", 220, 3), ("end", 240, 3)
    )
    assert [each.parts for each in chapters(told)] == [(0,), (1,), (2,), (3,)]
    assert seconds_by_part(told) == {0: 30, 1: 100, 2: 90, 3: 20}


def test_an_edit_shifts_all_but_the_first_and_what_is_too_short_goes_into_the_one_before() -> None:
    assert [each.start_s for each in chapters(PLAIN, 12)] == [0, 52, 142, 272]
    assert chapters(PLAIN, -35) == [Chapter(0, (0, 1)), Chapter(95, (2,)), Chapter(225, (3,))]
    passed = take(("open", 0, 0), ("open", 30, 1), ("open", 34, 2), ("open", 90, 3), ("end", 95, 3))
    assert chapters(passed) == [Chapter(0, (0,)), Chapter(30, (1, 2, 3))]


events = st.builds(
    Event, st.sampled_from(KINDS), st.floats(0, 7200, allow_nan=False), st.integers(0, 14), st.just(""), st.just("")
)


@given(st.lists(events, max_size=40), st.floats(-600, 600, allow_nan=False))
def test_chapters_of_any_take_begin_at_nought_rise_and_last(told: list[Event], offset_s: float) -> None:
    found = chapters(told, offset_s)
    assert all(each.start_s == 0 for each in found[:1])
    assert all(b.start_s - a.start_s >= LEAST_CHAPTER_S for a, b in pairwise(found))
    parts = [part for each in found for part in each.parts]
    assert len(parts) == len(set(parts))
    assert 0 <= length_s(told) <= max((each.at_s for each in told), default=0.0) + 1e-6
    assert sum(seconds_by_part(told).values()) <= length_s(told) + 1e-6


def test_a_pace_is_learned_slowly() -> None:
    """Five places of 100 s that took 150 weigh as much as the estimate, which counts for five: 1.25.

    One place of 3 s and one of an hour tell nothing.
    """
    rule = trade_tables().judging.run
    assert rule.prior == 5
    places = [Filmed(PLACE, 100.0, 150.0)] * 5 + [Filmed(PLACE, 100.0, 3.0), Filmed(PLACE, 100.0, 3600.0)]
    found = learned([*places, Filmed(OPENING, 30.0, 60.0)], rule)
    assert found.of(PLACE) == pytest.approx(1.25)
    assert found.count == {PLACE: 5, OPENING: 1}
    assert found.of(OPENING) == pytest.approx((2.0 + 5.0) / 6)
    assert found.of(CLOSING) == 1.0
