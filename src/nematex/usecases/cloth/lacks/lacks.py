"""What is unknown or contradictory on the shelf, by how many pairings hang on it."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

from nematex.core.cloth.contradictions import Contradiction, contradictions, disagreement
from nematex.core.cloth.estimates import Cloth
from nematex.core.paging import page_of
from nematex.store.records import ClothRecord
from nematex.tables import properties
from nematex.usecases.cloth.lacks.stakes import Stakes, stakes, stakes_of
from nematex.usecases.cloth.lacks.worth import MEASURE_OF
from nematex.usecases.held.shelf import Spans
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State

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


def _faults_of(record: ClothRecord, cloth: Cloth, spans: Spans, today: date) -> tuple[tuple[str, Contradiction], ...]:
    """What does not add up and what is missing, each with its kind."""
    found = [*contradictions(cloth), *_in_the_shop(record, today)]
    found += [said for name, span in spans.items() if (said := disagreement(properties()[name], *span))]
    missing = [Contradiction(name, f"{WANTED[name]} not known.") for name in _unknown(record, cloth)]
    return (*(("contradictory", said) for said in found), *(("unknown", said) for said in missing))


def _lacks_at(state: State, place: int, held: Stakes | None, at_stake: int, today: date) -> list[Lack]:
    """Everything to mend on one cloth; `at_stake` is its place among what is held."""
    record, cloth = state.shelf.records[place], state.shelf.cloths[place]
    found = _faults_of(record, cloth, state.shelf.spans.get(record.id, {}), today)
    picked = state.times_picked[record.id]
    return [
        Lack(
            record,
            kind,
            said.property,
            said.text,
            (held.on(said.property, at_stake, kind == "contradictory") if held else 0) or picked,
            MEASURE_OF.get(said.property),
        )
        for kind, said in found
    ]


def _pressing(lack: Lack) -> tuple[int, str, str]:
    return -lack.pairings, lack.kind, lack.record.facts.name


def lacks(shop: Shop, state: State) -> list[Lack]:
    """Everything to mend, the most pressing first; worked out once for each state of the shop."""
    held, today = stakes(shop, state), date.today()

    def work_out() -> list[Lack]:
        every = range(len(state.shelf.records))
        return sorted((lack for place in every for lack in _lacks_at(state, place, held, place, today)), key=_pressing)

    return shop.memory.of("lacks", (state.shelf, state.drawer, state.programmes, held, today.toordinal()), work_out)


def lack_page(shop: Shop, state: State, kind: str, page: int) -> LackPage:
    """One page; `kind` narrows it, empty means both."""
    every = lacks(shop, state)
    chosen = [lack for lack in every if not kind or lack.kind == kind]
    found = page_of(chosen, page)
    counts = {name: sum(lack.kind == name for lack in every) for name in KINDS}
    return LackPage(found.rows, counts, found.total, found.page, found.pages)


def lacks_of_cloth(shop: Shop, state: State, cloth_id: int) -> list[Lack]:
    """Everything to mend on one cloth, without a look at the others."""
    place = state.shelf.place[cloth_id]
    return sorted(_lacks_at(state, place, stakes_of(shop, state, place), 0, date.today()), key=_pressing)


def worth_first(shop: Shop, state: State, count: int) -> list[tuple[ClothRecord, int]]:
    """The cloths on whose measurements most pairings hang, with how many."""
    most: dict[int, tuple[ClothRecord, int]] = {}
    for lack in lacks(shop, state):
        if lack.measure and lack.pairings > most.get(lack.record.id, (None, 0))[1]:
            most[lack.record.id] = (lack.record, lack.pairings)
    return sorted(most.values(), key=lambda one: -one[1])[:count]
