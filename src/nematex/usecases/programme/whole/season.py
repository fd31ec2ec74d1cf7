"""Whether a cloth is of the season that a programme is shown for."""

from __future__ import annotations

from nematex.core.set.season import fits, is_past
from nematex.store.records import ClothRecord, Programme
from nematex.usecases.held.state import State


def season_said(state: State, programme: Programme, record: ClothRecord) -> str:
    """What to say of a cloth that is out of season; "" where it is in season, or no day is set."""
    place = state.shelf.place.get(record.id)
    if programme.shown_on is None or place is None:
        return ""
    seasons, shown = state.shelf.filed.seasons[place], state.tables.judging.season_shown
    if fits(seasons, programme.shown_on, shown):
        return ""
    cloth = f"a {' and '.join(sorted(seasons))} cloth"
    if is_past(seasons, programme.shown_on, shown):
        return f"{cloth}, late in its season: say with what it layers."
    return f"{cloth}, early for its season."
