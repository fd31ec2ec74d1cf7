"""What is needed of a sew-along: by size, by cloth, and what the stock bears."""

from __future__ import annotations

from dataclasses import dataclass

from nematex.core.amount.sizes import OfSize, by_size
from nematex.core.beneath.notions import of_view, read_notions
from nematex.core.pattern.facts import Wish
from nematex.core.rules.reckoning import SewAlongRules
from nematex.store.records import ClothRecord, Reservation
from nematex.usecases.air.sew_along.form import Asked
from nematex.usecases.beneath.view import Beneath, beneath
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State
from nematex.usecases.judging.ranking import one_pairing
from nematex.usecases.kit.kit import reserved


@dataclass(frozen=True)
class OfCloth:
    """A cloth of a sew-along: what each size takes, how much all makers may take of it, how many the stock bears."""

    record: ClothRecord
    verdict: str
    said: str
    sizes: tuple[OfSize, ...]
    one_m: float  # of a maker on the mean of the sizes expected
    all_m: float  # with what is kept over; 0 where nobody is expected
    bears: int | None  # makers that the stock is enough for; None where it is not counted
    reserved: tuple[Reservation, ...]
    beneath: Beneath

    @property
    def is_short(self) -> bool:
        held = sum(each.length_m for each in self.reserved)
        return self.record.stock_m is not None and self.record.stock_m + held < self.all_m - 1e-6


def purpose(sew_along_id: int) -> str:
    """How the reasons of its reservations begin, whatever it is called meanwhile."""
    return f"sew-along {sew_along_id}: "


def supplies(shop: Shop, state: State, asked: Asked, sew_along_id: int) -> list[OfCloth]:
    """Of each cloth; makers are expected to spread over the cloths alike."""
    cloths = tuple(each.id for each in asked.cloths)
    key = ("supplies", sew_along_id, asked.pattern.id, cloths, asked.view, asked.makers, asked.mix)
    found: list[OfCloth] | None = state.worked_out.get(key)
    if found is None:
        found = state.worked_out[key] = _supplies(shop, state, asked, sew_along_id)
    return found


def _supplies(shop: Shop, state: State, asked: Asked, sew_along_id: int) -> list[OfCloth]:
    rule, share = state.tables.judging.sew_along, 1 / len(asked.cloths)
    held = [each for each in reserved(shop) if each.why.startswith(purpose(sew_along_id))]
    return [_of(shop, state, asked, record, share, rule, held) for record in asked.cloths]


def _of(
    shop: Shop, state: State, asked: Asked, record: ClothRecord, share: float, rule: SewAlongRules, held: list[Reservation]
) -> OfCloth:
    cloth = state.shelf.cloths[state.shelf.place[record.id]]
    wish = Wish(view=asked.view)
    sizes = tuple(by_size(cloth, asked.pattern.facts, wish, state.tables, state.voice.units))
    pairing = one_pairing(shop, state, asked.pattern, cloth, wish)
    one = mean_m(sizes, asked.mix)
    own = tuple(each for each in held if each.cloth_id == record.id)
    stock = None if record.stock_m is None else record.stock_m + sum(each.length_m for each in own)
    bears = None if stock is None or not one else int((stock + 1e-9) / (one * rule.spare))
    needed = round(asked.makers * share * one * rule.spare, 2)
    inside = beneath(state, asked.pattern, record, cloth, wish)
    return OfCloth(record, pairing.verdict.word, pairing.sentence, sizes, one, needed, bears, own, inside)


def mean_m(sizes: tuple[OfSize, ...], mix: tuple[tuple[str, float], ...]) -> float:
    """Metres a maker takes on the mean of a mix of sizes; of a table for every size, what it says."""
    lengths = {each.size: each.amount.length_m for each in sizes}
    if set(lengths) == {""}:
        return lengths[""]
    told = [(lengths[size], weight) for size, weight in mix if size in lengths]
    total = sum(weight for _, weight in told)
    return sum(length * weight for length, weight in told) / total if total else 0.0


def notions_of(asked: Asked, of: OfCloth) -> list[str]:
    """What the envelope lists, without what is said with its own kind and length."""
    said = {"thread"} | ({"interfacing"} if of.beneath.interfacing else set())
    return [each.words for each in of_view(read_notions(asked.pattern.facts.notions), asked.view) if each.kind not in said]
