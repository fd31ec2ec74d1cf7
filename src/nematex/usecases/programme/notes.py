"""The notes of a programme: every pairing in the order shown, with facts, amount, cautions and places for links."""

from __future__ import annotations

from dataclasses import dataclass

from nematex.core.beneath.notions import of_view, read_notions
from nematex.core.errors import FieldFault
from nematex.core.judging.pairing import Pairing
from nematex.core.pattern.facts import Wish
from nematex.store.records import ClothRecord, PatternRecord, Pick, Programme
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State
from nematex.usecases.judging.ranking import fitting_wish, one_pairing
from nematex.usecases.quantity.saying import Voice

DISCLOSURE = (
    "Say plainly and early if anything here was a gift, paid for, or linked for a commission; check the rules where you live."
)


@dataclass(frozen=True)
class Entry:
    """One pairing of the notes."""

    number: int
    pick: Pick
    cloth: ClothRecord
    pattern: PatternRecord
    pairing: Pairing | None
    problem: str
    facts: tuple[str, ...]
    amount: str
    price: str
    made_with: str
    notions: tuple[str, ...]


def _amount(pairing: Pairing, voice: Voice, size: str | None, view: str | None) -> str:
    if pairing.amount is None:
        return ""
    chosen = " ".join(part for part in (f"view {view}" if view else "", f"size {size}" if size else "") if part)
    return f"{voice.length(pairing.amount.length_m)}{f' for {chosen}' if chosen else ' for the largest size of the table'}"


def _made_with(pattern: PatternRecord, wish: Wish) -> str:
    """Where options are mixed: 'with long sleeve; without ties'."""
    if wish.options is None:
        return ""
    left_out = [each.name for each in pattern.facts.options if each.name not in wish.options]
    said = [f"{word} {', '.join(names)}" for word, names in (("with", wish.options), ("without", left_out)) if names]
    return "; ".join(said)


def entries(shop: Shop, state: State, programme: Programme) -> list[Entry]:
    """The picks in order, judged as they are today."""
    shelf, drawer, voice = state.shelf, state.drawer, state.voice
    found: list[Entry] = []
    for pick in programme.picks:
        at, pattern = shelf.place.get(pick.cloth_id), drawer.by_id.get(pick.pattern_id)
        if at is None or pattern is None:
            continue
        record, cloth = shelf.records[at], shelf.cloths[at]
        wish = fitting_wish(pattern, Wish(pick.view, pick.size, None, pick.look, pick.school, pick.options))
        pairing, problem = None, ""
        try:
            pairing = one_pairing(shop, state, pattern, cloth, wish)
        except FieldFault as fault:
            problem = str(fault)
        found.append(
            Entry(
                len(found) + 1,
                pick,
                record,
                pattern,
                pairing,
                problem,
                tuple(voice.facts(cloth)),
                _amount(pairing, voice, wish.size, wish.view) if pairing else "",
                voice.price(record.price_per_m, record.currency),
                _made_with(pattern, wish),
                tuple(each.words for each in of_view(read_notions(pattern.facts.notions), wish.view)),
            )
        )
    return found
