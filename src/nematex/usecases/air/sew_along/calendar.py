"""A sew-along as iCalendar (RFC 5545): parts at their hour in the shop's zone, and the last hours to order."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date, datetime, timedelta
from zoneinfo import ZoneInfo

from icalendar import Alarm, Calendar, Event

from nematex.core.signs import on_one_line
from nematex.store.air.sew_alongs import SewAlong
from nematex.usecases.air.sew_along.dates import Regional
from nematex.usecases.air.sew_along.form import Asked

A_PART = timedelta(hours=1)


def as_calendar(kept: SewAlong, asked: Asked, days: Sequence[Regional], zone: ZoneInfo, now: datetime, address: str) -> bytes:
    """The calendar; its events keep their names over changes, so that a calendar that reads it again moves them."""
    made = Calendar()
    made.add("prodid", "-//Nematex//Sew-along//EN")
    made.add("version", "2.0")
    made.add("x-wr-calname", on_one_line(asked.name))
    for number, each in enumerate(asked.parts, 1):
        event = _event(kept, f"part-{number}", f"{asked.name}: {each.part.title}", now, address)
        start = datetime.combine(each.day, asked.hour, zone)
        event.add("dtstart", start)
        event.add("dtend", start + A_PART)
        event.add("description", "\n".join(f"- {task}" for task in each.part.tasks))
        made.add_component(event)
    for each_day in days:
        name = "" if each_day.region.name == "home" else f" to {each_day.region.name}"
        event = _event(kept, f"order-{each_day.region.country}", f"{asked.name}: last hour to order{name}", now, address)
        event.add("dtstart", each_day.order_by.at)
        event.add("dtend", each_day.order_by.at)
        alarm = Alarm()
        alarm.add("action", "DISPLAY")
        alarm.add("description", on_one_line(f"Order cloth for {asked.name}"))
        alarm.add("trigger", timedelta(days=-1))
        event.add_component(alarm)
        made.add_component(event)
    years = asked.parts[0].day.year - 1, asked.parts[-1].day.year + 2
    made.add_missing_timezones(first_date=date(years[0], 1, 1), last_date=date(years[1], 1, 1))  # a clock change on either side
    return bytes(made.to_ical())


def _event(kept: SewAlong, name: str, summary: str, now: datetime, address: str) -> Event:
    event = Event()
    event.add("uid", f"sew-along-{kept.id}-{name}@nematex")
    event.add("dtstamp", now.astimezone(ZoneInfo("UTC")))
    event.add("sequence", kept.changes)
    event.add("summary", on_one_line(summary))
    if address:
        event.add("url", address)
    return event
