"""The notes of a programme: every pairing in the order shown, with facts, amount, cautions and places for links."""

from __future__ import annotations

from dataclasses import dataclass, replace
from datetime import date

from nematex.core.amount.length import amount
from nematex.core.amount.receipt import Amount
from nematex.core.amount.sizes import by_size, spread
from nematex.core.beneath.interfacing import interfacing
from nematex.core.beneath.notions import of_view, read_notions
from nematex.core.beneath.thread import thread
from nematex.core.cloth.estimates import Cloth
from nematex.core.errors import FieldFault, UnknownChoice
from nematex.core.judging.pairing import Pairing
from nematex.core.judging.saying.aloud import each_its_own
from nematex.core.pattern.facts import Wish
from nematex.core.pattern.hacks import read_hacks
from nematex.core.tables import Tables
from nematex.store.records import ClothRecord, PatternRecord, Pick, Programme
from nematex.tables import colour_names
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State
from nematex.usecases.judging.mixed import part_of
from nematex.usecases.judging.ranking import fitting_wish, one_pairing
from nematex.usecases.programme.by_cloth import amounts_by_cloth, wish_of
from nematex.usecases.programme.companions import COMPANIONS, Companion, companion
from nematex.usecases.programme.stocked.stand_ins import instead_of
from nematex.usecases.quantity.saying import Voice

EPSILON_M = 0.001


@dataclass(frozen=True)
class Entry:
    """One pairing of the notes. Picks that stand as one share their number; `said` is what is said of it aloud."""

    number: int
    pick: Pick
    cloth: ClothRecord
    pattern: PatternRecord
    pairing: Pairing | None
    problem: str
    said: str
    facts: tuple[str, ...]
    told: tuple[str, ...]
    amount: str
    price: str
    made_with: str
    notions: tuple[str, ...]
    inside: tuple[str, ...]
    instead_of: str = ""
    companion: Companion | None = None

    @property
    def cloth_link(self) -> str:
        return str(self.cloth.more.get("link") or "")

    @property
    def leads(self) -> bool:
        """Whether it opens its place: what stands with the pick before it does not."""
        return not self.pick.with_before


@dataclass(frozen=True)
class Caution:
    """What a viewer is warned of, and the places that it concerns."""

    text: str
    numbers: tuple[int, ...]


def _washed(pairing: Pairing) -> str:
    return ", washing included" if pairing.amount and pairing.amount.washing_m > EPSILON_M else ""


def _amount(pairing: Pairing, voice: Voice, size: str | None, view: str | None) -> str:
    if pairing.amount is None:
        return ""
    chosen = " ".join(part for part in (f"view {view}" if view else "", f"size {size}" if size else "") if part)
    return f"{voice.length(pairing.amount.length_m)} for {chosen or 'the largest size'}{_washed(pairing)}"


def _range(pairing: Pairing, voice: Voice, wish: Wish, tables: Tables) -> str:
    """What the sizes of a view take, from the least to the most; "" where they take the same, or of a part."""
    sizes = by_size(pairing.cloth, pairing.demand.pattern, wish, tables)
    ends = spread(sizes) if not wish.part else None
    if not ends:
        return ""
    low, high = (voice.length(each.amount.length_m) for each in ends)
    return f"{voice.lead(low)} to {high} for sizes {sizes[0].size} to {sizes[-1].size}"


def _amounts(pairing: Pairing, voice: Voice, wish: Wish, other_size: str | None, tables: Tables) -> str:
    """The amount, that of the second size held, and what the sizes of the view take; without a size the sizes alone."""
    if pairing.amount is None:
        return ""
    over_all = _range(pairing, voice, wish, tables)
    if over_all and not (wish.size or other_size):
        return f"{f'view {wish.view}: ' if wish.view else ''}{over_all}{_washed(pairing)}"
    second = amount(pairing.cloth, pairing.demand.pattern, replace(wish, size=other_size), tables) if other_size else None
    other = f"{voice.length(second.length_m)} for size {other_size}" if second else ""
    return "; ".join(filter(None, (_amount(pairing, voice, wish.size, wish.view), other, over_all)))


def price_said(record: ClothRecord, voice: Voice, today: date | None = None) -> str:
    """What it costs on a day, else today, and what it cost before where it is on sale."""
    day = today or date.today()
    now = voice.price(record.price_on(day), record.currency)
    if not record.on_sale(day) or record.price_per_m is None:
        return now
    return f"{now}, was {voice.lead(voice.price(record.price_per_m, record.currency))}"


def _left(pairing: Pairing, record: ClothRecord, voice: Voice) -> str:
    """Where there is less than it takes."""
    if pairing.amount is None or record.stock_m is None or record.stock_m >= pairing.amount.length_m - EPSILON_M:
        return ""
    return f"only {voice.length(record.stock_m)} left" if record.stock_m else "sold out"


def _other(pairing: Pairing, use: str, tables: Tables) -> Amount | None:
    """What another use of the table takes, of cloth this wide; None where the table has no such row."""
    try:
        return amount(pairing.cloth, pairing.demand.pattern, replace(pairing.demand.wish, part=None), tables, use=use)
    except UnknownChoice:
        return None


def _inside(pairing: Pairing, record: ClothRecord, voice: Voice, tables: Tables) -> tuple[str, ...]:
    """Interfacing with its weight and length, and the thread."""
    found = interfacing(pairing.cloth, pairing.demand, tables)
    said = [
        f"{use.capitalize()}: {voice.length(takes.length_m)}"
        for use in ("contrast", "lining")
        if (takes := _other(pairing, use, tables))
    ]
    if found:
        length = f", {voice.length(found.length_m)}" if found.length_m else ""
        where = f" for {', '.join(found.places)}" if found.places else ""
        said.append(f"Interfacing: {found.kind}, {voice.weight_range(*found.gsm)}{length}{where}")
    if record.colours:
        shade = thread(pairing.cloth, record.colours[0], colour_names())
        said.append(f"Thread: {shade.shade}, {shade.kind}")
    return tuple(said)


def _made_with(pattern: PatternRecord, wish: Wish, tables: Tables) -> str:
    """Where options are mixed: 'with long sleeve; without ties'."""
    changed = "; ".join(hack.said for hack in read_hacks(wish.hacks, tables))
    if wish.options is None:
        return changed
    left_out = [each.name for each in pattern.facts.options if each.name not in wish.options]
    said = [f"{word} {', '.join(names)}" for word, names in (("with", wish.options), ("without", left_out)) if names]
    return "; ".join(filter(None, [*said, changed]))


def entries(shop: Shop, state: State, programme: Programme, for_notes: bool = False) -> list[Entry]:
    """The picks in order, judged as they are today; what goes inside is only looked up for the notes."""
    shelf, drawer, voice = state.shelf, state.drawer, state.voice
    found: list[Entry] = []
    by_cloth = amounts_by_cloth(state, programme)
    number = 0
    for pick in programme.picks:
        at, pattern = shelf.place.get(pick.cloth_id), drawer.by_id.get(pick.pattern_id)
        if at is None or pattern is None:
            continue
        record, cloth = shelf.records[at], shelf.cloths[at]
        wish = fitting_wish(pattern, wish_of(pick))
        if pick.part in COMPANIONS and found:
            found.append(_beside(state, pick, (record, cloth), found))
            continue
        if pick.part:  # also where the envelope names no parts and the usual ones are meant
            wish = replace(wish, part=part_of(pick.part, pattern.facts, wish, state.tables))
        pairing, problem = None, ""
        try:
            pairing = one_pairing(shop, state, pattern, cloth, wish)
        except FieldFault as fault:
            problem = str(fault)
        number += 0 if pick.with_before and found else 1
        found.append(
            Entry(
                number,
                pick,
                record,
                pattern,
                pairing,
                problem,
                "",
                tuple(voice.facts(cloth)),
                tuple(voice.told(cloth)),
                "; ".join(
                    said
                    for said in (
                        by_cloth.get(pick.id) or _amounts(pairing, voice, wish, pick.other_size, state.tables),
                        _left(pairing, record, voice) if for_notes else "",
                    )
                    if said
                )
                if pairing
                else "",
                price_said(record, voice),
                _made_with(pattern, wish, state.tables),
                tuple(each.words for each in of_view(read_notions(pattern.facts.notions), wish.view)),
                _inside(pairing, record, voice, state.tables) if pairing and for_notes else (),
                instead_of(state, pick),
            )
        )
    said = each_its_own((each.cloth.facts.name, each.pairing.spoken if each.pairing else ()) for each in found)
    return [each if each.companion else replace(each, said=words) for each, words in zip(found, said, strict=True)]


def _beside(state: State, pick: Pick, own: tuple[ClothRecord, Cloth], before: list[Entry]) -> Entry:
    """A lining, ribbing or accent of the garment that opens its place."""
    leads = next((each for each in reversed(before) if each.leads), before[0])
    wish, voice = fitting_wish(leads.pattern, wish_of(leads.pick)), state.voice
    outer = state.cloth(leads.cloth.id) or own
    found = companion(state, pick.part or "", outer, own, leads.pattern, wish)
    length = f"{voice.length(found.length_m)} for the {found.role}" if found.length_m else ""
    facts = tuple(voice.facts(own[1])), tuple(voice.told(own[1]))
    price = price_said(own[0], voice)
    beside = Entry(leads.number, pick, own[0], leads.pattern, None, "", found.said, *facts, length, price, "", (), ())
    return replace(beside, instead_of=instead_of(state, pick), companion=found)


def viewers_cautions(found: list[Entry]) -> list[Caution]:
    """What viewers are warned of, each once, with the numbers of the pairings."""
    numbers: dict[str, list[int]] = {}
    for each in found:
        for caution in each.pairing.cautions if each.pairing else ():
            if caution.viewer:
                numbers.setdefault(caution.viewer, []).append(each.number)
    return [Caution(text, tuple(dict.fromkeys(where))) for text, where in numbers.items()]
