"""A kit worked out: how many of which size, which bolt is cut how, ribbing and thread, cost and margin, what is left."""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from decimal import Decimal
from math import ceil

from nematex.core.amount.kits import Kits, SizeOfKit, Stretch, kits, shared, stretches
from nematex.core.amount.length import amount
from nematex.core.amount.sizes import sizes_of
from nematex.core.beneath.notions import Notion, of_view, read_notions
from nematex.core.cloth.estimates import Cloth
from nematex.core.errors import FieldFault
from nematex.core.pattern.chosen import view_shown
from nematex.core.pattern.facts import Wish
from nematex.core.quantity.pricing import Line, Sum, summed
from nematex.core.quantity.scan import scan
from nematex.store.cloth.reservations import give_back, reservations, reserve
from nematex.store.database import Work
from nematex.store.records import ClothRecord, PatternRecord, Reservation
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State

LONGEST_MONEY, LEAST_MONEY = 20, Decimal("0.0001")  # letters; the least step that is kept
MOST_TEXT = 300


@dataclass(frozen=True)
class Asked:
    """A kit as it is asked for; `total` None: as many as there are."""

    pattern: PatternRecord
    record: ClothRecord
    cloth: Cloth
    rib: ClothRecord | None
    bolts: tuple[Stretch, ...]
    mix: tuple[tuple[str, float], ...]
    total: int | None
    view: str | None
    price: Decimal | None
    other_cost: Decimal


@dataclass(frozen=True)
class Answer:
    """A kit worked out; lengths in m. `wanting` kits were asked for and cannot be cut."""

    asked: Asked
    kits: Kits
    lengths_m: dict[str, float]
    rib_m: float
    reels: int
    notions: list[Notion]
    cost: Sum
    wanting: int
    still: dict[float, str]

    @property
    def takings(self) -> Decimal | None:
        return None if self.asked.price is None else self.asked.price * self.kits.total

    @property
    def margin_pct(self) -> float | None:
        takings = self.takings
        return float(100 * (takings - self.cost.total) / takings) if takings else None


def read_bolt_lengths(text: str) -> tuple[Stretch, ...]:
    """'13 m; 12 m fault at 4.5 m' → lengths without a fault; raises FieldFault."""
    found: list[Stretch] = []
    for number, part in enumerate((each.strip() for each in re.split(r"[;\n]", text[:2000]) if each.strip()), 1):
        lengths = [each for each in scan(part) if each.unit in ("m", "yd", "")]
        if not lengths:
            raise FieldFault("bolts", part[:60], "is no bolt; write it like 13 m; 12 m fault at 4.5 m")
        metres = [each.cm("m") / 100 for each in lengths]
        if not 0 < metres[0] <= 500:
            raise FieldFault("bolts", part[:60], "must be a length up to 500 m")
        found += stretches(f"bolt {number}", metres[0], metres[1:])
    return tuple(found)


def read_mix(text: str, sizes: Sequence[str]) -> tuple[tuple[str, float], ...]:
    """'8:2, 10:4' → shares by size; nothing written: all alike. Raises FieldFault."""
    if not text.strip():
        return tuple((size, 1.0) for size in sizes)
    found: dict[str, float] = {}
    for part in re.split(r"[,;\n]", text[:MOST_TEXT]):
        if not part.strip():
            continue
        size, _, share = part.partition(":")
        size, share = size.strip(), share.strip() or "1"
        known = next((each for each in sizes if each.casefold() == size.casefold()), None)
        if known is None:
            raise FieldFault("size mix", size[:40], f"is no size of this pattern; choose from {', '.join(sizes)}")
        if not re.fullmatch(r"\d{1,4}(?:\.\d{1,3})?", share):
            raise FieldFault("size mix", part.strip()[:40], "says no share; write it like 8:2, 10:4")
        found[known] = found.get(known, 0.0) + float(share)
    if not sum(found.values()) > 0:
        raise FieldFault("size mix", text[:40], "must hold a share above 0")
    return tuple(found.items())


def _money(text: str, field: str) -> Decimal | None:
    plain = text.strip().lstrip("£€$").replace(",", ".")
    if not plain:
        return None
    try:
        value = Decimal(plain) if len(plain) <= LONGEST_MONEY else None
        value = value.quantize(LEAST_MONEY) if value is not None and value.is_finite() and abs(value) <= 10_000 else value
    except ArithmeticError:
        value = None
    if value is None:
        raise FieldFault(field, text[:40], "is no amount of money; write it like 24.50")
    if not (value.is_finite() and 0 <= value <= 10_000):
        raise FieldFault(field, text[:40], "must be from 0 to 10,000")
    return value


def read_asked(
    state: State, pattern: PatternRecord, record: ClothRecord, rib: ClothRecord | None, given: Mapping[str, str]
) -> Asked:
    """A kit from the page's fields; raises FieldFault naming the field."""
    bolts = read_bolt_lengths(given.get("bolts", ""))
    if not bolts:
        raise FieldFault("bolts", "", "must name at least one length; write it like 13 m; 12 m")
    facts, asked = pattern.facts, given.get("view", "")
    view = view_shown(facts, asked) or next((row.view for row in facts.requirements if row.use == "main"), None)
    count = given.get("kits", "").strip()
    if count and not re.fullmatch(r"[0-9]{1,4}", count):
        raise FieldFault("kits", count[:40], "is no number of kits; leave it empty for as many as there are")
    sizes = sizes_of(facts, view) or ["every size"]
    return Asked(
        pattern, record, state.shelf.cloths[state.shelf.place[record.id]], rib, bolts, read_mix(given.get("mix", ""), sizes),
        int(count) if count else None, view, _money(given.get("price", ""), "price of a kit"),
        _money(given.get("other", ""), "other costs of a kit") or Decimal(0),
    )  # fmt: skip


def _lengths(asked: Asked, state: State) -> dict[str, float]:
    """What each size takes, washing included: a kit's cloth is not washed when it is cut."""
    found = {}
    for size, _ in asked.mix:
        wish = Wish(view=asked.view, size=None if size == "every size" else size)
        takes = amount(asked.cloth, asked.pattern.facts, wish, state.tables)
        if takes is None:
            raise FieldFault("pattern", asked.pattern.facts.name, "has no table of amounts; enter one")
        found[size] = takes.length_m
    return found


def work_out(state: State, asked: Asked) -> Answer:
    """The kit's answer; raises FieldFault."""
    lengths = _lengths(asked, state)
    shares = [share for _, share in asked.mix]
    counts = shared(asked.total, shares) if asked.total is not None else shared(100, shares)
    wanted = [SizeOfKit(size, (lengths[size],), count) for (size, _), count in zip(asked.mix, counts, strict=True)]
    found = kits(asked.bolts, wanted, by_share=asked.total is None)
    rule = state.tables.judging.kit
    rib_m = round(found.total * rule.rib_strip_cm / 100, 2) if asked.rib else 0.0
    thread_m = rule.thread_m.get(asked.pattern.facts.garment, rule.usual_thread_m)
    still = {left: _still(left, lengths) for _, left in found.left}
    return Answer(
        asked, found, lengths, rib_m, found.total * ceil(thread_m / rule.reel_m),
        of_view(read_notions(asked.pattern.facts.notions), asked.view), _cost(asked, found, rib_m),
        max(0, (asked.total or 0) - found.total), still,
    )  # fmt: skip


def _still(left_m: float, lengths: Mapping[str, float]) -> str:
    """The largest size that a rest still makes."""
    fitting = [size for size, length in lengths.items() if length <= left_m + 1e-6]
    return fitting[-1] if fitting else ""


def _cost(asked: Asked, found: Kits, rib_m: float) -> Sum:
    record, rib = asked.record, asked.rib
    lines = [Line("cloth", Decimal(str(round(found.used_m, 3))), "m", record.price_on(date.today()), record.currency)]
    if rib:
        lines.append(Line("ribbing", Decimal(str(rib_m)), "m", rib.price_on(date.today()), rib.currency))
    lines.append(Line("thread, notions, leaflet", Decimal(found.total), "piece", asked.other_cost, record.currency))
    return summed(lines, record.currency)


def reserve_kit(shop: Shop, answer: Answer) -> None:
    """Take the kit's cloth and ribbing out of the stock, both or neither; raises FieldFault where there is less."""
    with shop.database.work() as work:
        reserve_in(work, answer)


def reserve_in(work: Work, answer: Answer) -> None:
    """The same within a unit of work."""
    asked = answer.asked
    why = f"{answer.kits.total} kits of {asked.pattern.facts.name}"
    for record, length in ((asked.record, round(answer.kits.used_m, 3)), (asked.rib, answer.rib_m)):
        if record and length and not reserve(work, record.id, length, why):
            rule = f"of {record.facts.name} is less than the {length:g} m needed"
            raise FieldFault("stock", f"{record.stock_m or 0:g} m", rule)


def reserved(shop: Shop, cloth_id: int | None = None) -> list[Reservation]:
    """What is reserved."""
    with shop.database.work() as work:
        return reservations(work, cloth_id)


def return_reserved(shop: Shop, reservation_id: int) -> Reservation | None:
    """Put a reserved length back."""
    with shop.database.work() as work:
        return give_back(work, reservation_id)


QUESTION = re.compile(r"(?:(\d{1,4})\s+)?(?P<what>[^\d]{0,60}?)\bkits?\b", re.IGNORECASE)


def is_kit(text: str) -> bool:
    """Whether a question asks for kits from bolts."""
    return bool(QUESTION.search(text[:MOST_TEXT])) and bool(re.search(r"\bbolts?\b|\brolls?\b", text, re.IGNORECASE))


def read_question(state: State, text: str) -> dict[str, str]:
    """'20 tee kits from a bolt of 13 m and one of 12 m, with ribbing' → the fields of the page, with what fits best."""
    text = text[:MOST_TEXT]
    found = QUESTION.search(text)
    words = " ".join(re.sub(r"[^\w\s-]", " ", found["what"]).split()) if found else ""
    words = re.sub(r"^(?:how many|make|cut|i want)\s*", "", words, flags=re.IGNORECASE)
    patterns = state.drawer.holding(words) or ([p for p in state.drawer.records if p.facts.garment == words] if words else [])
    bolts = [each for each in scan(text) if each.unit in ("m", "yd")]
    given = {"bolts": "; ".join(f"{each.value:g} {each.unit}" for each in bolts)}
    if found and found[1]:
        given["kits"] = found[1]
    if patterns:
        given["pattern"] = str(patterns[0].id)
        picked = [pick.cloth_id for one in state.programmes for pick in one.picks if pick.pattern_id == patterns[0].id]
        if picked:
            given["cloth"] = str(picked[-1])
    if re.search(r"\brib", text, re.IGNORECASE):
        ribs = [
            record
            for record, cloth in zip(state.shelf.records, state.shelf.cloths, strict=True)
            if cloth.type and cloth.type.family == "rib"
        ]
        if ribs:
            given["rib"] = str(max(ribs, key=lambda record: record.stock_m or 0.0).id)
    return given
