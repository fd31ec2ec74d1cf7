"""A programme seen whole: whom it leaves out, in words and bars, and closed by a key."""

from __future__ import annotations

import pytest
from conftest import WIDTHS, Site, open_page
from playwright.sync_api import Browser, Page, expect
from test_pages import faults

from nematex.core.set.coverage import Gap, Garment
from nematex.store.cloth.cloths import change_cloth
from nematex.tables import trade_tables
from nematex.usecases.programme.stocked.stand_ins import replace_cloth
from nematex.usecases.programme.whole.serves import gap_said, kind_said
from nematex.usecases.quantity.saying import Voice

VOICE = Voice(trade_tables())
SKIRTS = tuple(Garment(name, "skirt", {}) for name in "AB")


@pytest.mark.parametrize(
    ("gap", "words"),
    [
        (Gap("hip", 120, 143, (), False, True), "Nothing above hip 120 cm (47 in)."),
        (Gap("bust", 80, 90, (), True, False), "Nothing below bust 90 cm (35½ in)."),
        (Gap("hip", 100, 110, SKIRTS[:1], False, False), "Only one garment from hip 100 cm (39½ in) to 110 cm (43½ in): A."),
        (Gap("hip", 90, 143, SKIRTS[:1], True, True), "Only one garment at any hip: A."),
    ],
)
def test_a_hole_is_said(gap: Gap, words: str) -> None:
    assert gap_said(gap, VOICE) == words


def test_what_is_all_skirts_is_said() -> None:
    assert (
        kind_said(Gap("hip", 120, 143, SKIRTS, False, True), VOICE) == "Nothing above hip 120 cm (47 in) that is not a skirt."
    )


def test_a_hole_in_hips_is_found_and_closed_by_two_keys(page: Page, site: Site) -> None:
    page.goto("/programmes")
    page.get_by_label("Name").fill("Short list")
    page.get_by_role("button", name="Save").click()
    programme = page.url.rstrip("/").split("/")[-1].split("?")[0]
    page.goto(f"/pairing/one/{site.pattern('TP-21')}/{site.cloth('LF-301')}")
    page.get_by_label("Programme").select_option(label="Short list")
    page.get_by_role("button", name="Add", exact=True).click()
    page.get_by_role("link", name="Who is left out?").click()
    hips = page.locator("section.reach", has=page.get_by_role("heading", name="Hip"))
    expect(hips).to_contain_text("Only one garment at any hip: Whimbrel tiered skirt.")
    expect(hips.locator(".closing").first).to_contain_text("closes it")
    offered = hips.locator(".closing a.name").first.inner_text().split(" in ")[0]
    rows = page.locator("[data-row]")
    wanted = next(at for at in range(rows.count()) if hips.locator(".closing").first.inner_text() == rows.nth(at).inner_text())
    for _ in range(wanted + 1):
        page.keyboard.press("j")
    page.keyboard.press("a")
    expect(page.get_by_role("heading", name="Who is left out?")).to_be_visible()
    expect(hips.locator(".reach-name", has_text=offered)).to_be_visible()
    expect(hips).not_to_contain_text("at any hip: Whimbrel tiered skirt")
    page.goto(f"/programmes/{programme}")
    expect(page.locator("article")).to_have_count(2)


def test_a_pick_that_is_sold_out_is_replaced_by_two_keys(page: Page, site: Site) -> None:
    picks = {each.name: each.picks for each in site.shop.now().programmes}["Lantern Walk"]
    challis = next(record for record in site.shop.now().shelf.records if record.id == picks[0].cloth_id)
    with site.shop.database.work() as work:
        change_cloth(work, challis.id, {"stock_m": 0.0})
    page.goto("/programmes/1")
    row = page.locator(f"#pick-{picks[0].id}")
    expect(row).to_contain_text("In its place, with enough in stock")
    first = row.locator(".closing a").first.inner_text()
    page.keyboard.press("j")
    page.keyboard.press("a")
    expect(row.locator("a.name")).to_contain_text(first)
    expect(row).to_contain_text(f"in the place of {challis.facts.name}, sold out")
    page.goto("/programmes/1/notes")
    expect(page.locator("pre").first).to_contain_text(f"Shown in the place of {challis.facts.name}, sold out.")
    page.goto(f"/shelf/{challis.id}")
    expect(page.get_by_role("heading", name="When it is sold out")).to_be_visible()
    # Back again: it stands in for nothing.
    replace_cloth(site.shop, 1, picks[0].id, challis.id)
    kept = {each.name: each.picks for each in site.shop.now().programmes}["Lantern Walk"][0]
    assert (kept.cloth_id, kept.instead_of) == (challis.id, None)


@pytest.mark.parametrize("width", WIDTHS)
def test_the_set_is_accessible_and_fits_a_phone(browser: Browser, site: Site, axe: str, width: int) -> None:
    page = open_page(browser, site, width)
    page.goto("/programmes/1/set")
    assert faults(page, axe) == []
    assert page.evaluate("document.documentElement.scrollWidth <= window.innerWidth")
    page.context.close()
