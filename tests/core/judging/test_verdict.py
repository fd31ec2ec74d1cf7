"""Estimates against windows: the shares and tolerances of common practice (no source), from data/judging.toml."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from nematex.core.judging.verdict import Shares, Verdict, Window, compare
from nematex.core.quantity.arrays import Column
from nematex.core.quantity.estimate import Known

SHARES = Shares(0.70, 0.75, 0.15)
WINDOW = Window(100, 200, 15, 30)


def judged(low: float, high: float, known: Known, window: Window = WINDOW) -> Verdict:
    column = Column(*(np.array([value]) for value in (low, high, (low + high) / 2)), np.array([known], dtype=np.int8))
    return Verdict(int(compare(column, window, SHARES).verdict[0]))


@pytest.mark.parametrize(
    ("value", "verdict"),
    [(150, "suits"), (200, "suits"), (100, "suits"), (201, "with care"), (230, "with care"), (231, "against"), (84, "against")],
)
def test_a_number_is_taken_at_its_word(value: float, verdict: str) -> None:
    assert judged(value, value, Known.STATED).word == verdict


def test_a_measured_spread_across_an_edge_is_with_care() -> None:
    assert judged(190, 205, Known.MEASURED) is Verdict.WITH_CARE


@pytest.mark.parametrize(
    ("low", "high", "verdict"),
    [
        (110, 190, "suits"),
        (170, 212.8, "suits"),  # 70 % inside
        (180, 228, "with care"),  # the rest inside the tolerance
        (180, 300, "unproven"),
        (225, 300, "against"),  # 7 % inside even the tolerated window
    ],
)
def test_a_typical_range_goes_by_its_share(low: float, high: float, verdict: str) -> None:
    assert judged(low, high, Known.TYPICAL).word == verdict


@given(st.floats(20, 500), st.floats(1, 200))
def test_a_wider_window_is_never_harsher(low: float, width: float) -> None:
    wider = Window(50, 300, 15, 30)
    for known in Known:
        assert judged(low, low + width, known, wider) <= judged(low, low + width, known)
