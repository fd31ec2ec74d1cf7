"""A pairing that would close a hole of the set: the best that fits what is lacking, is in stock and is not shown yet."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from nematex.core.amount.length import least_length_m
from nematex.core.judging.matrix import Matrix
from nematex.core.judging.verdict import Verdict
from nematex.core.quantity.arrays import Mask
from nematex.core.set.coverage import Garment, garment_of
from nematex.store.records import ClothRecord, PatternRecord, Programme
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State
from nematex.usecases.judging.matrix_view import offered_cloths


@dataclass(frozen=True)
class Closing:
    """A pairing that would close a hole; `said` is how it does."""

    pattern: PatternRecord
    cloth: ClothRecord
    verdict: Verdict
    said: str = ""


Best = tuple[ClothRecord, float, Verdict]


def best_of_each(shop: Shop, state: State, programme: Programme, judged: Matrix) -> dict[int, Best]:
    """Pattern → its best cloth that the set does not show; the same while neither shelf, drawer nor picks change."""

    def work_out() -> dict[int, Best]:
        free = not_shown(state, programme)
        found = ((record.id, best_cloth(state, record, judged, free)) for record in state.drawer.records)
        return {pattern_id: best for pattern_id, best in found if best}

    picked = frozenset(pick.cloth_id for pick in programme.picks)
    return shop.memory.of(("best of each", picked), (state.shelf, state.drawer, state.tables, judged), work_out)


def garments_of(shop: Shop, state: State) -> dict[int, Garment]:
    """Pattern → the garment with the bodies that it reaches; read once for each state of the drawer."""

    def work_out() -> dict[int, Garment]:
        return {each.id: garment_of(each.facts.name, each.facts, state.tables) for each in state.drawer.records}

    return shop.memory.of("garments", (state.drawer, state.tables), work_out)


def best_cloth(state: State, record: PatternRecord, judged: Matrix, allowed: Mask) -> Best | None:
    """The best of the allowed cloths for a pattern that is no lining and in stock; with score and verdict."""
    shelf, place = state.shelf, state.drawer.place[record.id]
    enough = allowed & offered_cloths(state) & (shelf.may_have_m >= least_length_m(record.facts))
    good = enough & (judged.verdict[place] <= Verdict.WITH_CARE)
    if not good.any():
        return None
    at = int(np.argmax(np.where(good, judged.score[place], -1.0)))
    return shelf.records[at], float(judged.score[place, at]), Verdict(int(judged.verdict[place, at]))


def not_shown(state: State, programme: Programme) -> Mask:
    """The cloths that are not in the set."""
    taken = {pick.cloth_id for pick in programme.picks}
    return np.array([record.id not in taken for record in state.shelf.records], dtype=np.bool_)


def best_pairings(
    state: State, programme: Programme, judged: Matrix | None, patterns: Mask, cloths: Mask, count: int
) -> list[Closing]:
    """The best pairings of these patterns and cloths that the set does not show, each pattern once."""
    if judged is None or not len(cloths):
        return []
    shown = {pick.pattern_id for pick in programme.picks}
    allowed = cloths & not_shown(state, programme)
    found = []
    for record, fits in zip(state.drawer.records, patterns, strict=True):
        if fits and record.id not in shown and record.facts.wearer == "adult":
            best = best_cloth(state, record, judged, allowed)
            if best:
                found.append((best[1], Closing(record, best[0], best[2])))
    found.sort(key=lambda each: (each[1].verdict, -each[0]))
    return [each for _, each in found[:count]]
