"""The last moment to order: counted back from the day on which everybody cuts.

Cutting day less the days to wash, dry and press, less delivery in the carrier's working days, less a day to pack (common
practice, no source). A parcel moves on days that are working days at both ends; an order that comes after the shop's cut-off
hour counts for the next working day.
"""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, datetime, time, timedelta
from zoneinfo import ZoneInfo

from nematex.core.air.sew_along.working_days import DAY, Open, after, before, last_open, next_open


@dataclass(frozen=True)
class Delivery:
    """How a carrier delivers to a region: working days at most, days that it is late now, until which hour it collects."""

    working_days: int
    late_days: int
    cut_off: time


@dataclass(frozen=True)
class Needs:
    """The days at the maker's home to wash, dry and press, and the working days to pack."""

    dry_days: int
    packing_days: int


@dataclass(frozen=True)
class OrderBy:
    """The last moment to order in the shop's time, and how it comes about: day by day, the last first."""

    at: datetime
    in_hands: date
    delivered: date
    handed_over: date
    days: int  # that the carrier takes, its delay included

    def there(self, zone: ZoneInfo) -> datetime:
        """The same moment by the maker's clock."""
        return self.at.astimezone(zone)


def _both(home: Open, there: Open) -> Open:
    """On which days a parcel moves."""
    return lambda day: home(day) and there(day)


def _delivered(handed_over: date, days: int, home: Open, there: Open) -> date:
    """When a parcel is there that the carrier has from this day on."""
    return next_open(after(handed_over, days, _both(home, there)), there)


def order_by(cutting: date, needs: Needs, delivery: Delivery, home: Open, there: Open, zone: ZoneInfo) -> OrderBy:
    """The last moment to order for a cutting day; `zone` is the shop's."""
    in_hands = cutting - timedelta(days=needs.dry_days)
    delivered = last_open(in_hands, there)
    days = delivery.working_days + delivery.late_days

    arrives = last_open(delivered, _both(home, there)) if days else delivered  # on its last day it moves as on the others
    handed_over = last_open(before(arrives, days, _both(home, there)), home)
    # Where one end rests, a parcel may be handed over later than a walk back by the days it moves on comes to.
    while _delivered(later := next_open(handed_over + DAY, home), days, home, there) <= delivered:
        handed_over = later
    ordered = before(handed_over, needs.packing_days, home)
    return OrderBy(datetime.combine(ordered, delivery.cut_off, zone), in_hands, delivered, handed_over, days)


def can_cut(ordered: datetime, needs: Needs, delivery: Delivery, home: Open, there: Open) -> date:
    """The first day on which somebody can cut who orders at this moment of the shop's time."""
    day = ordered.date()
    taken = next_open(day if ordered.time() <= delivery.cut_off else day + timedelta(days=1), home)
    handed_over = after(taken, needs.packing_days, home)
    days = delivery.working_days + delivery.late_days
    return _delivered(handed_over, days, home, there) + timedelta(days=needs.dry_days)
