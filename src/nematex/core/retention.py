"""Which backups are kept: each day of a week, each week of a month, each month of a year. Common practice, no source."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import datetime

DAYS, WEEKS, MONTHS = 7, 4, 12


def kept(made: Iterable[datetime]) -> set[datetime]:
    """Of all backups those that stay: the latest of each of the last seven days, four weeks and twelve months that have one."""
    latest_first = sorted(made, reverse=True)
    stay: set[datetime] = set()
    for number, period in ((DAYS, "%Y-%j"), (WEEKS, "%G-%V"), (MONTHS, "%Y-%m")):
        found: dict[str, datetime] = {}
        for each in latest_first:
            if len(found) == number and each.strftime(period) not in found:
                break
            found.setdefault(each.strftime(period), each)
        stay.update(found.values())
    return stay
