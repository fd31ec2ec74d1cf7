"""What was shown when: pairings of programmes whose day is past, of a cloth, of a pattern, within a time."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import date

from nematex.store.records import Pick, Programme
from nematex.usecases.held.state import State

MONTHS_PER_YEAR = 12


@dataclass(frozen=True)
class Shown:
    """A pick and the programme that it stood in."""

    programme: Programme
    pick: Pick


def months_before(day: date, months: int) -> date:
    """The same day so many months earlier, the last of the month where it has fewer days."""
    count = day.year * MONTHS_PER_YEAR + day.month - 1 - months
    year, month = divmod(count, MONTHS_PER_YEAR)
    for number in range(day.day, 27, -1):
        try:
            return date(year, month + 1, number)
        except ValueError:
            continue
    return date(year, month + 1, day.day)


def _dated(state: State, programme: Programme | None) -> Iterator[Shown]:
    for other in state.programmes:
        if other.shown_on and (programme is None or other.id != programme.id):
            for pick in other.picks:
                if not pick.proposed:
                    yield Shown(other, pick)


def shown_within(state: State, programme: Programme, months: int, today: date) -> frozenset[tuple[int, int]]:
    """The pairings (cloth, pattern) of other programmes within so many months of this one's day; none for 0 months."""
    if not months:
        return frozenset()
    day = programme.shown_on or today
    first = months_before(day, months)
    found = (each for each in _dated(state, programme) if each.programme.shown_on and first <= each.programme.shown_on <= day)
    return frozenset((each.pick.cloth_id, each.pick.pattern_id) for each in found)
