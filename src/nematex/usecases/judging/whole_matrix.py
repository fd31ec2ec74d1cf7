"""Every pattern against every cloth, carried from state to state; what a large shop owes is judged by the worker."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from nematex.core.judging.matrix import Matrix
from nematex.core.pattern.facts import Wish
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State
from nematex.usecases.jobs import asking
from nematex.usecases.jobs.running import Handle
from nematex.usecases.judging.carried import Carried, Places, Progress, carried
from nematex.usecases.judging.packed import pack, rules_of, unpack

JOB = "matrix"
AT_ONCE = 200_000  # pairings that are judged while the page waits; it takes up to a second
LATEST = "whole matrix"


@dataclass(frozen=True)
class _Held:
    """What is carried, and the number of the worker's matrix that was looked at last."""

    carried: Carried | None = None
    seen: int = 0


def carried_to(shop: Shop, coming: State) -> Carried:
    """What holds for a state that is still to come."""
    found = _carried(shop, shop.now())
    return (found.to(coming) if found else None) or Carried.nothing(coming)


def _carried(shop: Shop, state: State) -> Carried | None:
    """What is judged already for this state, here or by the worker; None where nothing is."""
    with shop.large:  # one thread carries it over; the others find it then
        held = shop.memory.get(LATEST, ())
        before = held if isinstance(held, _Held) else _Held()
        found, seen = before.carried.to(state) if before.carried else None, before.seen
        if found is None or found.due > AT_ONCE:
            fetched, seen = _fetched(shop, state, seen)
            found = min((each for each in (found, fetched) if each), key=lambda each: each.due, default=None)
        shop.memory.keep(LATEST, (), _Held(found, seen))
        return found


def _fetched(shop: Shop, state: State, seen: int) -> tuple[Carried | None, int]:
    """What the worker kept last, if it is not what was seen already, and its number."""
    number = asking.latest(shop.database, JOB)
    content = asking.content_of_job(shop.database, number) if number and number != seen else None
    kept = unpack(content) if content else None
    if kept is None or kept.rules != rules_of(state):
        return None, number or 0
    return carried(kept.matrix, state, *kept.places(state)), number or 0


def _soon(shop: Shop, state: State) -> bool:
    """Whether the page may wait for what is due."""
    found = _carried(shop, state)
    return (found.due if found else pairings(state)) <= AT_ONCE


def pairings(state: State) -> int:
    return len(state.shelf.records) * len(state.drawer.records)


def ready(shop: Shop, state: State) -> bool:
    """Whether the matrix of this state is there or soon worked out; else it is asked of the worker."""
    if _soon(shop, state):
        return True
    asking.await_end(shop.database, _ask(shop, state))
    return _soon(shop, state)


def _ask(shop: Shop, state: State) -> int:
    """The job that works the matrix out: one that waits or runs, whatever it was asked of; what moves is judged here then."""
    under_way = asking.under_way(shop.database, JOB)
    if under_way is not None:
        return under_way
    return asking.ask(shop.database, shop.enqueue, JOB, state.shared_version, {}, len(state.drawer.records))


def how_far(shop: Shop, state: State) -> tuple[int, int]:
    """Patterns judged, of how many."""
    found = asking.look(shop.database, _ask(shop, state))
    return (found[0].done, found[0].total) if found else (0, 0)


def run_matrix(shop: Shop, handle: Handle) -> str:
    """The worker's part: judge what is due of all pairings, and keep the whole for the web processes."""
    state = shop.now()
    handle.keep(pack(state, whole(shop, state, handle.progress)))
    return ""


def whole(shop: Shop, state: State, progress: Progress | None = None) -> Matrix:
    """The matrix of this state; what is due of it is worked out now."""
    with shop.large:
        found = (_carried(shop, state) or Carried.nothing(state)).completed(progress)
        held = shop.memory.get(LATEST, ())
        shop.memory.keep(LATEST, (), _Held(found, held.seen if isinstance(held, _Held) else 0))
    return found.matrix


def at_hand(shop: Shop, state: State) -> Matrix | None:
    """The matrix of this state if a page may do what is due of it by the way; else it is asked for, and None."""
    if _soon(shop, state):
        return whole(shop, state)
    _ask(shop, state)
    return None


def part(shop: Shop, state: State, patterns: Places, cloths: Places) -> Matrix:
    """Some patterns against some cloths, by their places: taken from what is judged already, the rest judged now."""
    if pairings(state) <= AT_ONCE:
        return whole(shop, state).taken(patterns, cloths)
    found = _carried(shop, state)
    if found is None or found.due > AT_ONCE:
        _ask(shop, state)
    return (found or Carried.nothing(state)).part(patterns, cloths)


def of_cloth(shop: Shop, state: State, place: int) -> Matrix:
    """Every pattern against one cloth."""
    cloth = state.shelf.cloths[place]

    def work_out() -> Matrix:
        return part(shop, state, np.arange(len(state.drawer.records)), np.array([place], dtype=np.intp))

    return shop.memory.of(("all patterns against", id(cloth)), (cloth, state.drawer.version, state.tables), work_out)


def read_all(shop: Shop) -> None:
    """Read the shop, every envelope, and what is judged already, so that the first page finds them."""
    state = shop.now()
    for demand in state.drawer.demands(Wish()):
        demand()
    at_hand(shop, state)
