"""The schedule against what its paper says (Wozniak, Optimization of learning, 1990, SM-2, from memory), and grades by hand."""

from __future__ import annotations

from datetime import date, timedelta
from math import ceil

import pytest
from hypothesis import given
from hypothesis import strategies as st

from nematex.core.air.practice.grading import bias, grade_of_number, grade_of_verdict, off_share, spread
from nematex.core.air.practice.schedule import LEAST_EASE, Card, answered, moved_ease
from nematex.core.judging.verdict import Verdict

TODAY = date(2026, 11, 26)


@pytest.mark.parametrize(
    ("grade", "change"), [(5, 0.10), (4, 0.0), (3, -0.14), (2, -0.32), (1, -0.54), (0, -0.80)]
)  # the paper's formula 0.1 - (5 - q)(0.08 + (5 - q) 0.02), worked out by hand
def test_the_ease_moves_as_the_paper_says(grade: int, change: float) -> None:
    assert moved_ease(2.5, grade) == pytest.approx(2.5 + change)
    assert moved_ease(1.3, grade) >= LEAST_EASE


def test_intervals_of_what_is_always_known() -> None:
    """1, 6, then times the ease: with grade 4 it stays at 2.5: 15, 38 (37.5 up), 95."""
    card, days = Card(), []
    for _ in range(5):
        card = answered(card, 4, max(card.due, TODAY))
        days.append(card.interval_days)
    assert days == [1, 6, 15, 38, 95]


def test_what_is_forgotten_begins_anew_and_keeps_its_ease() -> None:
    card = Card(2.2, 40, 5, TODAY)
    moved = answered(card, 2, TODAY)
    assert (moved.ease, moved.repetitions, moved.interval_days) == (2.2, 1, 1)
    assert (moved.due, moved.drill) == (TODAY, True)


def test_what_is_not_sure_is_asked_again_the_same_day_and_nothing_else_changes() -> None:
    card = answered(Card(2.5, 6, 2, TODAY), 3, TODAY)
    assert (card.ease, card.interval_days, card.due, card.drill) == (pytest.approx(2.36), ceil(6 * 2.36), TODAY, True)
    assert answered(card, 3, TODAY) == card
    sure = answered(card, 5, TODAY)
    assert (sure.ease, sure.due, sure.drill) == (card.ease, TODAY + timedelta(days=15), False)
    with pytest.raises(ValueError, match="is none of 0 to 5"):
        answered(card, 6, TODAY)


@given(st.lists(st.integers(0, 5), max_size=30))
def test_no_run_of_grades_leads_astray(grades: list[int]) -> None:
    card, day = Card(), TODAY
    for grade in grades:
        card = answered(card, grade, day)
        assert card.ease >= LEAST_EASE
        assert card.interval_days >= 1
        assert card.due >= day
        day = max(day, min(card.due, day + timedelta(days=400)))


def test_grades() -> None:
    assert [grade_of_number("weight", said, 200) for said in (200, 220, 240, 270, 300, 400, 401, 100)] == [
        5,
        5,
        4,
        3,
        2,
        1,
        0,
        1,
    ]
    assert off_share(250, 200) == pytest.approx(0.25)
    care, suits, against = Verdict.WITH_CARE, Verdict.SUITS, Verdict.AGAINST
    assert grade_of_verdict(care, [care], "weight", ["weight"]) == 5
    assert grade_of_verdict(care, [care], "drape", ["weight"]) == 4
    assert grade_of_verdict(suits, [care], "weight", ["weight"]) == 3
    assert grade_of_verdict(against, [suits], "", []) == 0
    assert grade_of_verdict(against, [suits, against], "x", ["x"]) == 5  # hands say so


def test_twice_as_much_and_half_as_much_are_no_bias() -> None:
    assert bias([1.0, -0.5]) == pytest.approx(0.0)
    assert spread([1.0, -0.5]) == pytest.approx(1.0)
    assert bias([]) is None
    assert spread([]) is None
