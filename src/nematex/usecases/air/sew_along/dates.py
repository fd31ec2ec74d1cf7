"""Until when to order, region by region: the carrier asked, public holidays at both ends, and what who is late can still do."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, datetime
from functools import lru_cache

import holidays

from nematex.core.air.sew_along.order_by import Delivery, Needs, OrderBy, can_cut, order_by
from nematex.core.air.sew_along.parts import Dated
from nematex.core.air.sew_along.regions import Region
from nematex.core.air.sew_along.working_days import Open, open_days
from nematex.core.rules.reckoning import SewAlongRules
from nematex.devices.carrier import Carrier, CarrierDown, Service, SimulatedCarrier
from nematex.tables import regions

HOME = "home"


@dataclass(frozen=True)
class Regional:
    """A region's last moment to order, how it comes about, and what to do for whoever is late ("": in time)."""

    region: Region
    order_by: OrderBy
    service: Service
    told: bool  # by the carrier; else its usual days
    closed: tuple[str, ...]  # holidays between ordering and cutting
    too_late: str

    @property
    def there(self) -> datetime:
        return self.order_by.there(self.region.zone)


def usual_carrier() -> Carrier:
    """The carrier that ships with the product; a real one would be one file more."""
    return SimulatedCarrier({each.name: (each.low_days, each.high_days) for each in regions().values()}, HOME)


@lru_cache(maxsize=64)
def public_holidays(country: str, subdivision: str, years: tuple[int, ...]) -> dict[date, str]:
    """Day → its name, in the country's own language or English."""
    return dict(holidays.country_holidays(country, subdiv=subdivision or None, years=list(years), language=_english(country)))


def _english(country: str) -> str | None:
    names = holidays.country_holidays(country).supported_languages
    return next((each for each in names if each.startswith("en")), None)


def _of(region: Region, around: date) -> dict[date, str]:
    return public_holidays(region.country, region.subdivision, (around.year - 1, around.year, around.year + 1))


def _calendar(region: Region, around: date) -> Open:
    return open_days(frozenset(_of(region, around)))


def ask(carrier: Carrier, region: Region, cutting: date) -> tuple[Service, bool]:
    """What the carrier says, else the usual days of the table; whether it answered."""
    try:
        return carrier.service(region.name, cutting), True
    except CarrierDown as fault:
        noon = datetime(2000, 1, 1, 12).time()
        return Service(
            region.low_days, region.high_days, 0, noon, f"the carrier gives no answer ({fault}): its usual days"
        ), False


def order_days(parts: Sequence[Dated], rule: SewAlongRules, carrier: Carrier, now: datetime) -> list[Regional]:
    """Of each region; empty where no part cuts. `now` is the shop's own time."""
    cutting = next((each for each in parts if each.part.cuts), None)
    if cutting is None:
        return []
    needs = Needs(rule.dry_days, rule.packing_days)
    home = regions()[HOME]
    found = []
    for region in regions().values():
        service, told = ask(carrier, region, cutting.day)
        delivery = Delivery(service.high_days, service.late_days, service.cut_off)
        at_home, there = _calendar(home, cutting.day), _calendar(region, cutting.day)
        last = order_by(cutting.day, needs, delivery, at_home, there, home.zone)
        closed = _closed(home, region, last.at.date(), cutting.day)
        late = _late(parts, cutting, now, last, (needs, delivery, at_home, there))
        found.append(Regional(region, last, service, told, closed, late))
    return found


def _closed(home: Region, region: Region, first: date, last: date) -> tuple[str, ...]:
    """Public holidays on which nothing moves between two days."""
    named: dict[date, str] = {}
    for one in dict.fromkeys((home, region)):
        for day, name in _of(one, last).items():
            if first <= day <= last and day.weekday() < 5:
                where = "" if home == region else f" ({'here' if one == home else 'there'})"
                named[day] = f"{named[day]}; {name}{where}" if day in named else f"{name}{where}"
    return tuple(f"{day:%a} {day.day} {day:%b}: {name}" for day, name in sorted(named.items()))


def _late(parts: Sequence[Dated], cutting: Dated, now: datetime, last: OrderBy, how: tuple[Needs, Delivery, Open, Open]) -> str:
    """What somebody can do who orders now, where that is too late; "" where it is not."""
    if now <= last.at or now.date() > parts[-1].day:
        return "" if now <= last.at else "It is over."
    ready = can_cut(now, *how)
    after = next((each for each in parts if each.day >= ready), None)
    cloth = f"cut on {ready:%a} {ready.day} {ready:%b}"
    if after is None:
        return f"Too late to order: sew it in cloth you have, or later ({cloth})."
    late = f"Too late for {cutting.part.title.lower()}"
    return f"{late}: order today, {cloth}, and be back for {after.part.title}; or use cloth you have."
