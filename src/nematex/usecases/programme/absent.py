"""Picks whose cloth or pattern is in the bin: they keep their place and line, and wait."""

from __future__ import annotations

from dataclasses import dataclass, field

from nematex.store import bin as store
from nematex.store.cloth.cloths import binned_cloths
from nematex.store.records import Binned, ClothRecord, Pick, Programme
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State
from nematex.usecases.judging.ranking import fitting_wish
from nematex.usecases.programme.by_cloth import wish_of
from nematex.usecases.programme.stocked.stand_ins import StandIn, for_pick


@dataclass(frozen=True, slots=True)
class Absent:
    """A pick that cannot be shown, and what of it is in the bin."""

    pick: Pick
    waits_for: list[Binned]
    stand_ins: list[StandIn] = field(default_factory=list)


def absent(shop: Shop, state: State, programme: Programme) -> list[Absent]:
    """The picks of a programme that wait, in order."""
    waiting = [
        pick for pick in programme.picks if pick.cloth_id not in state.shelf.place or pick.pattern_id not in state.drawer.by_id
    ]
    if not waiting:
        return []
    with shop.database.work() as work:
        found = {(each.kind, each.id): each for each in store.binned(work)}
        retired = {each.id: each for each in binned_cloths(work).values()}
    return [
        Absent(
            pick,
            [found[key] for key in (("cloth", pick.cloth_id), ("pattern", pick.pattern_id)) if key in found],
            _in_its_place(shop, state, pick, retired.get(pick.cloth_id)),
        )
        for pick in waiting
    ]


def _in_its_place(shop: Shop, state: State, pick: Pick, record: ClothRecord | None) -> list[StandIn]:
    """The nearest cloths in stock to one that was put away, for the same pattern."""
    pattern = state.pattern(pick.pattern_id)
    if record is None or pattern is None:
        return []
    return for_pick(shop, state, record, pattern, fitting_wish(pattern, wish_of(pick)))
