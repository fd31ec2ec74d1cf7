"""Days on which something is done: not at weekends, not on public holidays. What is closed is passed in."""

from __future__ import annotations

from collections.abc import Callable
from datetime import date, timedelta

Open = Callable[[date], bool]
DAY = timedelta(days=1)
MOST_DAYS = 400  # a calendar in which nothing is ever open ends here


def open_days(holidays: frozenset[date], weekend: frozenset[int] = frozenset({5, 6})) -> Open:
    """Whether a day is open: no holiday, and no day of the weekend (0 is Monday)."""
    return lambda day: day.weekday() not in weekend and day not in holidays


def last_open(day: date, is_open: Open) -> date:
    """The day itself where it is open, else the last open one before it; raises ValueError where there is none."""
    return _walk(day, is_open, -1)


def next_open(day: date, is_open: Open) -> date:
    """The day itself where it is open, else the next open one; raises ValueError where there is none."""
    return _walk(day, is_open, 1)


def _walk(day: date, is_open: Open, step: int) -> date:
    for _ in range(MOST_DAYS):
        if is_open(day):
            return day
        day += step * DAY
    raise ValueError(f"no day is open within {MOST_DAYS} days of {day}")


def before(day: date, count: int, is_open: Open) -> date:
    """The open day `count` open days before a day."""
    for _ in range(count):
        day = last_open(day - DAY, is_open)
    return day


def after(day: date, count: int, is_open: Open) -> date:
    """The open day `count` open days after a day."""
    for _ in range(count):
        day = next_open(day + DAY, is_open)
    return day
