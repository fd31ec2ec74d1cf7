"""The colours of a programme: its tones, what shares one, what nearly does, and plain partners and ribbing for its prints."""

from __future__ import annotations

import re
from dataclasses import dataclass
from functools import partial

import numpy as np

from nematex.core.colour.difference import delta_e, nearest_name, read_hex
from nematex.core.set.palette import Tie, Tone, is_monotone, labs, near_misses, palette, ties
from nematex.store.records import ClothRecord, Programme
from nematex.tables import colour_names, colour_words
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State
from nematex.usecases.judging.matrix_view import offered_cloths
from nematex.usecases.programme.whole.worn import coloured, is_loud, is_printed

SHOWN, TIES = 3, 12
RIB = re.compile(r"\brib(?:bing)?\b")


@dataclass(frozen=True)
class Named:
    """A tone of the set with its name."""

    tone: Tone
    name: str


@dataclass(frozen=True)
class Partner:
    """A cloth on the shelf that picks up a colour of a print."""

    record: ClothRecord
    colour: str
    off: float


@dataclass(frozen=True)
class Partners:
    """A print of the set, and the plains and ribbings on the shelf that pick up one of its colours."""

    record: ClothRecord
    plains: list[Partner]
    ribs: list[Partner]


@dataclass(frozen=True)
class Colours:
    """The colours of a programme seen together; `warnings` in sentences."""

    tones: list[Named]
    ties: list[Tie]
    warnings: list[str]
    partners: list[Partners]


def colours(shop: Shop, state: State, programme: Programme) -> Colours:
    """Tones, ties, warnings and partners of a programme's cloths; their order in it is no matter."""
    ids = frozenset(pick.cloth_id for pick in programme.picks)
    return shop.memory.of(("colours", ids), (state.shelf, state.tables), partial(_colours, state, ids))


def _colours(state: State, ids: frozenset[int]) -> Colours:
    rule, names = state.tables.judging.colour, colour_names()
    records = [found[0] for each in sorted(ids) if (found := state.cloth(each))]
    cloths = [coloured(at, record) for at, record in enumerate(records)]
    tones = [Named(tone, nearest_name(read_hex(tone.colour), names).name) for tone in palette(cloths, rule)]
    warnings = [
        f"{tie.first.name} and {tie.second.name} are almost one colour and not quite: side by side it looks like a mistake."
        for tie in near_misses(cloths, rule)
    ]
    if is_monotone(cloths, rule):
        warnings.append("Every ground is of one family: nothing sets another off.")
    loud = [record.facts.name for record in records if is_loud(state, record)]
    if len(loud) > 1:
        warnings.append(f"{len(loud)} loud prints, {', '.join(loud)}: one of them to an outfit.")
    warnings += [said for record in records if (said := _other_than_its_name(state, record))]
    warnings += [f"The colours of {record.facts.name} are not known." for record in records if not record.colours]
    partners = [_partners(state, record, ids) for record in records if is_printed(record) and record.colours]
    return Colours(tones, ties(cloths, rule.tone)[:TIES], warnings, partners)


def _other_than_its_name(state: State, record: ClothRecord) -> str:
    """Where a cloth's name says another colour than is shown; "" where it says none, or the same."""
    words = colour_words().by_word
    said = [word for word in re.findall(r"[a-z]+", record.facts.name.casefold()) if word in words]
    if not said or not record.colours:
        return ""
    off = delta_e(labs([words[word] for word in said])[:, None, :], labs(record.colours)[None, :, :])
    if off.min() <= state.tables.judging.colour.name_off:
        return ""
    shown = nearest_name(read_hex(record.colours[0]), colour_names()).name
    return f"{record.facts.name} is called {said[0]} and is shown as {shown}: look at the cloth itself."


def _partners(state: State, record: ClothRecord, own: frozenset[int]) -> Partners:
    shelf, rule = state.shelf, state.tables.judging.colour
    off = np.stack([shelf.filed.distance(read_hex(colour)) for colour in record.colours])
    nearest = off.min(axis=0)
    offered = (shelf.may_have_m > 0) & (nearest <= rule.tone)
    plains: list[Partner] = []
    ribs: list[Partner] = []
    garments = offered_cloths(state)
    for at in np.argsort(nearest, kind="stable"):
        if not offered[at]:
            continue
        other = shelf.records[int(at)]
        partner = Partner(other, record.colours[int(np.argmin(off[:, at]))], float(nearest[at]))
        is_rib = bool(RIB.search(f"{other.facts.cloth or ''} {other.facts.name}".casefold()))
        if is_rib and len(ribs) < SHOWN:
            ribs.append(partner)
        elif not is_rib and other.id not in own and not is_printed(other) and garments[at] and len(plains) < SHOWN:
            plains.append(partner)
    return Partners(record, plains, ribs)
