"""Two browsers on one record: whoever saves second is told what the first one saved, and nothing is overwritten unseen."""

from __future__ import annotations

import re
from typing import Any

import pytest
from conftest import Site, open_page
from playwright.sync_api import Browser, Page, expect
from sqlalchemy.exc import OperationalError
from test_pages import faults

from nematex.web.rooms import home


def test_a_measurement_that_a_colleague_kept_meanwhile_is_said(browser: Browser, site: Site) -> None:
    first, second = open_page(browser, site), open_page(browser, site)
    number = site.cloth("GM-101")
    for page in (first, second):
        page.goto(f"/bench/{number}/width")
        page.get_by_label("Edge to edge, 1").fill("140")
        page.get_by_label("Between the selvedges, 1").fill("137")
        page.get_by_role("button", name="What does it come to?").click()
    keep(first)
    first.wait_for_url(re.compile("kept=width"))
    keep(second)
    expect(second.get_by_role("alert")).to_contain_text("while this page was open. Keep yours too, and it is in force")
    keep(second)
    second.wait_for_url(re.compile("kept=width"))
    for page in (first, second):
        page.context.close()
    site.complaints.clear()


def keep(page: Page) -> None:
    page.locator("button[name=act][value=keep]").first.click()


def test_an_edge_that_a_colleague_set_meanwhile_is_said(browser: Browser, site: Site) -> None:
    first, second = open_page(browser, site), open_page(browser, site)
    address = f"/patterns/{site.pattern('OR-11')}/why"
    for page in (first, second):
        page.goto(address)
    set_edge(first, "211")
    first.wait_for_url("**/why?**")
    set_edge(second, "233")
    expect(second.get_by_role("alert").first).to_contain_text("clashes with what somebody else saved")
    assert second.locator("details.correct[open] [name=value]").first.input_value() == "233"
    for page in (first, second):
        page.context.close()
    site.complaints.clear()


def set_edge(page: Page, value: str) -> None:
    form = page.locator("details.correct").first
    form.locator("summary").click()
    form.locator("[name=value]").fill(value)
    form.locator("[name=reason]").fill("as it hangs")
    form.get_by_role("button", name="Set it").click()


def test_several_cloths_changed_by_two_at_once(browser: Browser, site: Site) -> None:
    first, second = open_page(browser, site), open_page(browser, site)
    numbers = [site.cloth(code) for code in ("GM-101", "GM-108")]
    chosen = "&".join(f"cloth={number}" for number in numbers)
    for page, season in ((first, "autumn"), (second, "winter")):
        page.goto(f"/shelf/together?{chosen}&field=season&text={season}")
    first.get_by_role("button", name="Change 2").click()
    first.wait_for_url("**/shelf")
    second.get_by_role("button", name="Change").last.click()
    expect(second.get_by_role("alert")).to_contain_text("was changed by somebody else for some of these cloths")
    expect(second.get_by_text("autumn → winter").first).to_be_visible()
    second.get_by_role("button", name="Change").last.click()
    second.wait_for_url("**/shelf")
    for page in (first, second):
        page.context.close()
    site.complaints.clear()


@pytest.mark.parametrize("prices", ["thread 2.20; zip 3.10"])
def test_prices_of_notions_written_by_two(browser: Browser, site: Site, prices: str) -> None:
    first, second = open_page(browser, site), open_page(browser, site)
    address = f"/pairing/one/{site.pattern('OR-11')}/{site.cloth('GM-101')}/beneath"
    for page in (first, second):
        page.goto(address)
        page.get_by_text("the shop's prices of notions").click()
    for page, text in ((first, prices), (second, "thread 9.00")):
        page.get_by_label("One after the other").fill(text)
        page.locator("form:has([name=prices])").get_by_role("button", name="Keep").click()
        page.wait_for_load_state()
    expect(second.get_by_role("alert").first).to_contain_text("clashes with what somebody else saved")
    assert site.shop.now().settings["notion prices"] == prices
    for page in (first, second):
        page.context.close()
    site.complaints.clear()


def test_the_address_of_the_feed_and_what_is_optional_are_as_they_were_shown(site: Site, browser: Browser) -> None:
    first, second = open_page(browser, site), open_page(browser, site)
    for page in (first, second):
        page.goto("/stock")
    for page, address in ((first, "http://127.0.0.1:9/one"), (second, "http://127.0.0.1:9/two")):
        page.get_by_label("Address").fill(address)
        page.locator("form:has([name=address]) button").first.click()
        page.wait_for_load_state()
    expect(second.get_by_role("alert").first).to_contain_text("clashes")
    assert site.shop.now().settings["stock feed"].endswith("/one")
    for page in (first, second):
        page.context.close()
    site.complaints.clear()


def test_a_page_that_the_database_could_not_serve_comes_back_by_itself(
    browser: Browser, site: Site, axe: str, monkeypatch: pytest.MonkeyPatch
) -> None:
    asked: list[int] = []
    real = home.front

    def away_at_first(*given: Any) -> object:
        asked.append(1)
        if len(asked) == 1:
            raise OperationalError("select", {}, Exception(2013, "Lost connection"))
        return real(*given)

    monkeypatch.setattr(home, "front", away_at_first)
    page = open_page(browser, site)
    page.goto("/")
    expect(page.get_by_role("heading", level=1)).to_have_text("The database does not answer")
    assert faults(page, axe) == []
    expect(page.get_by_text("This page comes back by itself")).to_be_visible()
    expect(page.get_by_role("heading", level=1)).to_contain_text("Which belong together?")
    site.complaints.clear()
