"""What else a set shows, from kinds and cups to seasons and stock; what is lacking, and what would bring it."""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from datetime import date

import numpy as np

from nematex.core.cloth.facts import STRUCTURES
from nematex.core.cloth.print_scale import scale_word
from nematex.core.judging.matrix import Matrix
from nematex.core.quantity.arrays import Mask
from nematex.core.set.coverage import garment_of
from nematex.store.records import ClothRecord, Programme
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State
from nematex.usecases.judging.ranking import fitting_wish
from nematex.usecases.programme.by_cloth import wish_of
from nematex.usecases.programme.proposing.candidates import prices
from nematex.usecases.programme.stocked.needs import needs
from nematex.usecases.programme.whole.closing import Closing, best_pairings
from nematex.usecases.programme.whole.costs import whole_cost
from nematex.usecases.programme.whole.season import season_said
from nematex.usecases.programme.whole.worn import Worn, is_printed, worn
from nematex.usecases.quantity.saying import hand_word

OFFERED, SEVERAL = 2, 3
EASY = "easy"
CHECK = "check"


@dataclass(frozen=True)
class Spread:
    """One respect of the set: what there is and how often; what is missing in words ("": nothing), and what would bring it."""

    name: str
    counts: list[tuple[str, int]]
    missing: str = ""
    closings: Sequence[Closing] = ()
    said: str = ""


class _Set:
    """A programme with what may close its gaps."""

    def __init__(self, shop: Shop, state: State, programme: Programme, judged: Matrix | None) -> None:
        self.shop, self.state, self.programme, self.judged = shop, state, programme, judged
        self.garments: list[Worn] = worn(state, programme)
        records = {pick.cloth_id: found for pick in programme.picks if (found := state.cloth(pick.cloth_id))}
        self.cloths = list(records.values())

    def close(self, patterns: Callable[[int], bool] | None = None, cloths: Mask | None = None) -> list[Closing]:
        """The best pairings of patterns at these places of the drawer with these cloths of the shelf."""
        state = self.state
        wanted = [patterns is None or patterns(at) for at in range(len(state.drawer.records))]
        every = np.ones(len(state.shelf.records), dtype=np.bool_)
        allowed = every if cloths is None else cloths
        return best_pairings(state, self.programme, self.judged, np.array(wanted, dtype=np.bool_), allowed, OFFERED)


def spreads(shop: Shop, state: State, programme: Programme, judged: Matrix | None) -> list[Spread]:
    """Every respect in which a set may be one-sided."""
    at = _Set(shop, state, programme, judged)
    ways = (_kinds, _makes, _cups, _structures, _weights, _drapes, _prints, _scales, _prices, _seasons, _depths)
    return [found for way in ways if (found := way(at))]


def _kinds(at: _Set) -> Spread:
    kinds = Counter(each.kind for each in at.garments)
    if len(kinds) != 1 or len(at.garments) < SEVERAL:
        return Spread("garments", kinds.most_common())
    only, records = next(iter(kinds)), at.state.drawer.records
    close = at.close(lambda place: garment_of("", records[place].facts, at.state.tables).kind != only)
    return Spread("garments", kinds.most_common(), "All of one kind.", close)


def _makes(at: _Set) -> Spread:
    records = at.state.drawer.records
    makes = Counter(each.pattern.difficulty for each in at.garments if each.pattern.difficulty)
    if not makes or EASY in makes or all(each.difficulty != EASY for each in records):
        return Spread("makes", makes.most_common())
    return Spread("makes", makes.most_common(), "Nothing easy.", at.close(lambda place: records[place].difficulty == EASY))


def _cups(at: _Set) -> Spread | None:
    """Whether patterns drafted for cup sizes are among them, where the shop has any."""
    records = at.state.drawer.records
    with_cups = [any(size.cup for size in record.facts.sizes) for record in records]
    cups = Counter(size.cup for each in at.garments for size in each.pattern.facts.sizes if size.cup)
    if not any(with_cups):
        return None
    if cups:
        return Spread("cups", sorted(cups.items()))
    return Spread("cups", [], "None drafted for cup sizes.", at.close(lambda place: with_cups[place]))


def _structures(at: _Set) -> Spread:
    there = Counter(str(cloth.structure or "not known") for _, cloth in at.cloths)
    absent = [each for each in ("knit", "woven") if there and not there[each]]
    if len(absent) != 1:
        return Spread("cloths", there.most_common())
    mask = at.state.shelf.columns.structure == STRUCTURES.index(absent[0])
    return Spread("cloths", there.most_common(), f"No {absent[0]}." if mask.any() else "", at.close(cloths=mask))


def _weight_word(at: _Set, gsm: float, structure: str | None) -> str:
    """The narrowest word that a weight of this structure has."""
    rows = [row for row in at.state.tables.weight_words if row.structure == (structure or "woven")]
    fitting = [row for row in rows if row.cloth_gsm.low <= gsm <= row.cloth_gsm.high]
    return min(fitting, key=lambda row: row.cloth_gsm.high - row.cloth_gsm.low).word if fitting else ""


def _weights(at: _Set) -> Spread:
    words = Counter(_weight_word(at, cloth.weight.best, cloth.structure) for _, cloth in at.cloths)
    words.pop("", None)
    values, voice = [cloth.weight.best for _, cloth in at.cloths], at.state.voice
    said = voice.weight_range(min(values), max(values)) if values else ""
    if len(words) != 1 or len(at.cloths) < SEVERAL:
        return Spread("weights", words.most_common(), said=said)
    low, high = min(values), max(values)
    best = at.state.shelf.columns.weight.best
    return Spread("weights", words.most_common(), "All of one weight.", at.close(cloths=(best < low) | (best > high)), said)


def _drapes(at: _Set) -> Spread:
    tables = at.state.tables
    words = Counter(hand_word(cloth.bending_length.best, tables) for _, cloth in at.cloths)
    if len(words) != 1 or len(at.cloths) < SEVERAL:
        return Spread("drape", words.most_common())
    only, best = next(iter(words)), at.state.shelf.columns.bending_length.best
    others = np.array([hand_word(float(each), tables) != only for each in best], dtype=np.bool_)
    return Spread("drape", words.most_common(), f"All {only}.", at.close(cloths=others))


def _prints(at: _Set) -> Spread:
    prints = Counter("print" if is_printed(record) else "plain" for record, _ in at.cloths)
    if len(prints) != 1 or len(at.cloths) < SEVERAL:
        return Spread("plain and print", prints.most_common())
    wants_print = "plain" in prints
    mask = np.array([is_printed(record) is wants_print for record in at.state.shelf.records], dtype=np.bool_)
    missing = "All plain: nothing carries the colours." if wants_print else "All prints: nothing plain to rest on."
    return Spread("plain and print", prints.most_common(), missing, at.close(cloths=mask))


def _size_cm(record: ClothRecord) -> float | None:
    printed = record.facts.print
    return printed.scale_cm or printed.repeat_length_cm or printed.repeat_width_cm


def _scales(at: _Set) -> Spread | None:
    """How large the prints are, and the checks beside each other."""
    tables = at.state.tables
    sizes = [(record, size) for record, _ in at.cloths if is_printed(record) and (size := _size_cm(record))]
    if not sizes:
        return None
    words = Counter(scale_word(size, tables) for _, size in sizes)
    checks = sorted(size for record, size in sizes if record.print_kind == CHECK)
    said = f"checks of {', '.join(f'{size:g}' for size in checks)} cm" if len(checks) > 1 else ""
    alike = len(words) == 1 and len(sizes) >= SEVERAL
    if not alike:
        return Spread("print sizes", words.most_common(), said=said)
    only = next(iter(words))

    def another(record: ClothRecord) -> bool:
        size = _size_cm(record) if is_printed(record) else None
        return size is not None and scale_word(size, tables) != only

    mask = np.array([another(record) for record in at.state.shelf.records], dtype=np.bool_)
    return Spread("print sizes", words.most_common(), f"All {only}.", at.close(cloths=mask), said)


def _prices(at: _Set) -> Spread | None:
    """What one garment costs, with what goes beneath and into it."""
    found = [
        cost
        for each in at.garments
        if (cost := whole_cost(at.shop, at.state, each.pattern, each.record, fitting_wish(each.pattern, wish_of(each.pick))))
    ]
    currencies = {each.record.currency for each in at.garments}
    if not found or len(currencies) != 1:
        return None
    low, high, alike = min(found), max(found), at.state.tables.judging.coverage.alike_price
    voice, currency = at.state.voice, next(iter(currencies))
    span = f"{voice.money(low, currency)} to {voice.money(high, currency)}"
    said = f"{span} for a garment with what goes into it, as far as prices are known"
    if float(high) >= alike * float(low) or len(found) < SEVERAL:
        return Spread("prices", [], said=said)
    own = [float(each.record.price_on(date.today()) or 0) for each in at.garments]
    price = np.nan_to_num(prices(at.state), nan=-1.0)
    other = (price > 0) & ((price * alike <= min(own)) | (price >= alike * max(own)))
    return Spread("prices", [], "All cost about the same: nothing cheap, nothing dear.", at.close(cloths=other), said)


def _seasons(at: _Set) -> Spread | None:
    """Cloths that are early or late for the day it is shown."""
    if at.programme.shown_on is None:
        return None
    off = {record.facts.name: said for record, _ in at.cloths if (said := season_said(at.state, at.programme, record))}
    said = "; ".join(f"{name}: {each}" for name, each in off.items())
    return Spread("season", [("in season", len(at.cloths) - len(off)), *([("out of season", len(off))] if off else [])], said)


def _depths(at: _Set) -> Spread | None:
    """For how many garments there is cloth, at the place with least."""
    found = {each.pick.id: need for each in at.garments if (need := needs(at.state, at.programme).get(each.pick.id))}
    if not found:
        return None
    least = min(found, key=lambda pick_id: found[pick_id].left_m / max(found[pick_id].one_m, 0.01))
    name = next(each.record.facts.name for each in at.garments if each.pick.id == least)
    count = int(found[least].left_m / max(found[least].one_m, 0.01) + 1e-6)
    scarce = [each for each in at.garments if each.pick.id in found and found[each.pick.id].is_scarce]
    missing = f"Too little of {', '.join(each.record.facts.name for each in scarce)}." if scarce else ""
    return Spread("stock", [], missing, said=f"enough for {count} of the place with least, {name}")
