"""Dates of a sew-along against worked examples, each counted by hand on a calendar.

Holidays: England and Wales close on 25, 26 and 28 December 2026 (Boxing Day is a Saturday, so its Monday) and on 1 January
2027, as published by the government (gov.uk/bank-holidays, from memory); Germany on 25 and 26 December and 1 January; the
United States on Thanksgiving, the fourth Thursday of November. Clocks go back in Britain on 25 October 2026, the last Sunday
(The Summer Time Order 2002), and in the United States on 1 November, the first Sunday (Energy Policy Act 2005), from memory.
"""

from __future__ import annotations

from datetime import date, datetime, time
from zoneinfo import ZoneInfo

import pytest
from hypothesis import example, given
from hypothesis import strategies as st

from nematex.core.air.sew_along.order_by import Delivery, Needs, can_cut, order_by
from nematex.core.air.sew_along.parts import back_from, from_start, usual_parts
from nematex.core.air.sew_along.working_days import after, before, last_open, next_open, open_days

LONDON, NEW_YORK = ZoneInfo("Europe/London"), ZoneInfo("America/New_York")
HOME = open_days(frozenset({date(2026, 12, 25), date(2026, 12, 28), date(2027, 1, 1), date(2026, 8, 31)}))
GERMANY = open_days(frozenset({date(2026, 12, 25), date(2026, 12, 26), date(2027, 1, 1)}))
STATES = open_days(frozenset({date(2026, 11, 26), date(2026, 12, 25), date(2027, 1, 1)}))
NEEDS = Needs(dry_days=2, packing_days=1)
NOON = time(12)


def test_an_ordinary_week_at_home() -> None:
    """Cut on Saturday 17 October 2026: in hands on Thursday 15; four working days before: Friday 9; packed from Thursday 8."""
    found = order_by(date(2026, 10, 17), NEEDS, Delivery(4, 0, NOON), HOME, HOME, LONDON)
    assert (found.in_hands, found.delivered, found.handed_over) == (date(2026, 10, 15), date(2026, 10, 15), date(2026, 10, 9))
    assert found.at == datetime(2026, 10, 8, 12, tzinfo=LONDON)


def test_over_christmas_at_home() -> None:
    """Cut on Saturday 2 January 2027: in hands on Thursday 31 December; back over Wed 30, Tue 29, Thu 24 (25 to 28 are closed)
    and Wed 23; packed from Tuesday 22."""
    found = order_by(date(2027, 1, 2), NEEDS, Delivery(4, 0, NOON), HOME, HOME, LONDON)
    assert (found.delivered, found.handed_over, found.at.date()) == (date(2026, 12, 31), date(2026, 12, 23), date(2026, 12, 22))


def test_over_thanksgiving_abroad_by_the_makers_clock() -> None:
    """Cut on Monday 30 November 2026: in hands on Saturday 28, so delivered on Friday 27; ten days back without the holiday of
    the 26th: 25, 24, 23, 20, 19, 18, 17, 16, 13, 12; packed from Wednesday 11; noon in London is 7 in New York."""
    found = order_by(date(2026, 11, 30), NEEDS, Delivery(10, 0, NOON), HOME, STATES, LONDON)
    assert (found.delivered, found.handed_over, found.at.date()) == (date(2026, 11, 27), date(2026, 11, 12), date(2026, 11, 11))
    assert found.there(NEW_YORK).hour == 7


def test_over_the_clock_change() -> None:
    """Between the two changes, from 25 October to 1 November, New York is four hours behind London, not five."""
    for cutting, ordered, hour in ((date(2026, 11, 7), date(2026, 10, 29), 8), (date(2026, 11, 14), date(2026, 11, 5), 7)):
        found = order_by(cutting, NEEDS, Delivery(4, 0, NOON), HOME, STATES, LONDON)
        assert (found.at.date(), found.there(NEW_YORK).hour) == (ordered, hour)
    summer = order_by(date(2026, 10, 17), NEEDS, Delivery(4, 0, NOON), HOME, HOME, LONDON)
    assert summer.at.utcoffset() != order_by(date(2026, 11, 14), NEEDS, Delivery(4, 0, NOON), HOME, HOME, LONDON).at.utcoffset()


def test_a_carrier_that_is_late_moves_the_day() -> None:
    """Two days of delay: six working days before Thursday 15 October is Wednesday 7; packed from Tuesday 6."""
    found = order_by(date(2026, 10, 17), NEEDS, Delivery(4, 2, NOON), HOME, HOME, LONDON)
    assert (found.handed_over, found.at.date(), found.days) == (date(2026, 10, 7), date(2026, 10, 6), 6)


def test_who_is_late_can_cut_later() -> None:
    """Ordered on Thursday 8 October before noon: packed on Friday 9, there on Thursday 15, dry on Saturday 17. Ordered at one
    o'clock it counts for Friday: packed on Monday, there on Friday 16, dry on Sunday 18."""
    delivery = Delivery(4, 0, NOON)
    assert can_cut(datetime(2026, 10, 8, 11, tzinfo=LONDON), NEEDS, delivery, HOME, HOME) == date(2026, 10, 17)
    assert can_cut(datetime(2026, 10, 8, 13, tzinfo=LONDON), NEEDS, delivery, HOME, HOME) == date(2026, 10, 18)


@example(date(2026, 9, 2), 14, 1, GERMANY)  # could be there on a day on which the shop rests, and nothing moves
@example(date(2026, 12, 1), 0, 1, STATES)  # handed over on a day on which only the shop works
@given(
    st.dates(date(2026, 1, 1), date(2027, 6, 1)),
    st.integers(0, 21),
    st.integers(0, 5),
    st.sampled_from([HOME, GERMANY, STATES]),
)
def test_whoever_orders_in_time_can_cut_in_time_and_nobody_later(cutting: date, days: int, late: int, there) -> None:  # type: ignore[no-untyped-def]
    delivery = Delivery(days, late, NOON)
    found = order_by(cutting, NEEDS, delivery, HOME, there, LONDON)
    assert can_cut(found.at, NEEDS, delivery, HOME, there) <= cutting
    tomorrow = next_open(found.at.date() + (date(2026, 1, 2) - date(2026, 1, 1)), HOME)
    assert can_cut(datetime.combine(tomorrow, NOON, LONDON), NEEDS, delivery, HOME, there) > cutting


def test_working_days() -> None:
    friday, monday = date(2026, 10, 9), date(2026, 10, 12)
    assert (before(monday, 1, HOME), after(friday, 1, HOME)) == (friday, monday)
    assert (last_open(date(2026, 10, 11), HOME), next_open(date(2026, 10, 10), HOME)) == (friday, monday)
    with pytest.raises(ValueError, match="no day is open"):
        last_open(friday, lambda _: False)


def test_parts_from_a_start_and_back_from_an_event() -> None:
    parts = usual_parts(2)
    assert [part.title for part in parts] == [
        "Choose cloth and supplies", "Size and changes", "Wash and cut", "Sew: seams and darts", "Sew: neck, front and pockets",
        "Finish",
    ]  # fmt: skip
    assert [one.day.day for one in from_start(parts, date(2026, 10, 1), 7)] == [1, 8, 15, 22, 29, 5]
    back = back_from(parts, date(2026, 12, 24), 7, 2)
    assert (back[-1].day, back[0].day) == (date(2026, 12, 22), date(2026, 11, 17))
    assert [one.part.cuts for one in back] == [False, False, True, False, False, False]
