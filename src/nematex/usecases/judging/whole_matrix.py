"""Every pattern against every cloth, kept for the state in hand; what moved is judged anew, a large shop in the background."""

from __future__ import annotations

import sys
import threading
from dataclasses import dataclass
from functools import partial

import numpy as np

from nematex.core.judging.matrix import Matrix, matrix
from nematex.core.pattern.facts import Wish
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State

JOB = "matrix"
AT_ONCE = 400_000  # pairings that are worked out while the page waits
BY_THE_WAY = 20_000  # ... without a word
PATIENCE_S = 1.2
SWITCH_S = 0.0005
LATEST = "whole matrix"


@dataclass(frozen=True)
class Whole:
    """The matrix of one state."""

    state: State
    matrix: Matrix


def _latest(shop: Shop) -> Whole | None:
    found = shop.memory.get(LATEST, ())
    return found if isinstance(found, Whole) else None


def _unmoved(before: Whole, state: State) -> tuple[list[int], list[int]] | None:
    """For each pattern and each cloth of the state its place in the matrix before, -1 where it changed."""
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


def _to_judge(shop: Shop, state: State) -> int:
    """How many pairings would have to be judged."""
    before = _latest(shop)
    unmoved = _unmoved(before, state) if before else None
    if unmoved is None:
        return pairings(state)
    patterns, cloths = (places.count(-1) for places in unmoved)
    return patterns * len(state.shelf.records) + cloths * len(state.drawer.records)


def _work_out(shop: Shop, state: State) -> Matrix:
    """The matrix of the state: from the one before where that is less work."""
    before = _latest(shop)
    unmoved = _unmoved(before, state) if before else None
    progress = partial(shop.progress, JOB) if shop.job(JOB) is not None else None
    judge_all = partial(matrix, tables=state.tables, progress=progress)
    if before is None or unmoved is None:
        found = judge_all(state.shelf.columns, state.drawer.demands(Wish()))
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
    """Whether the matrix of this state is there or soon worked out; a large one is begun in the background."""
    if known(shop, state) or _to_judge(shop, state) <= AT_ONCE:
        return True
    thread = _begin(shop, state)
    if thread:
        thread.join(PATIENCE_S)
    return known(shop, state) is not None


def _begin(shop: Shop, state: State) -> threading.Thread | None:
    """Work the matrix out in the background; None where that is being done already."""
    if not shop.claim_job(JOB):
        return None

    def run() -> None:
        # It hands the interpreter back after each array, and would wait long for its next turn while pages are made.
        usual = sys.getswitchinterval()
        sys.setswitchinterval(SWITCH_S)
        try:
            _work_out(shop, state)
        finally:
            sys.setswitchinterval(usual)
            shop.release_job(JOB)

    thread = threading.Thread(target=run, name=JOB, daemon=True)
    thread.start()
    return thread


def known(shop: Shop, state: State) -> Matrix | None:
    """The matrix of this state, if it has been worked out."""
    kept = _latest(shop)
    return kept.matrix if kept and kept.state.version == state.version else None


def at_hand(shop: Shop, state: State) -> Matrix | None:
    """The matrix of this state if it is there, or so quickly renewed that a page may do it by the way; else it is begun."""
    kept = known(shop, state)
    if kept is None and _to_judge(shop, state) <= BY_THE_WAY:
        return _work_out(shop, state)
    if kept is None:
        _begin(shop, state)
    return kept


def warm(shop: Shop) -> None:
    """Read the shop and begin its matrix, so that the first page finds them there or on their way."""
    at_hand(shop, shop.now())


def whole(shop: Shop, state: State) -> Matrix:
    """The matrix of this state; worked out now if it is not there."""
    return known(shop, state) or _work_out(shop, state)
