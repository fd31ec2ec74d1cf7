"""One garment from several cloths: each part judged in its own cloth, the cloths beside each other, and what each gives."""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass, replace

from nematex.core.amount.lay.draft import drafted
from nematex.core.amount.receipt import Amount
from nematex.core.amount.several import added_parts, in_several, tier_names
from nematex.core.cloth.estimates import Cloth
from nematex.core.errors import FieldFault, UnknownChoice
from nematex.core.judging.combination import Joint, PartCloth, joints
from nematex.core.judging.pairing import Pairing
from nematex.core.judging.saying.joint import say_joint
from nematex.core.judging.saying.say import Words
from nematex.core.judging.verdict import Verdict
from nematex.core.pattern.facts import Pattern, Wish
from nematex.core.pattern.hacks import read_hacks
from nematex.core.quantity.said import Units
from nematex.core.tables import Tables
from nematex.store.records import ClothRecord, PatternRecord
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State
from nematex.usecases.judging.ranking import one_pairing

ABOVE_THE_WAIST = ("body", "sleeve", "yoke", "collar")
BELOW_THE_WAIST = ("body", "yoke", "waistband", "pocket")


@dataclass(frozen=True)
class MixedPart:
    """A part with its cloth and what the rules say of it; no cloth chosen: None. `apart`: a piece that need not have one."""

    name: str
    fit: str
    record: ClothRecord | None
    pairing: Pairing | None
    apart: bool = False


@dataclass(frozen=True)
class Takes:
    """What one of the cloths has to give, and for which parts; None where neither table nor pieces tell."""

    parts: tuple[str, ...]
    record: ClothRecord
    amount: Amount | None


@dataclass(frozen=True)
class Mixed:
    """The parts, what was found between them with its words, the whole (the worst of all), and what each cloth gives."""

    parts: list[MixedPart]
    joints: list[tuple[Joint, Words]]
    verdict: Verdict | None
    takes: list[Takes]


def part_names(pattern: Pattern, tables: Tables) -> list[str]:
    """The parts of the pattern, the body first; the usual ones of its kind of garment where the envelope names none."""
    named = [part.name for part in pattern.parts]
    if not named:
        pieces = {piece.id for piece in drafted(pattern, Wish(), tables)}
        above = any("bodice" in each or each in ("front", "back") for each in pieces)
        named = list(ABOVE_THE_WAIST if above else BELOW_THE_WAIST)
    return sorted(named, key=lambda name: name.casefold() not in ("body", "bodice", "main"))


def pieces_apart(pattern: Pattern, wish: Wish, tables: Tables) -> dict[str, str]:
    """What may be cut from a cloth of its own beside the parts: each tier, and what changes add; name → part it is like."""
    tiers = dict.fromkeys(tier_names(pattern, wish, tables), "tier")
    return tiers | {name: hack.kind.name.split()[-1] for name, hack in added_parts(read_hacks(wish.hacks, tables)).items()}


def judged_as(name: str, pattern: Pattern, apart: Mapping[str, str], tables: Tables) -> str | None:
    """The part of the envelope by which it is judged; None where the envelope's parts have none like it."""
    if name not in apart:
        return name
    kind = tables.parts.find(apart[name])
    if not pattern.parts or kind is None:
        return apart[name] if kind else None
    return next((part.name for part in pattern.parts if tables.parts.find(part.name) == kind), None)


def part_of(name: str, pattern: Pattern, wish: Wish, tables: Tables) -> str | None:
    """The part by which a kept pick is judged; None where its name means nothing any more."""
    apart = pieces_apart(pattern, wish, tables)
    return judged_as(name, pattern, apart, tables) if name in apart or name in part_names(pattern, tables) else None


def read_choices(given: Mapping[str, str], names: list[str]) -> dict[str, int]:
    """Part → cloth id from 'cloth.sleeve=12'; raises FieldFault."""
    chosen = {}
    for name in names:
        text = given.get(f"cloth.{name}", "")
        if text and not re.fullmatch(r"[0-9]{1,9}", text):
            raise FieldFault(f"cloth of the {name}", text, "is no cloth of this shelf")
        if text:
            chosen[name] = int(text)
    return chosen


def mixed(shop: Shop, state: State, pattern: PatternRecord, chosen: Mapping[str, int], wish: Wish) -> Mixed:
    """Judge every part that has a cloth, and the cloths together; say what each cloth has to give."""
    shelf, apart = state.shelf, pieces_apart(pattern.facts, wish, state.tables)
    parts: list[MixedPart] = []
    held: list[PartCloth] = []
    for name in [*part_names(pattern.facts, state.tables), *apart]:
        at = shelf.place.get(chosen.get(name, 0))
        if at is None:
            parts.append(MixedPart(name, "", None, None, name in apart))
            continue
        like = judged_as(name, pattern.facts, apart, state.tables)
        pairing = one_pairing(shop, state, pattern, shelf.cloths[at], replace(wish, part=like)) if like else None
        fit = pairing.demand.made.fit if pairing else "free"
        parts.append(MixedPart(name, fit, shelf.records[at], pairing))
        held.append(PartCloth(name, fit, shelf.cloths[at]))
    found = joints(held, state.tables)
    codes = [part.pairing.verdict for part in parts if part.pairing] + [joint.verdict for joint in found]
    said = [(joint, say_joint(joint, state.tables, state.voice.units)) for joint in found]
    return Mixed(parts, said, max(codes) if codes else None, takes(state, pattern, chosen, wish, state.voice.units))


def takes(state: State, pattern: PatternRecord, chosen: Mapping[str, int], wish: Wish, units: Units) -> list[Takes]:
    """What each cloth of a garment has to give; nothing where the table has no such view or size."""
    shelf = state.shelf
    places = {name: at for name, number in chosen.items() if (at := shelf.place.get(number)) is not None}
    cloths: dict[str, Cloth] = {name: shelf.cloths[at] for name, at in places.items()}
    records = {id(shelf.cloths[at]): shelf.records[at] for at in places.values()}
    try:
        found = in_several(pattern.facts, cloths, wish, state.tables, units)
    except UnknownChoice:
        return []
    return [Takes(each.parts, records[id(each.cloth)], each.amount) for each in found]
