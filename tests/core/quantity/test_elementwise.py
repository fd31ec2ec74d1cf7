"""One number is answered as numpy answers an array of one: numpy is the outside reference."""

from __future__ import annotations

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from nematex.core.quantity.elementwise import (
    chosen_from,
    everywhere,
    is_number,
    maximum,
    minimum,
    negated,
    one_of,
    put_where,
    somewhere,
    where,
)

numbers = st.floats() | st.sampled_from([0.0, -0.0, float("nan"), float("inf"), float("-inf")])


def same(one: object, other: object) -> None:
    np.testing.assert_array_equal(np.asarray(one), np.asarray(other))


@given(numbers, numbers, st.booleans())
def test_alone_as_among_others(one: float, other: float, holds: bool) -> None:
    ones, others, mask = np.array([one]), np.array([other]), np.array([holds])
    same([maximum(one, other)], np.maximum(ones, others))
    same([minimum(one, other)], np.minimum(ones, others))
    same([where(holds, one, other)], np.where(mask, ones, others))
    same([where(holds, one, other)], where(mask, ones, others))
    same([negated(holds)], ~mask)
    same([is_number(one)], np.isfinite(ones))
    same(somewhere(one), ones.any())
    same(everywhere(holds), mask.all())
    same(maximum(ones, other), np.maximum(ones, other))


@given(st.lists(st.tuples(st.integers(-1, 6), st.booleans()), min_size=1), st.sets(st.integers(0, 6)))
def test_codes_are_found_chosen_and_put_back(rows: list[tuple[int, bool]], wanted: set[int]) -> None:
    codes, mask = np.array([code for code, _ in rows]), np.array([holds for _, holds in rows])
    same(one_of(codes, sorted(wanted)), [code in wanted for code in codes])
    same(put_where(mask, chosen_from(codes, mask)), np.where(mask, codes, 0))
    for code, holds in rows:
        assert one_of(code, frozenset(wanted)) == (code in wanted)
        alone = chosen_from(code, holds)  # type: ignore[arg-type]
        assert put_where(holds, alone) == (code if holds else 0)  # type: ignore[arg-type]
