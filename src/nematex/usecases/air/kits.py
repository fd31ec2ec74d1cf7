"""Kits on air: what is in one, how many are left of each size, what it brings, and what is said of it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime
from decimal import Decimal

from nematex.core.errors import FieldFault
from nematex.core.pattern.facts import Wish
from nematex.store.air import kits as store
from nematex.store.air.kits import KitOffer
from nematex.store.programme.programmes import announce_change
from nematex.store.records import ClothRecord, PatternRecord
from nematex.usecases.forms.stale import must_be_as_shown
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State
from nematex.usecases.judging.ranking import fitting_wish, one_pairing
from nematex.usecases.kit.kit import Answer, reserve_in
from nematex.usecases.programme.acts import NAME_LETTERS, checked_text
from nematex.usecases.quantity.saying import Voice

OPTIONAL_AT_FIRST = ("label", "ribbing")


@dataclass(frozen=True)
class Offered:
    """A kit with its cloth and pattern, and what viewers are warned of."""

    kit: KitOffer
    record: ClothRecord
    pattern: PatternRecord
    cautions: tuple[str, ...]

    @property
    def takings(self) -> Decimal | None:
        return None if self.kit.price is None else self.kit.price * self.kit.total

    @property
    def margin(self) -> Decimal | None:
        """What all of them bring above their cost."""
        return None if self.takings is None else self.takings - self.kit.cost

    @property
    def margin_pct(self) -> int | None:
        return round(100 * self.margin / self.takings) if self.takings and self.margin is not None else None


def contents_of(answer: Answer, voice: Voice) -> list[tuple[str, bool]]:
    """What is in a kit, as its leaflet says it; the cloth's length goes with the size."""
    asked, found = answer.asked, answer.kits
    said = [f"{asked.record.facts.name}, cut in one piece"]
    if asked.rib and found.total:
        said.append(f"ribbing: {voice.length(answer.rib_m / found.total)} of {asked.rib.facts.name}")
    if found.total:
        reels = answer.reels // found.total
        said.append(f"{reels} {'reel' if reels == 1 else 'reels'} of thread")
    said += [each.words for each in answer.notions if each.kind != "thread"]
    said += ["a leaflet", "a label to sew in"]
    return [(text, any(word in text for word in OPTIONAL_AT_FIRST)) for text in said]


def keep_kit(shop: Shop, state: State, answer: Answer, name: str, programme_id: int | None, now: datetime) -> int:
    """Reserve what the kits take and offer them, both or neither; the number. Raises FieldFault."""
    asked, found = answer.asked, answer.kits
    if not found.total:
        raise FieldFault("kits", "0", "can be cut from these bolts")
    title = checked_text("name of the kit", name, NAME_LETTERS) or f"{asked.pattern.facts.name} kit"
    sizes = tuple((size, answer.lengths_m[size], count) for size, count in found.counts.items() if count)
    new = KitOffer(
        0, title, programme_id, asked.pattern.id, asked.record.id, asked.view, asked.price,
        Decimal(answer.cost.total).quantize(Decimal("0.01")), sizes, tuple(contents_of(answer, state.voice)), {}, now,
    )  # fmt: skip
    with shop.database.work() as work:
        announce_change(work)
        reserve_in(work, answer)
        return store.add_offer(work, new)


def all_kits(shop: Shop, programme_id: int | None = None) -> list[KitOffer]:
    with shop.database.work() as work:
        return store.offers(work, programme_id)


def find_kit(shop: Shop, state: State, offer_id: int) -> Offered | None:
    """A kit; None where it, its cloth or its pattern was put away."""
    with shop.database.work() as work:
        found = store.offer(work, offer_id)
    return offered(shop, state, found) if found else None


def offered(shop: Shop, state: State, kit: KitOffer) -> Offered | None:
    cloth, pattern = state.cloth(kit.cloth_id), state.pattern(kit.pattern_id)
    if cloth is None or pattern is None:
        return None
    pairing = one_pairing(shop, state, pattern, cloth[1], fitting_wish(pattern, Wish(view=kit.view)))
    return Offered(kit, cloth[0], pattern, tuple(dict.fromkeys(each.viewer for each in pairing.cautions if each.viewer)))


def sell(shop: Shop, offer_id: int, size: str, step: int, now: datetime) -> None:
    """One more sold of a size (1), or taken back (-1); raises FieldFault where there is none."""
    with shop.database.work() as work:
        if not store.sell(work, offer_id, size, step, now):
            raise FieldFault("size", size[:40], "has none left" if step > 0 else "has none sold")


def optional_shown(kit: KitOffer) -> str:
    """The places of what is optional, as a form shows them."""
    return " ".join(str(at) for at, (_, optional) in enumerate(kit.contents) if optional)


def say_optional(shop: Shop, offer_id: int, optional: frozenset[int], shown: str | None = None) -> None:
    """Which of its things one may leave out; raises Clashing where those are others than were shown."""
    with shop.database.work() as work:
        announce_change(work)
        if kept := store.offer(work, offer_id):
            must_be_as_shown("optional", shown, optional_shown(kept), " ".join(map(str, sorted(optional))))
            store.set_optional(work, offer_id, optional)


def remove_kit(shop: Shop, offer_id: int) -> None:
    """Off the list; what is reserved for it stays reserved until it is given back."""
    with shop.database.work() as work:
        store.bin_offer(work, offer_id)


def said_of(found: Offered, voice: Voice) -> list[tuple[str, str]]:
    """What is said of a kit on air, by the name of the fact."""
    kit = found.kit
    inside = [text for text, optional in kit.contents if not optional]
    extra = [text for text, optional in kit.contents if optional]
    sizes = ", ".join(f"{size}: {left or 'gone'}" for size, left in kit.left.items())
    facts: Mapping[str, str] = {
        "kit": f"{kit.name}: {found.pattern.facts.name} in {found.record.facts.name}",
        "in it": ", ".join(inside),
        "optional": ", ".join(extra),
        "price": voice.money(kit.price, found.record.currency) if kit.price is not None else "",
        "left": "gone" if not kit.left_in_all else f"{kit.left_in_all} of {kit.total} ({sizes})",
    }
    return [(name, text) for name, text in facts.items() if text]
