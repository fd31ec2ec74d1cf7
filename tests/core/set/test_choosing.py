"""The optimiser against every choice there is, on small questions; and its bound, which no choice may pass."""

from __future__ import annotations

from itertools import combinations

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from nematex.core.set.choosing import Limit, Question, Want, choose, value_of

MOST = 9


@st.composite
def questions(draw: st.DrawFn) -> Question:
    count = draw(st.integers(1, MOST))
    floats = st.floats(0.05, 1.0)

    def numbers(most: int) -> np.ndarray:  # type: ignore[type-arg]
        return np.array(draw(st.lists(st.integers(0, most), min_size=count, max_size=count)), dtype=np.intp)

    def members() -> np.ndarray:  # type: ignore[type-arg]
        return np.array(draw(st.lists(st.booleans(), min_size=count, max_size=count)), dtype=np.bool_)

    worth = np.array(draw(st.lists(floats, min_size=count, max_size=count)))
    wants = [
        Want(f"w{at}", members(), draw(st.integers(1, 3)), draw(st.floats(0.1, 3))) for at in range(draw(st.integers(0, 3)))
    ]
    limits = [
        Limit(f"l{at}", members(), draw(st.integers(0, 2)), draw(st.floats(0.1, 2))) for at in range(draw(st.integers(0, 2)))
    ]
    return Question(worth, (numbers(5), numbers(5)), tuple(wants), tuple(limits), draw(st.integers(1, 4)))


def every_choice(asked: Question) -> list[tuple[int, ...]]:
    places = range(len(asked.worth))
    chosen = [each for size in range(asked.slots + 1) for each in combinations(places, size)]
    return [each for each in chosen if all(len({ids[at] for at in each}) == len(each) for ids in asked.once)]


@settings(max_examples=120, deadline=None)
@given(questions())
def test_no_choice_is_worth_more_than_the_one_found(asked: Question) -> None:
    found, best = choose(asked, 0.0, 60.0), max(value_of(asked, each) for each in every_choice(asked))
    assert found.places in every_choice(asked)
    assert found.value == pytest.approx(best, abs=1e-5)
    assert found.bound >= best - 1e-5


def test_a_must_outweighs_worth_and_a_limit_gives_way_to_it() -> None:
    """By hand: two of the dull ones are asked for; both are of the kind of which only one is liked."""
    dull = np.array([False, False, True, True])
    asked = Question(
        np.array([1.0, 0.9, 0.2, 0.1]),
        (np.arange(4), np.arange(4)),
        (Want("dull", dull, 2, 10.0),),
        (Limit("dull", dull, 1, 0.35),),
        3,
    )
    found = choose(asked, 0.0, 10.0)
    assert found.places == (0, 2, 3)
    assert found.value == pytest.approx(1.0 + 0.2 + 0.1 - 0.35)


def test_nothing_to_choose_from_is_an_empty_set_that_misses_what_is_wanted() -> None:
    none = np.zeros(0, dtype=np.bool_)
    asked = Question(np.zeros(0), (np.zeros(0, np.intp),), (Want("a", none, 2, 1.5),), (), 5)
    assert choose(asked, 0.0, 1.0).places == ()
    assert choose(asked, 0.0, 1.0).value == -3.0
