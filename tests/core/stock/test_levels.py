"""What a stock feed says, believed or not; how a cloth sells, by hand."""

from __future__ import annotations

from datetime import datetime, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from nematex.core.stock.levels import believed, is_late
from nematex.core.stock.popularity import popularity
from nematex.tables import trade_tables

RULE = trade_tables().judging.feed
KNOWN = {"gm-101": 9.8, "lf-304": None, "sk-512": 0.0}
NOON = datetime(2026, 11, 26, 12, 0)


@pytest.mark.parametrize(
    ("row", "says"),
    [
        ({"code": "GM-101", "metres": -4}, "is no stock"),
        ({"code": "GM-101", "metres": "plenty"}, "is no length"),
        ({"code": "GM-101", "metres": None}, "is no length"),
        ({"code": "GM-101", "metres": True}, "is no length"),
        ({"code": "GM-101", "metres": float("nan")}, "is no length"),
        ({"code": "GM-101", "metres": 1e9}, "is no stock"),
        ({"code": "GM-101", "metres": 10**400}, "is no stock"),
        ({"code": "GM-101", "metres": -(10**400)}, "is no stock"),
        ({"code": "half a sign \ud800", "metres": 3.0}, "half a sign ?: is no cloth"),
        ({"code": "GM-101", "metres": 600.0}, "590.2 m more than before"),
        ({"code": "NO-SUCH", "metres": 3.0}, "is no cloth of this shelf"),
        ({"metres": 3.0}, "names no code"),
        ("???", "names no code"),
    ],
)
def test_nonsense_is_refused_with_its_reason(row: object, says: str) -> None:
    found = believed([row, {"code": "sk-512", "metres": 4.0}], KNOWN, RULE)
    assert found.metres == {"sk-512": 4.0}
    (said,) = found.refused
    assert says in said


def test_codes_are_found_as_people_write_them_and_two_answers_for_one_are_none() -> None:
    rows = [{"code": "Gm-101 ", "metres": 8}, {"code": "LF-304", "metres": 3.5}, {"code": "lf-304", "metres": 4}]
    found = believed(rows, KNOWN, RULE)
    assert found.metres == {"gm-101": 8.0}
    assert found.refused == ("lf-304: is given twice, as 3.5 and as 4 m",)


JSON = st.recursive(
    st.none() | st.booleans() | st.floats() | st.integers() | st.text(max_size=20),
    lambda inner: st.lists(inner, max_size=4) | st.dictionaries(st.sampled_from(("code", "metres", "x")), inner, max_size=3),
    max_leaves=12,
)


@given(st.lists(JSON | st.fixed_dictionaries({"code": st.sampled_from(("GM-101", "SK-512", "x")), "metres": JSON}), max_size=8))
def test_whatever_comes_only_lengths_of_this_shelf_are_believed(rows: list[object]) -> None:
    found = believed(rows, KNOWN, RULE)
    assert set(found.metres) <= set(KNOWN)
    assert all(0 <= metres <= RULE.most_m for metres in found.metres.values())


def test_late_is_more_than_half_an_hour() -> None:
    assert not is_late(NOON - timedelta(minutes=30), NOON, RULE)
    assert is_late(NOON - timedelta(minutes=31), NOON, RULE)
    assert not is_late(None, NOON, RULE)


def day(number: float) -> datetime:
    return NOON + timedelta(days=number)


def test_popularity_and_cover_by_hand() -> None:
    """20 m, 17, a delivery to 40, then 35.5 and 33: sold 3 + 4.5 + 2.5 = 10 m in 5 days, 2 m a day; 33 m last 16.5 days."""
    readings = [(day(0), 20.0), (day(1), 17.0), (day(2), 40.0), (day(3), 35.5), (day(4.5), 33.0)]
    found = popularity(readings, day(0), day(5))
    assert found
    assert (found.sold_m, found.delivered_m, found.days, found.left_m) == (10.0, 23.0, 5.0, 33.0)
    assert found.daily_m == pytest.approx(2.0)
    assert found.cover_days == pytest.approx(16.5)


def test_it_starts_from_the_last_level_before_and_never_counts_less_than_a_day() -> None:
    readings = [(day(-9), 30.0), (day(-1), 12.0), (day(0.1), 10.0)]
    found = popularity(readings, day(0), day(2))
    assert found
    assert (found.sold_m, found.days) == (2.0, 2.0)
    soon = popularity([(day(0), 10.0), (day(0.01), 9.0)], day(-14), day(0.02))
    assert soon
    assert soon.daily_m == pytest.approx(1.0)
    assert popularity([], day(0), day(1)) is None
    unsold = popularity([(day(0), 5.0)], day(0), day(3))
    assert unsold
    assert unsold.cover_days is None
