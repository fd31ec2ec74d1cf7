"""What was shown when: of a cloth, of a pattern, season on season; how it sold after; and what is not to be shown again yet."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from datetime import date, datetime, time, timedelta

from nematex.core.paging import Page, page_of
from nematex.store.records import ClothRecord, PatternRecord, Pick, Programme
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State
from nematex.usecases.stock.selling import sold

MONTHS_PER_YEAR = 12
SOLD_DAYS = 14  # after it was shown
SEASON_OF_MONTH = ("winter", "winter", *["spring"] * 3, *["summer"] * 3, *["autumn"] * 3, "winter")


@dataclass(frozen=True)
class Shown:
    """A pick and the programme that it stood in."""

    programme: Programme
    pick: Pick


@dataclass(frozen=True)
class Appearance:
    """A cloth shown with a pattern; `sold_m` in the days after, None where nobody counted then."""

    programme: Programme
    pick: Pick
    cloth: ClothRecord | None
    pattern: PatternRecord | None
    sold_m: float | None


@dataclass(frozen=True)
class Season:
    """The programmes of one season of one year: how many, what of, and what came again from the same season a year before."""

    name: str
    programmes: list[Programme]
    pairings: int
    garments: list[tuple[str, int]]
    again: int


def months_before(day: date, months: int) -> date:
    """The same day so many months earlier, the last of the month where it has fewer days."""
    count = day.year * MONTHS_PER_YEAR + day.month - 1 - months
    year, month = divmod(count, MONTHS_PER_YEAR)
    for number in range(day.day, 27, -1):
        try:
            return date(year, month + 1, number)
        except ValueError:
            continue
    return date(year, month + 1, day.day)


def _dated(state: State, programme: Programme | None = None) -> Iterator[Shown]:
    """What stands in programmes with a day, but not in this one, and not what is only proposed."""
    for other in state.programmes:
        if other.shown_on and (programme is None or other.id != programme.id):
            for pick in other.picks:
                if not pick.proposed:
                    yield Shown(other, pick)


def shown_within(state: State, programme: Programme, months: int, today: date) -> frozenset[tuple[int, int]]:
    """The pairings (cloth, pattern) of other programmes within so many months of this one's day; none for 0 months."""
    return frozenset((each.pick.cloth_id, each.pick.pattern_id) for each in _within(state, programme, months, today))


def _within(state: State, programme: Programme, months: int, today: date) -> Iterator[Shown]:
    day = programme.shown_on or today
    first = months_before(day, months)
    for each in _dated(state, programme) if months else ():
        if each.programme.shown_on and first <= each.programme.shown_on <= day:
            yield each


def again(state: State, programme: Programme, pick: Pick, months: int, today: date) -> Programme | None:
    """The programme in which this pairing was shown not long ago."""
    pair = pick.cloth_id, pick.pattern_id
    found = (each for each in _within(state, programme, months, today) if (each.pick.cloth_id, each.pick.pattern_id) == pair)
    return next((each.programme for each in found), None)


def appearances(
    shop: Shop, state: State, today: date, page: int, cloth_id: int | None = None, pattern_id: int | None = None
) -> Page[Appearance]:
    """When a cloth, a pattern or anything was shown or will be: a page, the latest first."""
    found = [
        each for each in _dated(state) if cloth_id in (None, each.pick.cloth_id) and pattern_id in (None, each.pick.pattern_id)
    ]
    found.sort(key=lambda each: each.programme.shown_on or date.max, reverse=True)
    shown = page_of(found, page)
    return Page(_with_sales(shop, state, shown.rows, today), shown.total, shown.page, shown.pages)


def _with_sales(shop: Shop, state: State, shown: Iterable[Shown], today: date) -> list[Appearance]:
    """The same with what was sold after; those of one day are looked up together, so their order is kept."""
    by_day: dict[date, list[Shown]] = {}
    for each in shown:
        by_day.setdefault(each.programme.shown_on or today, []).append(each)
    found = []
    for day, several in by_day.items():
        begun = datetime.combine(day, time())
        ids = {each.pick.cloth_id for each in several}
        sales = sold(shop, ids, begun, begun + timedelta(days=SOLD_DAYS)) if day <= today else {}
        for each in several:
            cloth, sale = state.cloth(each.pick.cloth_id), sales.get(each.pick.cloth_id)
            pair = cloth[0] if cloth else None, state.pattern(each.pick.pattern_id)
            found.append(Appearance(each.programme, each.pick, *pair, sale.sold_m if sale else None))
    return found


def _season(day: date) -> tuple[int, str]:
    """The season of a day, with its year: December belongs to the winter of the next."""
    return day.year + (day.month == MONTHS_PER_YEAR), SEASON_OF_MONTH[day.month - 1]


def seasons(state: State) -> list[Season]:
    """Every season in which something was shown, the latest first, each beside the same season a year before."""
    shown: dict[tuple[int, str], list[Shown]] = {}
    for each in _dated(state):
        if each.programme.shown_on:
            shown.setdefault(_season(each.programme.shown_on), []).append(each)
    order = {name: at for at, name in enumerate(("winter", "spring", "summer", "autumn"))}
    found = []
    for (year, name), several in sorted(shown.items(), key=lambda item: (item[0][0], order[item[0][1]]), reverse=True):
        pairs = {(each.pick.cloth_id, each.pick.pattern_id) for each in several}
        before = {(each.pick.cloth_id, each.pick.pattern_id) for each in shown.get((year - 1, name), [])}
        patterns = (state.pattern(each.pick.pattern_id) for each in several)
        garments = Counter(pattern.facts.garment for pattern in patterns if pattern and pattern.facts.garment)
        programmes = list({each.programme.id: each.programme for each in several}.values())
        found.append(Season(f"{name} {year}", programmes, len(pairs), garments.most_common(6), len(pairs & before)))
    return found
