"""Two or three cloths hung as the same garment at one scale, and what the look aims at."""

from __future__ import annotations

import math
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from nematex.core.cloth.estimates import Cloth
from nematex.core.cloth.measuring.draped_disc import DrapedDisc, draped_disc
from nematex.core.errors import FieldFault
from nematex.core.hang.cowl import Cowl, cowl
from nematex.core.hang.hem import BEND_CM, Cut, Hang, hang
from nematex.core.hang.silhouettes import Silhouette, checked, cut_of, silhouette
from nematex.core.hang.words import alone, compared, cowl_alone, cowl_compared
from nematex.core.pattern.facts import Wish
from nematex.core.pattern.hacks import Hack, hacked, read_hacks
from nematex.core.tables import Tables
from nematex.store.records import ClothRecord, PatternRecord
from nematex.usecases.held.drawer import Drawer
from nematex.usecases.held.shelf import Shelf
from nematex.usecases.judging.ranking import hacks_of

MOST = 3
USUAL = "A-line skirt"


@dataclass(frozen=True)
class Hung:
    """One cloth as it hangs: the bending length used in cm and its range, the model's answers, and words."""

    record: ClothRecord
    cloth: Cloth
    bend_cm: float
    range_cm: tuple[float, float]
    weight_gsm: float
    piece_g: float
    hang: Hang | None
    cowl: Cowl | None
    disc: DrapedDisc
    words: tuple[str, ...]


@dataclass(frozen=True)
class HangView:
    """Everything on the page; `aim` is how the look would have it hang, where a look is asked."""

    kind: Silhouette
    length_cm: float
    gather: float | None
    cut: Cut | None
    look: int
    aim_cm: float
    aim: Hang | None
    rows: list[Hung]
    pattern: PatternRecord | None
    changes: tuple[str, ...] = ()  # to the pattern, as they are said


def usual_garment(pattern: PatternRecord | None, tables: Tables, hacks: Iterable[Hack] = ()) -> str:
    """The silhouette that shows a pattern best, as it is changed."""
    if pattern is None:
        return USUAL
    facts = hacked(pattern.facts, hacks)
    said = " ".join((facts.name, facts.garment, *facts.details, *(word for part in facts.parts for word in part.details)))
    return tables.hung(said) or USUAL


def _number(given: Mapping[str, str], name: str) -> float | None:
    text = given.get(name, "").strip().replace(",", ".")
    if not text:
        return None
    try:
        value = float(text)
    except ValueError:
        value = math.nan
    if not math.isfinite(value):
        raise FieldFault(name, text, "is not a number")
    return value


Limits = tuple[float, float, float]  # usual, least, most


def _usual(kind: Silhouette, hacks: Iterable[Hack]) -> tuple[Limits, Limits | None]:
    """The usual length and gathering of a silhouette, with what the changes make of them; each with its limits."""
    length, low, high = kind.length_cm
    gather = kind.gather
    for hack in hacks:
        length += hack.numbers.get("by_cm", 0.0) * {"lengthen": 1, "shorten": -1}.get(hack.kind.name, 0)
        if gather and "gathers" in hack.kind.adds:
            gather = (float(np.clip(hack.numbers["ratio"], *gather[1:])), *gather[1:])
    return (float(np.clip(length, low, high)), low, high), gather


def aimed_cm(look: int, pattern: PatternRecord | None, drawer: Drawer, hacks: tuple[str, ...] = ()) -> float:
    """The bending length that a look (0 flowing to 100 structured) aims at: within the pattern's window where it has one."""
    share = look / 100
    if pattern:
        asked = drawer.demand(pattern, Wish(hacks=hacks))
        window = asked.window(asked.bending_length, asked.structure)
        target = window.target(share) if window else None
        if target is not None:
            return float(np.clip(target, *BEND_CM))
    looks = drawer.tables.judging.look
    known = sorted((look.share, look.aim_cm) for look in looks.values())
    return float(np.interp(share, [each[0] for each in known], [each[1] for each in known]))


def _bend(cloth: Cloth, given: Mapping[str, str], cloth_id: int) -> tuple[float, float]:
    """Bending length and weight as typed, else as known. A heavier cloth of the same stiffness hangs softer."""
    bend, weight = _number(given, f"bend.{cloth_id}"), _number(given, f"weight.{cloth_id}")
    if weight is not None and not 10 <= weight <= 1500:
        raise FieldFault("weight", weight, "must lie between 10 and 1500 g/m²")
    if bend is None:
        bend = cloth.bending_length.best
        if weight is not None:
            bend *= (cloth.weight.best / weight) ** (1 / 3)
    return bend, weight if weight is not None else cloth.weight.best


def _piece_g(cut: Cut | None, gsm: float) -> float:
    """What the piece weighs in g."""
    if cut is None:
        return 0.0
    area = float(np.trapezoid(np.array(cut.circumference_cm), np.array(cut.down_cm)))
    return area / 1e4 * gsm


def _words(kind: Silhouette, at: int, found: Sequence[Hang | Cowl], names: Sequence[str]) -> tuple[str, ...]:
    """How one hangs alone, and beside each of the others."""
    one = found[at]
    said = [cowl_alone(one) if isinstance(one, Cowl) else alone(kind, one)]
    for other, name in zip(found, names, strict=True):
        if isinstance(one, Cowl) and isinstance(other, Cowl) and other is not one:
            said.append(cowl_compared(one, other, name))
        elif isinstance(one, Hang) and isinstance(other, Hang) and other is not one:
            said.append(compared(kind, one, other, name))
    return tuple(said)


def hang_view(
    shelf: Shelf, drawer: Drawer, ids: Sequence[int], pattern: PatternRecord | None, given: Mapping[str, str]
) -> HangView:
    """Hang the cloths; raises FieldFault naming what cannot be hung."""
    written = hacks_of(given) if pattern else ()
    hacks = read_hacks(written, drawer.tables)
    kind = silhouette(given.get("garment") or usual_garment(pattern, drawer.tables, hacks))
    usual_length, usual_gather = _usual(kind, hacks)
    length = checked(kind.name, "length_cm", _number(given, "length"), usual_length, " cm")
    gather = checked(kind.name, "gather", _number(given, "gather"), usual_gather, "") if usual_gather else None
    asked_look = _number(given, "look")
    look = 50 if asked_look is None else int(asked_look)
    if not 0 <= look <= 100:
        raise FieldFault("look", look, "must lie between 0 (flowing) and 100 (structured)")
    places = [shelf.place[each] for each in dict.fromkeys(ids) if each in shelf.place][:MOST]
    cut = None if kind.name == "cowl" else cut_of(kind.name, length, gather)
    bends = [_bend(shelf.cloths[at], given, shelf.records[at].id) for at in places]
    found: list[Hang | Cowl] = [hang(cut, bend) if cut else cowl(length, bend) for bend, _ in bends]
    names = [shelf.records[at].facts.name for at in places]
    aim_cm = aimed_cm(look, pattern, drawer, written)
    rows = [
        Hung(
            shelf.records[at],
            shelf.cloths[at],
            bend,
            (shelf.cloths[at].bending_length.low, shelf.cloths[at].bending_length.high),
            gsm,
            _piece_g(cut, gsm),
            one if isinstance(one, Hang) else None,
            one if isinstance(one, Cowl) else None,
            draped_disc(bend),
            _words(kind, number, found, names),
        )
        for number, (at, (bend, gsm), one) in enumerate(zip(places, bends, found, strict=True))
    ]
    changed = tuple(hack.said for hack in hacks)
    return HangView(kind, length, gather, cut, look, aim_cm, hang(cut, aim_cm) if cut else None, rows, pattern, changed)
