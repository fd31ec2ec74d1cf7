"""Changes to a pattern in Chromium: made, judged, reckoned, drawn, picked, said in the notes, taken back."""

from __future__ import annotations

import re

from conftest import Site
from playwright.sync_api import Page, expect


def test_a_tier_is_added_picked_and_taken_back(page: Page, site: Site) -> None:
    pattern = next(each for each in site.shop.now().drawer.records if each.facts.name == "Avocet shift")
    page.goto(f"/pairing/one/{pattern.id}/{site.cloth('LF-301')}")
    before = page.locator(".garment.worn.large").inner_html()
    page.get_by_label("What is changed").select_option("tier")
    expect(page.get_by_label("depth in cm").locator("visible=true")).to_have_count(1)
    page.get_by_label("depth in cm").locator("visible=true").fill("900")
    page.get_by_role("button", name="Make the change").click()
    expect(page.get_by_role("alert")).to_contain_text("must be from 5 to 120")
    site.complaints.clear()  # the browser notes the 400 as an error
    page.get_by_label("depth in cm").locator("visible=true").fill("25")
    page.get_by_role("button", name="Make the change").click()
    expect(page.get_by_text("a tier 25 cm deep").first).to_be_visible()
    expect(page.locator(".receipt ol").first).to_contain_text("Changed: a tier 25 cm deep")
    assert page.locator(".garment.worn.large").inner_html() != before
    page.get_by_role("button", name="Add", exact=True).click()
    expect(page.locator("h1")).to_be_visible()
    page.get_by_role("link", name="Notes", exact=True).click()
    expect(page.get_by_text("a tier 25 cm deep").first).to_be_attached()
    page.go_back()
    page.get_by_role("link", name=re.compile("for Avocet shift")).last.click()
    page.get_by_role("link", name="take it back").click()
    expect(page.get_by_text("a tier 25 cm deep")).to_have_count(0)


def test_the_skirt_of_another_pattern_takes_the_place_of_the_legs(page: Page, site: Site) -> None:
    page.goto(f"/pairing/one/{site.pattern('TP-24')}/{site.cloth('LF-301')}")
    page.get_by_label("What is changed").select_option("skirt for legs")
    page.get_by_label("or as on").locator("visible=true").select_option(label="Whimbrel tiered skirt")
    page.get_by_role("button", name="Make the change").click()
    expect(page.locator(".fixes")).to_contain_text("in the place of the legs")
    expect(page.locator(".receipt ol").first).to_contain_text("in the place of the legs")
