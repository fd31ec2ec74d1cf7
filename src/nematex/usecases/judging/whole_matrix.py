"""Every pattern against every cloth, kept for the state in hand; what moved is judged anew, a large shop by the worker."""

from __future__ import annotations

import time
from collections.abc import Callable
from dataclasses import dataclass

import numpy as np

from nematex.core.judging.matrix import Matrix, matrix
from nematex.core.pattern.facts import Wish
from nematex.store.cloth.cloths import cloths_moved
from nematex.store.pattern.patterns import patterns_moved
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State
from nematex.usecases.jobs import asking
from nematex.usecases.jobs.running import Handle
from nematex.usecases.judging.packed import Moved, pack, rules_of, unpack

JOB = "matrix"
AT_ONCE = 400_000  # pairings that are worked out while the page waits
BY_THE_WAY = 100_000  # ... without a word
FETCHED_AND_JUDGED = 1_000_000  # that have moved since the worker judged all
WARMING_S, LOOK_EVERY_S = 900.0, 1.0
PATIENCE_S = 1.2
Progress = Callable[[int, int], None]
LATEST = "whole matrix"


@dataclass(frozen=True)
class Whole:
    """The matrix of one state."""

    state: State
    matrix: Matrix


Places = tuple[list[int], list[int]]  # of each pattern and each cloth its place in a matrix before, -1 where it changed


def _latest(shop: Shop) -> Whole | None:
    found = shop.memory.get(LATEST, ())
    return found if isinstance(found, Whole) else None


def _unmoved(before: Whole, state: State) -> Places | None:
    """Where the state's patterns and cloths stand in the matrix before; None where all of it is another."""
    if before.state.tables is not state.tables:
        return None
    old = before.state
    patterns = [
        place if (place := old.drawer.place.get(record.id, -1)) >= 0 and old.drawer.records[place] is record else -1
        for record in state.drawer.records
    ]
    cloths = [
        place if (place := old.shelf.place.get(record.id, -1)) >= 0 and old.shelf.cloths[place] is cloth else -1
        for record, cloth in zip(state.shelf.records, state.shelf.cloths, strict=True)
    ]
    return patterns, cloths


def _work(places: Places | None, state: State) -> int:
    """How many pairings would have to be judged."""
    if places is None:
        return pairings(state)
    patterns, cloths = (each.count(-1) for each in places)
    return patterns * len(state.shelf.records) + cloths * len(state.drawer.records)


def _to_judge(shop: Shop, state: State) -> int:
    before = _latest(shop)
    return _work(_unmoved(before, state) if before else None, state)


def _work_out(shop: Shop, state: State, progress: Progress | None = None) -> Matrix:
    """The matrix of the state: from the one before where that is less work."""
    before = _latest(shop)
    unmoved = _unmoved(before, state) if before else None
    if before is None or unmoved is None:
        found = matrix(state.shelf.columns, state.drawer.demands(Wish()), state.tables, progress=progress)
    else:
        found = _renewed(before.matrix, state, *unmoved)
    shop.memory.keep(LATEST, (), Whole(state, found))
    return found


def _renewed(before: Matrix, state: State, patterns: list[int], cloths: list[int]) -> Matrix:
    """Rows of changed patterns and columns of changed cloths are judged; the rest is taken over."""
    demands, columns = state.drawer.demands(Wish()), state.shelf.columns
    rows = [place for place, old in enumerate(patterns) if old < 0]
    places = np.array([place for place, old in enumerate(cloths) if old < 0], dtype=np.intp)
    made = before.taken(np.array(patterns, dtype=np.intp), np.array(cloths, dtype=np.intp))
    if rows:
        made.put(np.array(rows), None, matrix(columns, [demands[place] for place in rows], state.tables))
    if len(places):
        made.put(None, places, matrix(columns.take(places), demands, state.tables, threads=1))
    return made


def pairings(state: State) -> int:
    return len(state.shelf.records) * len(state.drawer.records)


def ready(shop: Shop, state: State) -> bool:
    """Whether the matrix of this state is there or soon worked out; a large one is asked of the worker."""
    with shop.large:
        if known(shop, state) or _to_judge(shop, state) <= AT_ONCE:
            return True
    asking.await_end(shop.database, _ask(shop, state), PATIENCE_S)
    with shop.large:
        return known(shop, state) is not None


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
    """The worker's part: judge every pairing and keep it for the web processes, which judge what moved meanwhile."""
    state = shop.now()
    if _fetched(shop, state) is not None:
        return ""  # so little has moved since it was kept last that each process judges it itself
    handle.keep(pack(state, _work_out(shop, state, handle.progress)))
    return ""


def known(shop: Shop, state: State) -> Matrix | None:
    """The matrix of this state, if it has been worked out here, or by the worker and little has moved since."""
    kept = _latest(shop)
    if kept and kept.state.version == state.version:
        return kept.matrix
    if _to_judge(shop, state) <= BY_THE_WAY:
        return None  # sooner judged than fetched
    found = _fetched(shop, state)
    if found is not None:
        shop.memory.keep(LATEST, (), Whole(state, found))
    return found


def _fetched(shop: Shop, state: State) -> Matrix | None:
    """What the worker kept last, with what has moved since judged anew; None where that is too much."""
    content = asking.latest_content(shop.database, JOB)
    kept = unpack(content) if content else None
    if kept is None or kept.rules != rules_of(state):
        return None
    with shop.database.snapshot() as work:
        moved = Moved(cloths_moved(work, kept.shelf), patterns_moved(work, kept.drawer))
    places = kept.places(state, moved)
    if _work(places, state) > FETCHED_AND_JUDGED:
        return None
    return _renewed(kept.matrix, state, *places)


def at_hand(shop: Shop, state: State) -> Matrix | None:
    """The matrix of this state if it is there, or so quickly renewed that a page may do it by the way; else it is asked for."""
    with shop.large:  # one thread renews it; the others find it then
        kept = known(shop, state)
        if kept is None and _to_judge(shop, state) <= BY_THE_WAY:
            return _work_out(shop, state)
    if kept is None:
        _ask(shop, state)
    return kept


def of_cloth(shop: Shop, state: State, place: int) -> Matrix:
    """Every pattern against one cloth, for as long as the whole matrix is not at hand."""
    cloth, column = state.shelf.cloths[place], np.array([place], dtype=np.intp)

    def work_out() -> Matrix:
        return matrix(state.shelf.columns.take(column), state.drawer.demands(Wish()), state.tables, threads=1)

    return shop.memory.of(("all patterns against", id(cloth)), (cloth, state.drawer, state.tables), work_out)


def read_all(shop: Shop) -> None:
    """Read the shop and every envelope, so that the first page finds them."""
    for demand in shop.now().drawer.demands(Wish()):
        demand()


def warm(shop: Shop) -> None:
    """Wait until the matrix is there."""
    until = time.monotonic() + WARMING_S
    while at_hand(shop, shop.now()) is None and time.monotonic() < until:
        time.sleep(LOOK_EVERY_S)


def whole(shop: Shop, state: State) -> Matrix:
    """The matrix of this state; worked out now if it is not there."""
    with shop.large:
        return known(shop, state) or _work_out(shop, state)
