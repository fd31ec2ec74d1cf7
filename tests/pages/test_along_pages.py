"""A sew-along from its form to calendars, papers and a public page."""

from __future__ import annotations

from datetime import datetime, time
from zoneinfo import ZoneInfo

import pypdfium2
import pytest
import vobject
from conftest import WIDTHS, Site, open_page
from playwright.sync_api import Browser, Page, expect
from test_pages import faults

from nematex.core.air.sew_along.parts import back_from, from_start, usual_parts
from nematex.devices.carrier import Carrier, CarrierDown, SimulatedCarrier
from nematex.store.air.sew_alongs import SewAlong
from nematex.tables import regions, trade_tables
from nematex.usecases.air.sew_along.acts import all_of, save
from nematex.usecases.air.sew_along.dates import order_days, public_holidays, usual_carrier
from nematex.usecases.air.sew_along.form import ahead, read_parts
from nematex.usecases.forms.merging import Clashing, as_shown
from nematex.usecases.kit.kit import reserved

RULE = trade_tables().judging.sew_along
LONDON = ZoneInfo("Europe/London")


def days(start: str, now: str, carrier: Carrier | None = None) -> dict[str, object]:
    parts = from_start(usual_parts(3), datetime.fromisoformat(start).date(), 7)
    found = order_days(parts, RULE, carrier or usual_carrier(), datetime.fromisoformat(now).replace(tzinfo=LONDON))
    return {each.region.name: each for each in found}


def test_holidays_are_those_of_the_governments() -> None:
    """gov.uk/bank-holidays and the Feiertagsgesetze, from memory: Boxing Day 2026 is a Saturday, so Monday 28 closes."""
    here = public_holidays("GB", "ENG", (2026,))
    for month, day in ((1, 1), (4, 3), (4, 6), (5, 4), (5, 25), (8, 31), (12, 25), (12, 28)):
        assert datetime(2026, month, day).date() in here, (month, day)
    assert datetime(2026, 10, 3).date() in public_holidays("DE", "", (2026,))
    assert datetime(2026, 11, 26).date() in public_holidays("US", "", (2026,))


def test_order_by_days_over_christmas_by_hand() -> None:
    """Parts from 19 December: cut on Saturday 2 January 2027. At home 4 + 1 late working days: 31 December, 30, 29, 24, 23 and
    handed over on 22; so ordered by Monday 21 at noon."""
    found = days("2026-12-19", "2026-12-05T10:00")
    home, germany = found["home"], found["Germany"]
    assert home.order_by.at == datetime(2026, 12, 21, 12, tzinfo=LONDON)
    assert home.too_late == ""
    assert any("Boxing Day" in each for each in home.closed)
    # 14 + 3 working days at both ends back from 31 December: 30, 29, 24, 23, 22, 21, 18 … 8, 7, so handed over on Friday 4.
    assert (germany.order_by.handed_over.day, germany.order_by.at.day, germany.there.hour) == (4, 3, 13)
    assert germany.too_late.startswith("Too late for wash and cut: order today, cut on Thu 7 Jan")


def test_a_silent_carrier_is_said_and_its_usual_days_stand_in() -> None:
    carrier = SimulatedCarrier({"home": (2, 4)}, "home", frozenset({"home"}))
    with pytest.raises(CarrierDown):
        carrier.service("home", datetime(2026, 10, 1).date())
    found = days("2026-10-03", "2026-09-01T10:00", carrier)["home"]
    assert not found.told
    assert "gives no answer" in found.service.note
    assert found.order_by.at == datetime(2026, 10, 8, 12, tzinfo=LONDON)  # as in the worked example for 17 October


def test_short_and_emergency() -> None:
    """A month to a party is short, two weeks are an emergency (common practice, no source)."""
    event = datetime(2026, 12, 24).date()
    assert ahead(datetime(2026, 11, 1).date(), event, RULE) == ""
    assert "short" in ahead(datetime(2026, 11, 26).date(), event, RULE)
    assert "emergency" in ahead(datetime(2026, 12, 12).date(), event, RULE)
    assert back_from(usual_parts(1), event, 7, 2)[-1].day.day == 22


def test_parts_as_typed() -> None:
    found = read_parts("2026-10-03 Choose\n2026-10-17 Wash and cut: lay; cut out\n\n2026-10-24 Sew: recut nothing")
    assert [(each.day.day, each.part.cuts, each.part.tasks) for each in found] == [
        (3, False, ()), (17, True, ("lay", "cut out")), (24, False, ("recut nothing",)),
    ]  # fmt: skip


def made(site: Site) -> SewAlong:
    return next(one for one in all_of(site.shop) if one.name == "Ropewalk sew-along")


def test_a_sew_along_is_made_dated_reserved_and_read_by_calendars(page: Page, site: Site) -> None:
    page.goto("/programmes")
    page.get_by_role("link", name="sew-alongs").click()
    page.get_by_label("Name").fill("Harbour coats")
    page.get_by_label("Pattern").fill("Curlew cote")
    page.get_by_label("Cloths, one after a semicolon").fill("Breakwater coating")
    page.get_by_label("First part on").fill("2026-12-10")
    page.get_by_role("button", name="Make it").click()
    expect(page.locator(".fault").first).to_contain_text("the nearest are: Curlew coat")
    page.get_by_label("Pattern").fill("Curlew coat")
    page.get_by_label("Makers expected").fill("2")
    page.get_by_role("button", name="Make it").click()
    expect(page.locator("h1")).to_have_text("Harbour coats")
    site.complaints.clear()
    expect(page.locator(".parts-on li")).to_have_count(7)
    expect(page.locator(".order-days tbody tr")).to_have_count(len(regions()))
    stock = next(one for one in site.shop.now().shelf.records if one.code == "OW-413").stock_m or 0.0
    page.get_by_role("button", name="Reserve").click()
    expect(page.get_by_text("reserved", exact=False).first).to_be_visible()
    [held] = reserved(site.shop)
    now = next(one for one in site.shop.now().shelf.records if one.code == "OW-413").stock_m or 0.0
    number = next(one.id for one in all_of(site.shop) if one.name == "Harbour coats")
    assert (held.why, round(stock - now, 2)) == (f"sew-along {number}: Harbour coats", round(held.length_m, 2))
    page.get_by_label("Name").fill("Coats for the harbour")
    page.get_by_role("button", name="Keep", exact=True).click()
    expect(page.locator("h1")).to_have_text("Coats for the harbour")  # and keeps what is reserved
    page.get_by_label("Name").fill("Harbour coats")
    page.get_by_role("button", name="Keep", exact=True).click()
    expect(page.locator("h1")).to_have_text("Harbour coats")
    page.get_by_role("button", name="Put it back").click()
    assert reserved(site.shop) == []
    calendar = vobject.readOne(page.request.get(page.url.split("#")[0] + "/calendar.ics").text())
    events = calendar.vevent_list
    assert len(events) == 7 + len(regions())
    cut = next(each for each in events if "Wash and cut" in each.summary.value)
    assert cut.dtstart.value == datetime(2026, 12, 24, 19, tzinfo=cut.dtstart.value.tzinfo)
    assert cut.dtstart.value.utcoffset() == datetime(2026, 12, 24, 19, tzinfo=LONDON).utcoffset()
    names = [each.uid.value for each in events]
    assert len(set(names)) == len(names)
    assert {each.sequence.value for each in events} == {"3"}
    page.get_by_label("Hour").fill("18:30")
    page.get_by_role("button", name="Keep", exact=True).click()
    expect(page.locator(".parts-on")).to_contain_text("18:30")
    again = vobject.readOne(page.request.get(page.url.split("#")[0] + "/calendar.ics").text()).vevent_list
    assert [each.uid.value for each in again] == names  # a calendar that reads it again moves its events
    assert {each.sequence.value for each in again} == {"4"}
    assert next(each for each in again if "Wash and cut" in each.summary.value).dtstart.value.time() == time(18, 30)
    page.get_by_role("button", name="Remove").click()
    page.get_by_role("button", name="Put it back").click()
    page.goto("/sew-alongs")
    expect(page.get_by_role("link", name="Harbour coats")).to_be_visible()
    site.complaints.clear()


def test_a_public_page_is_open_until_it_is_withdrawn(page: Page, browser: Browser, site: Site, axe: str) -> None:
    kept = made(site)
    page.goto(f"/sew-alongs/{kept.id}")
    page.get_by_role("button", name="Show it at a public address").click()
    address = page.locator("a[href^='/along/']").get_attribute("href") or ""
    assert len(address) > 25
    phone = open_page(browser, site, 390)
    reply = phone.goto(address)
    assert reply is not None
    assert reply.headers["x-robots-tag"] == "noindex"
    expect(phone.locator("h1")).to_have_text("Ropewalk sew-along")
    expect(phone.locator("form")).to_have_count(0)  # nothing can be changed
    assert faults(phone, axe) == []
    assert phone.evaluate("document.documentElement.scrollWidth <= window.innerWidth")
    for what, said in (("checklist", "Wash and cut"), ("worksheet", "Which size?")):
        with pypdfium2.PdfDocument(phone.request.get(f"{address}/{what}.pdf").body()) as paper:
            text = " ".join(sheet.get_textpage().get_text_range() for sheet in paper)
        assert said in text
        assert text.casefold().count("interfacing:") == (what == "checklist")
        assert "1 m light interfacing" not in text  # it is said once, with the length for this cloth
    assert vobject.readOne(phone.request.get(f"{address}/calendar.ics").text()).vevent_list[0].url.value.endswith(address)
    page.get_by_role("button", name="Withdraw it").click()
    assert phone.request.get(address).status == 404
    assert phone.request.get(f"{address}/calendar.ics").status == 404
    page.get_by_role("button", name="Show it at a public address").click()
    assert page.locator("a[href^='/along/']").get_attribute("href") != address
    phone.context.close()
    site.complaints.clear()


def test_two_who_change_one_sew_along(site: Site) -> None:
    kept, shop = made(site), site.shop
    shown = as_shown(kept.typed)
    typed = {**kept.typed, "shown": shown}
    save(shop, shop.now(), kept.id, {**typed, "makers": "6"})
    save(shop, shop.now(), kept.id, {**typed, "hour": "20:00"})
    assert (made(site).typed["makers"], made(site).typed["hour"]) == ("6", "20:00")
    with pytest.raises(Clashing):
        save(shop, shop.now(), kept.id, {**typed, "makers": "9"})


@pytest.mark.parametrize("width", WIDTHS)
def test_sew_alongs_are_accessible_and_fit_a_phone(browser: Browser, site: Site, axe: str, width: int) -> None:
    page = open_page(browser, site, width)
    for address in ("/sew-alongs", f"/sew-alongs/{made(site).id}"):
        page.goto(address)
        assert faults(page, axe) == [], address
        assert page.evaluate("document.documentElement.scrollWidth <= window.innerWidth"), address
    page.context.close()
