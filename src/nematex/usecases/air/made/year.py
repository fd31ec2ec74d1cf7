"""A year looked back on: what was shown, what worked, what sold."""

from __future__ import annotations

from collections import Counter
from dataclasses import dataclass
from datetime import date, datetime, time

from nematex.store.air.makes import made_between
from nematex.store.records import ClothRecord, PatternRecord, Programme
from nematex.usecases.air.made.log import Made, with_records
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State
from nematex.usecases.judging.overrides import Disagreement, disagreements
from nematex.usecases.stock.selling import sold

MOST = 8


@dataclass(frozen=True)
class Sold:
    """A cloth and the metres of it that were sold in the year; whether it was shown in it."""

    cloth: ClothRecord
    metres: float
    shown: bool


@dataclass(frozen=True)
class Year:
    """What a year brought."""

    year: int
    programmes: tuple[Programme, ...]
    pairings: int
    cloths: int
    patterns: int
    garments: tuple[tuple[str, int], ...]
    most_shown: tuple[tuple[ClothRecord, int], ...]
    never_shown: int
    made: tuple[Made, ...]
    verdicts: tuple[tuple[str, int], ...]
    worse_washed: tuple[Made, ...]
    most_made: tuple[tuple[PatternRecord, int], ...]
    hours: float
    parted: tuple[Disagreement, ...]
    sold: tuple[Sold, ...]
    sold_m: float
    sold_shown_m: float


def years(shop: Shop, state: State, today: date) -> list[int]:
    """The years in which something was shown or made, the latest first."""
    with shop.database.work() as work:
        dates = [each.made_on for each in made_between(work, date(1970, 1, 1), today) if each.made_on]
    found = {one.shown_on.year for one in state.programmes if one.shown_on and one.shown_on <= today}
    return sorted({today.year, *found, *(each.year for each in dates)}, reverse=True)


def year_of(shop: Shop, state: State, year: int, now: datetime) -> Year:
    first, last = date(year, 1, 1), min(date(year, 12, 31), now.date())
    shown = tuple(one for one in state.programmes if one.shown_on and first <= one.shown_on <= last)
    picks = [pick for one in shown for pick in one.picks if not pick.proposed]
    patterns = [found for pick in picks if (found := state.pattern(pick.pattern_id))]
    times = Counter(pick.cloth_id for pick in picks)
    with shop.database.work() as work:
        garments = [each for one in made_between(work, first, last) if (each := with_records(state, one))]
    made_of = Counter(each.pattern.id for each in garments)
    sales = _sold(shop, state, first, last, set(times), now)
    return Year(
        year,
        shown,
        len({(pick.cloth_id, pick.pattern_id) for pick in picks}),
        len(times),
        len({each.id for each in patterns}),
        tuple(Counter(each.facts.garment for each in patterns if each.facts.garment).most_common(MOST)),
        tuple((both[0], count) for cloth_id, count in times.most_common(MOST) if (both := state.cloth(cloth_id))),
        len(state.shelf.records) - len(times.keys() & state.shelf.place.keys()),
        tuple(garments),
        tuple(Counter(each.make.washed or each.make.verdict for each in garments if each.make.verdict).most_common()),
        tuple(each for each in garments if each.held_up is False),
        tuple((pattern, count) for number, count in made_of.most_common(MOST) if (pattern := state.pattern(number))),
        sum(each.make.hours or 0.0 for each in garments),
        tuple(disagreements(shop, state)[:MOST]),
        tuple(sales[:MOST]),
        sum(each.metres for each in sales),
        sum(each.metres for each in sales if each.shown),
    )


def _sold(shop: Shop, state: State, first: date, last: date, shown: set[int], now: datetime) -> list[Sold]:
    """What the stock readings of the year say was sold, the most first."""
    until = min(datetime.combine(last, time.max), now)
    found = sold(shop, None, datetime.combine(first, time()), until)
    rows = [Sold(each[0], sale.sold_m, number in shown) for number, sale in found.items() if (each := state.cloth(number))]
    return sorted((each for each in rows if each.metres > 0), key=lambda each: -each.metres)
