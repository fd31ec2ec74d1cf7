"""Which seasons are sewn for when a programme is shown: people sew ahead of the weather.

The months stand in data/judging.toml: winter prints are shown from August (common practice, no source); the other seasons
keep the same lead.
"""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from datetime import date


def fits(seasons: Collection[str], day: date, shown: Mapping[str, Sequence[int]]) -> bool:
    """Whether a cloth of these seasons is sewn for on this day; one of no season always is."""
    known = [each for each in seasons if each in shown]
    return not known or any(day.month in shown[each] for each in known)


def is_past(seasons: Collection[str], day: date, shown: Mapping[str, Sequence[int]]) -> bool:
    """Whether its season is being worn out: it no longer fits, but did within the three months before."""
    if fits(seasons, day, shown):
        return False
    months = {(day.month - back - 1) % 12 + 1 for back in (1, 2, 3)}
    return any(months & set(shown[each]) for each in seasons if each in shown)
