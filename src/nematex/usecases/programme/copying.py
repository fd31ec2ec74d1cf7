"""Copying a look: a described garment, the nearest patterns with their changes, a dear and a cheap cloth for each."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date

import numpy as np

from nematex.core.amount.length import amount, least_length_m
from nematex.core.cloth.estimates import Cloth, known_cloth
from nematex.core.cloth.facts import SHEERNESS, STRUCTURES, ClothFacts
from nematex.core.colour.words import read_palette
from nematex.core.errors import FieldFault, UnknownChoice
from nematex.core.judging.verdict import Verdict
from nematex.core.pattern.facts import Pattern, Wish
from nematex.core.pattern.hacks import read_hack, read_hacks
from nematex.core.pattern.look import Look, look_of
from nematex.core.quantity.arrays import Floats
from nematex.core.quantity.money import cost_of
from nematex.core.quantity.reader import read_weight_gsm, to_number
from nematex.core.set.copy_look import Step, distance, steps_to, told
from nematex.core.set.stand_ins import differs, nearest
from nematex.store.records import ClothRecord, PatternRecord
from nematex.tables import colour_words
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State
from nematex.usecases.judging.matrix_view import offered_cloths
from nematex.usecases.judging.ranking import one_pairing
from nematex.usecases.programme.proposing.candidates import prices
from nematex.usecases.programme.stocked.nearness import beside_shelf
from nematex.usecases.programme.stocked.stand_ins import difference_said

FIELDS = ("shape", "cloth", "fibres", "structure", "sheer", "weight", "colour", "price")
LONGEST = 300
PATTERNS, TRIED = 3, 30


@dataclass(frozen=True)
class Described:
    """A garment from a shop: how it looks, its cloth as far as the label and the hand tell, its colour, its price."""

    shape: str
    look: Look
    cloth: Cloth
    colour: str
    price: float | None


@dataclass(frozen=True)
class Choice:
    """A cloth for the copy: the verdict, what the cloth of one garment costs, and what differs from the one described."""

    record: ClothRecord
    cloth: Cloth
    verdict: Verdict
    cost: str
    gives_up: tuple[str, ...]


@dataclass(frozen=True)
class Copy:
    """A pattern near the described garment: what differs, the changes that bring it nearer, a dear and a cheap cloth."""

    pattern: PatternRecord
    steps: list[Step]
    hacks: tuple[str, ...]
    said: tuple[str, ...]
    dear: Choice | None
    cheap: Choice | None


def read_described(state: State, given: Mapping[str, str]) -> Described:
    """A description from its fields; raises FieldFault naming the field."""
    text = {name: (given.get(name) or "").strip() for name in FIELDS}
    for name, words in text.items():
        if len(words) > LONGEST:
            raise FieldFault(name, f"{words[:40]}…", f"is {len(words)} letters long; at most {LONGEST} are read")
    garment, *details = (part.strip() for part in text["shape"].split(","))
    if state.tables.garments.find_within(garment) is None:
        rule = "names no garment that is known here; write it like midi shirt dress, long sleeves, tiered skirt"
        raise FieldFault("shape", text["shape"][:60], rule)
    for name, choices in (("structure", STRUCTURES), ("sheer", SHEERNESS)):
        if text[name] and text[name] not in choices:
            raise UnknownChoice(name, text[name][:40], choices, name)
    facts = ClothFacts(
        name="the garment",
        cloth=text["cloth"] or None,
        fibres=text["fibres"] or None,
        structure=text["structure"] or (None if text["cloth"] else "woven"),
        sheer=text["sheer"] or None,
        weight_gsm=read_weight_gsm(text["weight"], "weight") if text["weight"] else None,
    )
    palette = read_palette(text["colour"], colour_words()) if text["colour"] else None
    if palette and palette.unknown:
        rule = "is no colour word that is known here, nor a code like #24404a"
        raise FieldFault("colour", ", ".join(palette.unknown)[:60], rule)
    price = to_number(text["price"].lstrip("£€$ "), "price") if text["price"] else None
    look = look_of(Pattern(name=garment, details=tuple(details)), state.tables)
    return Described(text["shape"], look, known_cloth(facts, state.tables), palette.colours[0] if palette else "", price)


def copies(shop: Shop, state: State, described: Described) -> list[Copy]:
    """The nearest patterns, nearest first, each with its cloths."""
    rule, said = state.tables.judging.copy_look, told(described.shape, state.tables)
    near: list[tuple[float, PatternRecord, list[Step]]] = []
    for record in state.drawer.records:
        found = steps_to(described.look, look_of(record.facts, state.tables), said, rule)
        if found is not None and record.facts.wearer == "adult":
            near.append((distance(found, rule), record, found))
    near.sort(key=lambda each: each[0])
    away, off = beside_shelf(state, described.cloth, described.colour)
    return [_copy(shop, state, record, found, away, off) for _, record, found in near[:PATTERNS]]


def _copy(shop: Shop, state: State, record: PatternRecord, found: list[Step], away: Mapping[str, Floats], off: Floats) -> Copy:
    written = [read_hack(each.hack, state.tables).written() for each in found if each.hack]
    hacks = _fitting(written, state)
    said = tuple(hack.said for hack in read_hacks(hacks, state.tables))
    wish = Wish(hacks=hacks)
    price = prices(state)  # in one currency
    allowed = offered_cloths(state) & (state.shelf.stock_m >= least_length_m(record.facts)) & ~np.isnan(price)
    good = [at for at in nearest(off, allowed, TRIED) if _verdict(shop, state, record, at, wish) <= Verdict.WITH_CARE]
    if not good:
        return Copy(record, found, hacks, said, None, None)
    split = float(np.quantile(price[good], state.tables.judging.copy_look.dear_from))
    dear = next(at for at in good if price[at] >= split)
    share = state.tables.judging.stand_in.cheap_share
    cheap = next((at for at in good if price[at] <= share * price[dear] + 1e-9), None)
    if cheap is None:  # none at a third of it: the cheapest of those that are near
        cheap = min(good, key=lambda at: price[at])
    choices = [_choice(shop, state, record, at, wish, away) for at in (dear, cheap)]
    return Copy(record, found, hacks, said, choices[0], choices[1] if cheap != dear else None)


def _fitting(written: list[str], state: State) -> tuple[str, ...]:
    """The changes that can be made together; one that another rules out is left out."""
    kept: tuple[str, ...] = ()
    for each in written:
        try:
            read_hacks((*kept, each), state.tables)
        except FieldFault:
            continue
        kept = (*kept, each)
    return kept


def _verdict(shop: Shop, state: State, record: PatternRecord, at: int, wish: Wish) -> Verdict:
    return one_pairing(shop, state, record, state.shelf.cloths[at], wish).verdict


def _choice(shop: Shop, state: State, record: PatternRecord, at: int, wish: Wish, away: Mapping[str, Floats]) -> Choice:
    cloth, kept = state.shelf.cloths[at], state.shelf.records[at]
    takes = amount(cloth, record.facts, wish, state.tables)
    price = kept.price_on(date.today())
    cost = state.voice.money(cost_of(takes.length_m, price), kept.currency) if takes and price is not None else ""
    said = tuple(difference_said(name, cloth, off, state.voice) for name, off in differs(away, at))
    return Choice(kept, cloth, _verdict(shop, state, record, at, wish), cost, said)
