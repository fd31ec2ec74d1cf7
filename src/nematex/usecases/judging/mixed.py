"""One garment from several cloths: each part judged in its own cloth, then the cloths beside each other."""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass, replace

from nematex.core.errors import FieldFault
from nematex.core.judging.combination import Joint, PartCloth, joints
from nematex.core.judging.pairing import Pairing
from nematex.core.judging.saying.joint import say_joint
from nematex.core.judging.saying.say import Words
from nematex.core.judging.verdict import Verdict
from nematex.core.pattern.facts import Pattern, Wish
from nematex.store.records import ClothRecord, PatternRecord
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State
from nematex.usecases.judging.ranking import one_pairing

USUAL_PARTS = ("body", "sleeve", "yoke", "collar")


@dataclass(frozen=True)
class MixedPart:
    """A part with its cloth and what the rules say of it; no cloth chosen: None."""

    name: str
    fit: str
    record: ClothRecord | None
    pairing: Pairing | None


@dataclass(frozen=True)
class Mixed:
    """The parts, what was found between them with its words, and the whole: the worst of all."""

    parts: list[MixedPart]
    joints: list[tuple[Joint, Words]]
    verdict: Verdict | None


def part_names(pattern: Pattern) -> list[str]:
    """The parts of the pattern, the body first; the usual ones where the envelope names none."""
    named = [part.name for part in pattern.parts] or list(USUAL_PARTS)
    return sorted(named, key=lambda name: name.casefold() not in ("body", "bodice", "main"))


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
    """Judge every part that has a cloth, and the cloths together."""
    shelf = state.shelf
    parts: list[MixedPart] = []
    held: list[PartCloth] = []
    for name in part_names(pattern.facts):
        at = shelf.place.get(chosen.get(name, 0))
        if at is None:
            parts.append(MixedPart(name, "", None, None))
            continue
        pairing = one_pairing(shop, state, pattern, shelf.cloths[at], replace(wish, part=name))
        fit = pairing.demand.made.fit
        parts.append(MixedPart(name, fit, shelf.records[at], pairing))
        held.append(PartCloth(name, fit, shelf.cloths[at]))
    found = joints(held, state.tables)
    codes = [part.pairing.verdict for part in parts if part.pairing] + [joint.verdict for joint in found]
    said = [(joint, say_joint(joint, state.tables, state.voice.units)) for joint in found]
    return Mixed(parts, said, max(codes) if codes else None)
