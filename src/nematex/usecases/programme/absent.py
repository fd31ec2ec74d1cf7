"""Picks whose cloth or pattern is in the bin: they keep their place and line, and wait."""

from __future__ import annotations

from dataclasses import dataclass

from nematex.store import bin as store
from nematex.store.records import Binned, Pick, Programme
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State


@dataclass(frozen=True, slots=True)
class Absent:
    """A pick that cannot be shown, and what of it is in the bin."""

    pick: Pick
    waits_for: list[Binned]


def absent(shop: Shop, state: State, programme: Programme) -> list[Absent]:
    """The picks of a programme that wait, in order."""
    waiting = [
        pick for pick in programme.picks if pick.cloth_id not in state.shelf.place or pick.pattern_id not in state.drawer.by_id
    ]
    if not waiting:
        return []
    with shop.database.work() as work:
        found = {(each.kind, each.id): each for each in store.binned(work)}
    return [
        Absent(pick, [found[key] for key in (("cloth", pick.cloth_id), ("pattern", pick.pattern_id)) if key in found])
        for pick in waiting
    ]
