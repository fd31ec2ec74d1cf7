"""A programme's run sheet: what is said at each place in the shop's order, how long it takes, what lies on the table."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace

from nematex.core.air.pace import CLOSING, OPENING, Pace
from nematex.core.air.run_sheet import Part, RunSheet, Said, run_sheet
from nematex.core.errors import FieldFault
from nematex.core.quantity.reader import to_number
from nematex.store.programme import programmes as store
from nematex.store.records import Programme
from nematex.usecases.air.kits import all_kits, offered, said_of
from nematex.usecases.air.speaking import facts_of, order_of
from nematex.usecases.air.takes import shops_pace
from nematex.usecases.forms.merging import merged
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State
from nematex.usecases.programme.acts import checked_text, found_programme
from nematex.usecases.programme.notes import Entry, entries, viewers_cautions

FIELDS = {
    "minutes": "minutes",
    "opening": "opening",
    "closing": "closing",
    "wears": "what the presenter wears",
    "roles": "who does what",
    "disclosure": "gifts, payment, commission",
}
MOST_MINUTES = 240
NO_DISCLOSURE = ("none", "nothing", "no")  # asked and answered
CAN_GO = ("season", "width", "price", "difficulty", "notions", "sizes")


@dataclass(frozen=True)
class Props:
    """What lies on the table: bolts, patterns, notions."""

    bolts: tuple[str, ...]
    patterns: tuple[str, ...]
    notions: tuple[str, ...]


@dataclass(frozen=True)
class Run:
    """A run sheet with its props and what was typed for it."""

    sheet: RunSheet
    props: Props
    typed: Mapping[str, str]
    target_s: float | None
    pace: Pace
    words_per_min: float
    entries: tuple[Entry, ...]


def minutes_of(text: str) -> float | None:
    """A target in minutes; raises FieldFault."""
    if not text.strip():
        return None
    value = to_number(text, FIELDS["minutes"])
    if not 0 < value <= MOST_MINUTES:
        raise FieldFault(FIELDS["minutes"], text[:40], f"must be above 0 and up to {MOST_MINUTES}")
    return value


def save_run(shop: Shop, programme_id: int, given: Mapping[str, str]) -> None:
    """Keep what is typed for the run sheet beside the brief; raises FieldFault, Clashing."""
    with shop.database.work() as work:
        kept = dict(found_programme(work, programme_id).brief)
        values = merged(given, kept, FIELDS, FIELDS.__getitem__)
        for name, text in values.items():
            checked_text(FIELDS[name], text)
        minutes_of(values["minutes"])
        store.save_brief(work, programme_id, {**kept, **values})


def run_of(shop: Shop, state: State, programme: Programme) -> Run:
    """The run sheet of a programme as it stands."""
    typed = {name: programme.brief.get(name, "") for name in FIELDS}
    found = entries(shop, state, programme, for_notes=True)
    target = minutes_of(typed["minutes"])
    rule = state.tables.judging.run
    opening, closing = _opening(programme, typed, rule.opening_s), _closing(found, typed, rule.closing_s)
    pace = shops_pace(shop, rule)
    places = [*_places(state, programme, found), *_kits(shop, state, programme)]
    sheet = run_sheet([opening, *places, closing], 60 * target if target else None, rule, pace)
    return Run(sheet, _props(found), typed, 60 * target if target else None, pace, rule.words_per_min, tuple(found))


def _opening(programme: Programme, typed: Mapping[str, str], least_s: float) -> Part:
    said = Said("opening", typed["opening"] or f"Welcome. {programme.intro}")
    disclosure = disclosure_of(programme)
    return Part("Opening", (said, *((Said("disclosure", disclosure),) if disclosure else ())), least_s=least_s, kind=OPENING)


def disclosure_of(programme: Programme) -> str:
    """What is said of gifts, payment and commission; "" where nothing was, or nobody has said."""
    said = programme.brief.get("disclosure", "").strip()
    return "" if said.casefold().rstrip(".") in NO_DISCLOSURE else said


def _closing(found: list[Entry], typed: Mapping[str, str], least_s: float) -> Part:
    cautions = " ".join(each.text for each in viewers_cautions(found))
    said = typed["closing"] or "All cloths and patterns are linked below. Write to us what you make."
    return Part("Closing", (Said("cautions", cautions), Said("closing", said)), least_s=least_s, kind=CLOSING)


def _places(state: State, programme: Programme, found: list[Entry]) -> list[Part]:
    """A part for each place; what stands with another pick is said with it."""
    parts: list[Part] = []
    before: Entry | None = None  # whose cloth is still in the hand
    for entry in found:
        said = _said(state, programme, entry, before)
        before = entry
        if entry.leads or not parts:
            worth = entry.pairing.score if entry.pairing else 0.0
            title = f"{entry.number}. {entry.cloth.facts.name} for {entry.pattern.facts.name}"
            parts.append(Part(title, said, 1, worth=worth, picks=(entry.pick.id,)))
        else:
            place = parts[-1]
            parts[-1] = replace(place, said=(*place.said, *said), cloths=place.cloths + 1, picks=(*place.picks, entry.pick.id))
    return parts


def _kits(shop: Shop, state: State, programme: Programme) -> list[Part]:
    """A part for each kit that the programme offers."""
    kits = [found for kit in all_kits(shop, programme.id) if (found := offered(shop, state, kit))]
    return [
        Part(f"Kit: {found.kit.name}", tuple(Said(name, text) for name, text in said_of(found, state.voice)), 1, worth=100.0)
        for found in reversed(kits)
    ]


def _said(state: State, programme: Programme, entry: Entry, before: Entry | None) -> tuple[Said, ...]:
    """What is said at a place, in the shop's order: the name, the cloth's facts, then why this pattern and how much."""
    facts = facts_of(state, programme, entry, before)
    pattern = entry.pattern
    said = [("name", entry.cloth.facts.name), *((name, facts[name]) for name in order_of(state)), ("price", entry.price)]
    if not entry.companion:
        said.append(("pattern", ", ".join(filter(None, (pattern.facts.name, pattern.house)))))
    said += [("why", entry.said), ("your line", entry.pick.line), ("sizes", entry.amount), ("difficulty", pattern.difficulty)]
    said.append(("notions", ", ".join(entry.notions)))
    said += [("caution", caution.viewer) for caution in (entry.pairing.cautions if entry.pairing else ()) if caution.viewer]
    return tuple(Said(name, text, name in CAN_GO) for name, text in said if text)


def _props(found: list[Entry]) -> Props:
    bolts = dict.fromkeys(entry.cloth.facts.name for entry in found)
    patterns = dict.fromkeys(entry.pattern.facts.name for entry in found)
    notions = dict.fromkeys(notion for entry in found for notion in entry.notions)
    return Props(tuple(bolts), tuple(patterns), tuple(notions))
