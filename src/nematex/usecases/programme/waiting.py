"""The pairings that wait behind a place, judged as they are today."""

from __future__ import annotations

from dataclasses import dataclass

from nematex.core.errors import FieldFault
from nematex.core.judging.verdict import Verdict
from nematex.store.records import ClothRecord, PatternRecord, Pick, Programme
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State
from nematex.usecases.judging.ranking import fitting_wish, one_pairing
from nematex.usecases.programme.by_cloth import wish_of


@dataclass(frozen=True)
class Waiting:
    """A pairing behind a place; `verdict` is None where it cannot be judged."""

    pick: Pick
    cloth: ClothRecord
    pattern: PatternRecord
    verdict: Verdict | None


def waiting(shop: Shop, state: State, programme: Programme) -> dict[int, list[Waiting]]:
    """Pick that opens a place → what waits behind it; what is in the bin waits unseen."""
    return {
        leads: [found for pick in picks if (found := _judged(shop, state, pick))] for leads, picks in programme.waiting.items()
    }


def _judged(shop: Shop, state: State, pick: Pick) -> Waiting | None:
    cloth, pattern = state.cloth(pick.cloth_id), state.pattern(pick.pattern_id)
    if cloth is None or pattern is None:
        return None
    try:
        verdict = one_pairing(shop, state, pattern, cloth[1], fitting_wish(pattern, wish_of(pick))).verdict
    except FieldFault:
        verdict = None
    return Waiting(pick, cloth[0], pattern, verdict)
