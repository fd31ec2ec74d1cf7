"""A programme as a capsule: the outfits that it gives, which piece unites and which stands alone, and what would add most."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from nematex.core.judging.matrix import Matrix
from nematex.core.judging.verdict import Verdict
from nematex.core.pattern.look import layer_of
from nematex.core.set.outfits import Outfit, Pairs, Piece, gained, outfits, pairs, without
from nematex.store.records import ClothRecord, PatternRecord, Programme
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State
from nematex.usecases.judging.matrix_view import offered_cloths
from nematex.usecases.judging.whole_matrix import at_hand
from nematex.usecases.programme.whole.worn import Worn, piece, worn

OF_EACH, TRIED, SHOWN = 4, 240, 3


@dataclass(frozen=True)
class Wearing:
    """A garment of the capsule, and in how many outfits it is worn."""

    garment: Worn
    outfits: int


@dataclass(frozen=True)
class Gain:
    """A pairing that would give so many outfits more; `instead_of`: the garment in whose place it would stand."""

    pattern: PatternRecord
    cloth: ClothRecord
    verdict: Verdict
    more: int
    instead_of: Worn | None = None


@dataclass(frozen=True)
class Capsule:
    """The outfits of a programme. `ready`: whether what would add most could be worked out."""

    outfits: list[list[Worn]]
    garments: list[Wearing]
    unites: Wearing | None
    alone: list[Wearing]
    additions: list[Gain]
    swap: Gain | None
    ready: bool


def capsule(shop: Shop, state: State, programme: Programme) -> Capsule:
    """All of it for a programme as it stands; kept while nothing changes."""
    key = ("capsule", programme.id)
    judged = at_hand(shop, state)
    found: Capsule | None = state.worked_out.get(key)
    if found is None or found.ready is not (judged is not None):
        found = state.worked_out[key] = _capsule(shop, state, programme, judged)
    return found


def _capsule(shop: Shop, state: State, programme: Programme, judged: Matrix | None) -> Capsule:
    garments, rule = worn(state, programme), state.tables.judging.outfit
    pieces = [piece(state, each.record, each.cloth, each.layer, each.pattern.facts.name) for each in garments]
    found = outfits(pairs(pieces, rule))
    wearing = [Wearing(garment, sum(at in each for each in found)) for at, garment in enumerate(garments)]
    best = max(wearing, key=lambda each: each.outfits, default=None)
    offered = _known_offers(shop, state, programme, judged) if judged and len(state.shelf.records) else []
    both = pairs([*pieces, *(each[3] for each in offered)], rule, len(pieces))
    return Capsule(
        outfits=[[garments[at] for at in each] for each in found],
        garments=wearing,
        unites=best if best and best.outfits > 1 else None,
        alone=[each for each in wearing if not each.outfits],
        additions=_additions(both, len(pieces), offered),
        swap=_swap(both, garments, found, offered),
        ready=judged is not None,
    )


Offer = tuple[PatternRecord, ClothRecord, Verdict, Piece]


def _known_offers(shop: Shop, state: State, programme: Programme, judged: Matrix) -> list[Offer]:
    """The same while neither shelf nor drawer nor what is picked changes: moving a garment is no reason to look again."""
    picked = frozenset((pick.cloth_id, pick.pattern_id) for pick in programme.picks)
    rests_on = (state.shelf, state.drawer, state.tables, judged)
    return shop.memory.of(("offered", picked), rests_on, lambda: _offered(state, programme, judged))


def _offered(state: State, programme: Programme, judged: Matrix) -> list[Offer]:
    """The best pairings of patterns and cloths that are not in the set."""
    shelf, drawer = state.shelf, state.drawer
    patterns, cloths = {pick.pattern_id for pick in programme.picks}, {pick.cloth_id for pick in programme.picks}
    free = offered_cloths(state) & (shelf.may_have_m > 0)
    free[[shelf.place[each] for each in cloths if each in shelf.place]] = False
    found: list[tuple[float, int, int]] = []
    for at, record in enumerate(drawer.records):
        if record.id in patterns or record.facts.wearer != "adult":
            continue
        score = np.where(free & (judged.verdict[at] <= Verdict.WITH_CARE), judged.score[at], -1.0)
        most = min(OF_EACH, len(score))
        best = np.argpartition(-score, most - 1)[:most]
        found += [(float(score[place]), at, int(place)) for place in best if score[place] >= 0]
    found.sort(reverse=True)
    return [_offer(state, judged, at, place) for _, at, place in found[:TRIED]]


def _offer(state: State, judged: Matrix, at: int, place: int) -> Offer:
    pattern, record = state.drawer.records[at], state.shelf.records[place]
    layer = layer_of(pattern.facts, state.tables)
    verdict = Verdict(int(judged.verdict[at, place]))
    return pattern, record, verdict, piece(state, record, state.shelf.cloths[place], layer, pattern.facts.name)


def _additions(both: Pairs, known: int, offered: Sequence[Offer]) -> list[Gain]:
    """What would add most outfits, each pattern once."""
    more = gained(both, known)
    gains: dict[int, Gain] = {}
    for at in np.argsort(-more, kind="stable"):
        pattern, record, verdict, _ = offered[int(at)]
        if more[at] > 0 and len(gains) < SHOWN:
            gains.setdefault(pattern.id, Gain(pattern, record, verdict, int(more[at])))
    return list(gains.values())


def _swap(both: Pairs, garments: list[Worn], found: list[Outfit], offered: Sequence[Offer]) -> Gain | None:
    """The one exchange that gives most: of the piece that is worn least; None where none gives more than there is."""
    if len(garments) < 2 or not offered:
        return None
    at = max(range(len(garments)), key=lambda place: without(found, place))
    more = gained(both, len(garments), at)
    best = int(np.argmax(more))
    gain = without(found, at) + int(more[best]) - len(found)
    if gain <= 0:
        return None
    pattern, record, verdict, _ = offered[best]
    return Gain(pattern, record, verdict, gain, garments[at])
