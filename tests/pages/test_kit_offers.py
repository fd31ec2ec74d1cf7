"""A kit from its bolts to the last one sold: contents, leaflet, labels, money, and what is said of it on air."""

from __future__ import annotations

import threading
from datetime import datetime

import pypdfium2
import pytest
from conftest import Site, open_page
from playwright.sync_api import Browser, Page, expect
from test_pages import faults

from nematex.core.errors import FieldFault
from nematex.usecases.air.kits import all_kits, find_kit, sell
from nematex.usecases.air.notes.told import told_of
from nematex.usecases.air.run_sheet import run_of
from nematex.usecases.kit.kit import reserved

NOW = datetime(2026, 11, 26, 19, 30)


def offered(page: Page, site: Site) -> int:
    """A kit of the Siskin tee in its own cloth, on air in Lantern Walk, from one short bolt."""
    tee = next(one for one in site.shop.now().programmes if one.name == "Siskin tee kit").picks[0]
    page.goto(f"/kit?pattern={tee.pattern_id}&cloth={tee.cloth_id}&bolts=6+m&mix=12:1,+16:1&price=28&other=3.50")
    page.get_by_label("Reserve and offer it as").fill("Tee on the table")
    page.get_by_label("on air in").select_option(label="Lantern Walk")
    page.get_by_role("button", name="Offer it").click()
    expect(page.locator("h1")).to_have_text("Tee on the table")
    return all_kits(site.shop)[0].id


def test_a_kit_is_offered_counted_down_and_gone(page: Page, site: Site, axe: str, browser: Browser) -> None:
    number = offered(page, site)
    kit = all_kits(site.shop)[0]
    assert kit.total == sum(kit.left.values()) > 1
    held = reserved(site.shop)[0]
    assert held.length_m == pytest.approx(sum(metres * count for _, metres, count in kit.sizes))
    found = find_kit(site.shop, site.shop.now(), number)
    assert found is not None
    assert found.takings == 28 * kit.total
    assert found.margin == found.takings - kit.cost
    for what, said in (("leaflet", "In this kit"), ("labels", f"{kit.total} of {kit.total}")):
        with pypdfium2.PdfDocument(page.request.get(f"/kits/{number}/{what}.pdf").body()) as paper:
            assert said in " ".join(sheet.get_textpage().get_text_range() for sheet in paper)
    page.get_by_label("optional: 1 reel of thread").check()
    page.get_by_role("button", name="Keep what is optional").click()
    expect(page.get_by_label("optional: 1 reel of thread")).to_be_checked()
    state = site.shop.now()
    lantern = next(one for one in state.programmes if one.name == "Lantern Walk")
    part = next(one.part for one in run_of(site.shop, state, lantern).sheet.timed if one.part.title == "Kit: Tee on the table")
    said = {each.name: each.text for each in part.said}
    assert "1 reel of thread" in said["optional"]
    assert said["price"] == "£28.00"
    assert said["left"].startswith(f"{kit.total} of {kit.total} (")
    for size, _, count in kit.sizes:
        for _ in range(count):
            page.get_by_role("button", name=f"One sold, size {size}").click()
            page.wait_for_load_state()
    expect(page.locator("h2").first).to_contain_text("Gone")
    told = told_of(site.shop, site.shop.now(), lantern, NOW.date())
    assert told["kits"][0]["left"] == "gone"
    page.goto("/programmes/1/notes")
    expect(page.locator("pre").first).to_contain_text("## Tee on the table")
    page.goto(f"/kits/{number}")
    size = kit.sizes[0][0]
    page.get_by_role("button", name=f"One back, size {size}").click()
    expect(page.locator("h2").first).to_contain_text(f"1 of {kit.total} left")
    for width in (1280, 390):
        other = open_page(browser, site, width)
        for address in ("/kits", f"/kits/{number}"):
            other.goto(address)
            assert faults(other, axe) == [], address
            assert other.evaluate("document.documentElement.scrollWidth <= window.innerWidth"), address
        other.context.close()
    page.get_by_role("button", name="Remove").click()
    page.get_by_role("button", name="Put it back").click()
    page.goto("/kits")
    expect(page.get_by_role("link", name="Tee on the table")).to_be_visible()
    site.complaints.clear()


def test_the_last_kit_is_sold_once(page: Page, site: Site) -> None:
    number = offered(page, site)
    size, _, count = all_kits(site.shop)[0].sizes[0]
    for _ in range(count - 1):
        sell(site.shop, number, size, 1, NOW)
    said: list[str] = []

    def buy() -> None:
        try:
            sell(site.shop, number, size, 1, NOW)
            said.append("sold")
        except FieldFault as fault:
            said.append(str(fault))

    buyers = [threading.Thread(target=buy) for _ in range(6)]
    for each in buyers:
        each.start()
    for each in buyers:
        each.join()
    assert said.count("sold") == 1
    assert all("has none left" in each for each in said if each != "sold")
    for wrong, step in (("99", 1), (size, 5), ("x" * 100_000, -1)):
        with pytest.raises(FieldFault):
            sell(site.shop, number, wrong, step, NOW)
