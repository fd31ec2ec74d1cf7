"""What is unknown or contradictory on the shelf, by how many pairings hang on it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date

from nematex.core.cloth import Cloth
from nematex.core.contradictions import Contradiction, contradictions, disagreement
from nematex.store.programmes import times_picked
from nematex.store.readings import spans
from nematex.store.records import ClothRecord
from nematex.tables import properties
from nematex.usecases.hanging import hanging
from nematex.usecases.shelf import Shop
from nematex.usecases.worth import MEASURE_OF

PAGE = 40
KINDS = ("contradictory", "unknown")
# What a presenter will want to say or reckon with; which cloths need it, and what to call it.
WANTED = {
    "fibres": "Fibre content",
    "weight_gsm": "Weight",
    "bending_length_cm": "Drape",
    "stretch_cross_pct": "Stretch",
    "width_cm": "Usable width",
    "price_per_m": "Price",
    "stock_m": "Stock",
    "colours": "Colours",
}


@dataclass(frozen=True, slots=True)
class Lack:
    """One thing to mend: the cloth, what is wrong, how many pairings hang on it, and where it is measured."""

    record: ClothRecord
    kind: str
    property: str
    text: str
    pairings: int
    measure: str | None


@dataclass(frozen=True)
class LackPage:
    """One page of them, the most pressing first."""

    rows: list[Lack]
    counts: dict[str, int]
    total: int
    page: int
    pages: int


def _unknown(record: ClothRecord, cloth: Cloth) -> list[str]:
    facts = record.facts
    missing = [name for name in ("fibres", "weight_gsm", "width_cm") if getattr(facts, name) is None]
    if facts.bending_length_cm is None and facts.drape_coefficient_pct is None and facts.hand is None:
        missing.append("bending_length_cm")
    if cloth.structure == "knit" and facts.stretch_cross_pct is None:
        missing.append("stretch_cross_pct")
    return missing + [name for name in ("price_per_m", "stock_m", "colours") if getattr(record, name) in (None, ())]


def _in_the_shop(record: ClothRecord, today: date) -> list[Contradiction]:
    """What does not add up in the shop's own numbers."""
    found = []
    full, usable = record.width_full_cm, record.facts.width_cm
    if full is not None and usable is not None and usable > full:
        found.append(Contradiction("width_cm", f"The usable width, {usable:g} cm, is wider than the full one, {full:g} cm."))
    if record.stretch_unsaid and record.facts.known.get("stretch_cross_pct") != "measured":
        text = f"Stretch is given as {record.facts.stretch_cross_pct:g} % without a direction, and taken as across."
        found.append(Contradiction("stretch_cross_pct", text))
    for name, pieces in (("bolts", record.bolts), ("colourways", record.colourways)):
        lengths = [getattr(each, "length_m", getattr(each, "stock_m", None)) for each in pieces]
        known = [each for each in lengths if each is not None]
        if known and len(known) == len(lengths) and record.stock_m is not None and abs(sum(known) - record.stock_m) > 0.05:
            found.append(
                Contradiction("stock_m", f"The {name} add up to {sum(known):g} m, the stock says {record.stock_m:g} m.")
            )
    if record.sale_price_per_m and record.price_per_m and record.sale_price_per_m > record.price_per_m:
        found.append(Contradiction("price_per_m", "The sale price is higher than the price."))
    if record.print_kind == "solid" and record.facts.print.direction not in (None, "none"):
        found.append(Contradiction("print_direction", f"It is solid, and its print runs {record.facts.print.direction}."))
    if record.arrived and record.arrived > today:
        found.append(Contradiction("arrived", f"It arrived on {record.arrived}, which is still to come."))
    return found


def _lacks_of(
    record: ClothRecord, cloth: Cloth, readings: Mapping[str, tuple[float, float]], today: date
) -> list[tuple[str, Contradiction]]:
    found = [*contradictions(record.facts, cloth), *_in_the_shop(record, today)]
    found += [said for name, span in readings.items() if (said := disagreement(properties()[name], *span))]
    lacking = [("contradictory", each) for each in found]
    return lacking + [("unknown", Contradiction(name, f"{WANTED[name]} not known.")) for name in _unknown(record, cloth)]


def lacks(shop: Shop) -> list[Lack]:
    """Everything to mend, the most pressing first; worked out once for each state of the shop."""
    shelf, hangs = shop.shelf(), hanging(shop)
    today = date.today()
    with shop.database.work() as work:
        readings, picked = spans(work), times_picked(work)
    state = ("lacks", shelf.version, shop.drawer().version, hangs.patterns, today, sum(picked.values()))
    kept = shop.remembered(state)
    if isinstance(kept, list):
        return kept
    found = [
        Lack(
            record,
            kind,
            said.property,
            said.text,
            hangs.on(said.property, at, kind == "contradictory") or picked.get(record.id, 0),
            MEASURE_OF.get(said.property),
        )
        for at, (record, cloth) in enumerate(zip(shelf.records, shelf.cloths, strict=True))
        for kind, said in _lacks_of(record, cloth, readings.get(record.id, {}), today)
    ]
    found.sort(key=lambda each: (-each.pairings, each.kind, each.record.facts.name))
    shop.remember(state, found)
    return found


def lack_page(shop: Shop, kind: str, page: int) -> LackPage:
    """One page; `kind` narrows it, empty means both."""
    every = lacks(shop)
    chosen = [each for each in every if not kind or each.kind == kind]
    pages = max(1, -(-len(chosen) // PAGE))
    page = min(max(page, 1), pages)
    counts = {name: sum(each.kind == name for each in every) for name in KINDS}
    return LackPage(chosen[(page - 1) * PAGE : page * PAGE], counts, len(chosen), page, pages)


def lacks_of_cloth(shop: Shop, cloth_id: int) -> list[Lack]:
    return [each for each in lacks(shop) if each.record.id == cloth_id]


def worth_first(shop: Shop, count: int) -> list[tuple[ClothRecord, int]]:
    """The cloths on whose measurements most pairings hang, with how many."""
    most: dict[int, tuple[ClothRecord, int]] = {}
    for each in lacks(shop):
        if each.measure and each.pairings > most.get(each.record.id, (None, 0))[1]:
            most[each.record.id] = (each.record, each.pairings)
    return sorted(most.values(), key=lambda one: -one[1])[:count]
