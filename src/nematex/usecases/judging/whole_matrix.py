"""Every pattern against every cloth, kept for the state in hand; what moved is judged anew, a large shop by the worker."""

from __future__ import annotations

import zlib
from collections.abc import Callable
from dataclasses import dataclass

import numpy as np

from nematex.core.judging.matrix import Matrix, matrix
from nematex.core.pattern.facts import Wish
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State
from nematex.usecases.jobs import asking
from nematex.usecases.jobs.running import Handle, Stopped

JOB = "matrix"
AT_ONCE = 400_000  # pairings that are worked out while the page waits
BY_THE_WAY = 20_000  # ... without a word
PATIENCE_S = 1.2
Progress = Callable[[int, int], None]
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
    if known(shop, state) or _to_judge(shop, state) <= AT_ONCE:
        return True
    asking.await_end(shop.database, _ask(shop, state), PATIENCE_S)
    return known(shop, state) is not None


def _ask(shop: Shop, state: State) -> int:
    """The job that works the matrix of this state out."""
    return asking.ask(shop.database, shop.enqueue, JOB, state.shared_version, {}, len(state.drawer.records))


def how_far(shop: Shop, state: State) -> tuple[int, int]:
    """Patterns judged, of how many."""
    found = asking.look(shop.database, _ask(shop, state))
    return (found[0].done, found[0].total) if found else (0, 0)


def run_matrix(shop: Shop, handle: Handle) -> str:
    """The worker's part: judge every pairing and keep it for the web processes; raises Stopped if the shop moved on."""
    state = shop.now()
    if state.shared_version != handle.job.asked:
        raise Stopped("The shop changed before it was worked out.")
    handle.keep(_packed(_work_out(shop, state, handle.progress)))
    return ""


def _packed(found: Matrix) -> bytes:
    """Patterns and cloths as two int32, then verdicts, scores and open checks, row by row; compressed."""
    size = np.array(found.verdict.shape, np.int32)
    return zlib.compress(b"".join(part.tobytes() for part in (size, found.verdict, found.score, found.open_checks)), 1)


def _unpacked(content: bytes) -> Matrix:
    plain = zlib.decompress(content)
    shape = tuple(np.frombuffer(plain, np.int32, 2))
    count, at = int(shape[0] * shape[1]), 8
    parts = []
    for kind in (np.int8, np.float32, np.uint8):
        parts.append(np.frombuffer(plain, kind, count, at).reshape(shape))
        at += parts[-1].nbytes
    return Matrix(*parts)


def known(shop: Shop, state: State) -> Matrix | None:
    """The matrix of this state, if it has been worked out here or by the worker."""
    kept = _latest(shop)
    if kept and kept.state.version == state.version:
        return kept.matrix
    if _to_judge(shop, state) <= BY_THE_WAY:
        return None  # sooner judged than fetched
    content = asking.content(shop.database, JOB, state.shared_version)
    if content is None:
        return None
    found = _unpacked(content)
    shop.memory.keep(LATEST, (), Whole(state, found))
    return found


def at_hand(shop: Shop, state: State) -> Matrix | None:
    """The matrix of this state if it is there, or so quickly renewed that a page may do it by the way; else it is asked for."""
    kept = known(shop, state)
    if kept is None and _to_judge(shop, state) <= BY_THE_WAY:
        return _work_out(shop, state)
    if kept is None:
        _ask(shop, state)
    return kept


def warm(shop: Shop) -> None:
    """Read the shop and ask for its matrix, so that the first page finds them there or on their way."""
    at_hand(shop, shop.now())


def whole(shop: Shop, state: State) -> Matrix:
    """The matrix of this state; worked out now if it is not there."""
    return known(shop, state) or _work_out(shop, state)
