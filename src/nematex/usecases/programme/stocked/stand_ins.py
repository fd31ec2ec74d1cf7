"""What stands in for a cloth that runs out: the nearest on the shelf, what differs, and putting it in a pick's place."""

from __future__ import annotations

from collections.abc import Collection, Mapping
from dataclasses import dataclass
from datetime import date

import numpy as np
import numpy.typing as npt

from nematex.core.amount.length import least_length_m
from nematex.core.amount.many import lengths_m
from nematex.core.cloth.estimates import Cloth
from nematex.core.cloth.likeness import distances, steps
from nematex.core.colour.difference import read_hex
from nematex.core.errors import FieldFault
from nematex.core.judging.verdict import Verdict
from nematex.core.pattern.facts import Wish
from nematex.core.quantity.arrays import Floats
from nematex.core.set.stand_ins import differs, in_use, nearest
from nematex.store.programme import programmes as store
from nematex.store.records import ClothRecord, PatternRecord, Pick
from nematex.usecases.held.shelf import known
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State
from nematex.usecases.judging.ranking import one_pairing
from nematex.usecases.judging.whole_matrix import at_hand
from nematex.usecases.programme.stocked.nearness import beside_shelf
from nematex.usecases.quantity.saying import Voice

SHOWN, TRIED = 3, 40
EPSILON_M = 0.001
MORE = {"weight": "heavier", "drape": "stiffer", "stretch": "gives more", "sheer": "shows more", "width": "wider"}
LESS = {"weight": "lighter", "drape": "softer", "stretch": "gives less", "sheer": "shows less", "width": "narrower"}


@dataclass(frozen=True)
class StandIn:
    """A cloth in the place of another: what differs, its price as a share of the other's (None: not comparable).

    `verdict` is for the pattern that was asked about.
    """

    record: ClothRecord
    cloth: Cloth
    differs: tuple[str, ...]
    price_share: float | None
    verdict: Verdict | None = None


@dataclass(frozen=True)
class _Near:
    """A cloth, how far every other one is from it, and by what."""

    state: State
    record: ClothRecord
    away: Mapping[str, Floats]
    distance: Floats

    @classmethod
    def to(cls, shop: Shop, state: State, record: ClothRecord) -> _Near:
        shelf, tables, judged = state.shelf, state.tables, at_hand(shop, state)
        at, off = shelf.place[record.id], np.full(len(shelf.records), np.nan)
        if record.colours:
            off = shelf.filed.distance(read_hex(record.colours[0]))
        away = steps(shelf.columns, at, off, tables.judging.likeness)
        like = distances(shelf.columns, at, away, tables)
        found = in_use(shelf.columns, at, like, judged.verdict if judged else None, tables)
        return cls(state, record, away, np.where(shelf.settled, found, np.inf))

    @classmethod
    def to_gone(cls, state: State, record: ClothRecord) -> _Near:
        """To a cloth that is not on the shelf any more."""
        away, found = beside_shelf(state, known(record, state.tables), record.colours[0] if record.colours else "")
        return cls(state, record, away, np.where(state.shelf.settled, found, np.inf))

    def stand_in(self, at: int, verdict: Verdict | None = None) -> StandIn:
        """The cloth at `at` of the shelf, in this one's place."""
        cloth, record = self.state.shelf.cloths[at], self.state.shelf.records[at]
        kind = record.facts.cloth or ""
        said: tuple[str, ...] = (kind,) if kind and kind != self.record.facts.cloth else ()
        said += tuple(difference_said(name, cloth, off, self.state.voice) for name, off in differs(self.away, at))
        return StandIn(record, cloth, said, price_share(self.record, record), verdict)


def difference_said(name: str, cloth: Cloth, off: float, voice: Voice) -> str:
    """'lighter, 98 g/m²'."""
    if name == "colour":
        return "another colour"
    word = (MORE if off > 0 else LESS)[name]
    figure = {
        "weight": voice.lead(voice.weight(cloth.weight.best)),
        "drape": f"bends at {cloth.bending_length.best:.1f} cm",
        "stretch": f"{cloth.stretch_cross.best:.0f} %",
        "width": voice.lead(voice.width(cloth.width.best)),
    }.get(name)
    return f"{word}, {figure}" if figure else word


def price_share(record: ClothRecord, other: ClothRecord) -> float | None:
    """What the other costs as a share of this one; None over two currencies or without a price."""
    prices = [each.price_on(date.today()) for each in (record, other)]
    if not prices[0] or not prices[1] or record.currency != other.currency:
        return None
    return float(prices[1] / prices[0])


def stand_ins(shop: Shop, state: State, record: ClothRecord) -> tuple[list[StandIn], StandIn | None]:
    """The nearest cloths that are in stock, nearest first; and the nearest at a third of the price or less."""
    shelf, near, share = state.shelf, _Near.to(shop, state, record), state.tables.judging.stand_in.cheap_share
    stocked = np.nan_to_num(shelf.stock_m, nan=1.0) > 0
    cheap = [at for at in _cheaper(near, stocked, share) if (price_share(record, shelf.records[at]) or 1.0) <= share]
    found = [near.stand_in(at) for at in (*nearest(near.distance, stocked, SHOWN), *cheap[:1])]
    return (found[:-1], found[-1]) if cheap else (found, None)


def _cheaper(near: _Near, allowed: npt.NDArray[np.bool_], share: float) -> list[int]:
    """The places of those at about this share of the price or less, whatever currency it is in; nearest first."""
    today, shelf = date.today(), near.state.shelf
    price = near.record.price_on(today)
    if not price:
        return []
    return nearest(near.distance, allowed & (shelf.filed.price_on(today) <= float(price) * share * 1.001), len(shelf.records))


def for_pick(
    shop: Shop,
    state: State,
    record: ClothRecord,
    pattern: PatternRecord,
    wish: Wish,
    times: float = 1.0,
    shown: Collection[int] = (),
) -> list[StandIn]:
    """The nearest cloths of which there is enough for so many of this garment, and which it takes; nearest first.

    A cloth that is `shown` already comes after the others.
    """
    near = _Near.to(shop, state, record) if record.id in state.shelf.place else _Near.to_gone(state, record)
    shelf = state.shelf
    takes = lengths_m(shelf.columns, pattern.facts, wish, state.tables)
    enough = shelf.stock_m >= times * (takes if takes is not None else least_length_m(pattern.facts)) - EPSILON_M
    found: list[StandIn] = []
    around = sorted(nearest(near.distance, enough, TRIED), key=lambda at: shelf.records[at].id in shown)
    for at in around:
        verdict = one_pairing(shop, state, pattern, shelf.cloths[at], wish).verdict
        if verdict <= Verdict.WITH_CARE:
            found.append(near.stand_in(at, verdict))
        if len(found) == SHOWN:
            break
    return found


def replace_cloth(shop: Shop, programme_id: int, pick_id: int, cloth_id: int) -> None:
    """Put another cloth into a pick's place; the pick remembers which it stands in for. Raises FieldFault."""
    with shop.database.work() as work:
        store.announce_change(work)
        if not store.replace_cloth(work, programme_id, pick_id, cloth_id):
            raise FieldFault("pick", str(pick_id), "was taken out meanwhile; put it back from the bin")


def instead_of(state: State, pick: Pick) -> str:
    """'in the place of Kelp Ladder challis, sold out'; "" where it stands in for nothing."""
    if not pick.instead_of:
        return ""
    found = state.cloth(pick.instead_of)
    if found is None:
        return "in the place of a cloth that the shop no longer has"
    gone = ", sold out" if found[0].stock_m == 0 else ""
    return f"in the place of {found[0].facts.name}{gone}"
