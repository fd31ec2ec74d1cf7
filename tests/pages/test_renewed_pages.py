"""A page that draws itself anew keeps the focus, the caret and what is typed."""

from __future__ import annotations

import re

import pytest
from conftest import Site
from playwright.sync_api import Page, expect


@pytest.mark.parametrize("pause_ms", [0, 100, 400, 1500])
def test_the_second_field_of_a_filter_outlives_the_first(page: Page, site: Site, pause_ms: int) -> None:
    """Handed down: it was lost at every pause from 0.1 to 2 s."""
    page.goto("/shelf")
    page.get_by_label("weight from").fill("100 gsm")
    page.keyboard.press("Tab")
    page.wait_for_timeout(pause_ms)
    page.keyboard.type("180 gsm", delay=40)
    page.wait_for_timeout(300)
    expect(page.get_by_label("weight to")).to_be_focused()
    expect(page.get_by_label("weight to")).to_have_value("180 gsm")
    expect(page.get_by_label("weight from")).to_have_value("100 gsm")
    page.keyboard.press("Tab")
    expect(page).to_have_url(re.compile("weight_from=100.*weight_to=180"))
    weights = [cloth.weight.best for cloth in site.shop.now().shelf.cloths]
    expect(page.locator("h1 + .soft")).to_have_text(f"{sum(100 <= weight <= 180 for weight in weights)} cloths")


@pytest.mark.parametrize("late_ms", [700, 1500])
def test_a_second_field_is_sent_however_late_the_first_is_answered(page: Page, late_ms: int) -> None:
    """The page is drawn anew when all is typed and the field not yet left: the browser then sees no change in it."""
    wait = f"await new Promise((go) => setTimeout(go, {late_ms}))"
    page.add_init_script(f"const ask = fetch; window.fetch = async (...a) => {{ {wait}; return ask(...a); }}")
    page.goto("/shelf")
    page.get_by_label("weight from").fill("100 gsm")
    page.keyboard.press("Tab")
    page.keyboard.type("180 gsm")
    expect(page).to_have_url(re.compile("weight_from=100.*weight_to=&"))
    expect(page.get_by_label("weight to")).to_be_focused()
    page.keyboard.press("Tab")
    expect(page).to_have_url(re.compile("weight_from=100.*weight_to=180"))


def test_a_select_is_walked_with_the_arrow_keys_to_its_fourth_entry(page: Page, site: Site) -> None:
    page.goto("/shelf")
    handle = page.get_by_label("handle", exact=True)
    handle.focus()
    for _ in range(4):
        page.keyboard.press("ArrowDown")
        page.wait_for_timeout(250)
    expect(handle).to_be_focused()
    expect(handle).to_have_value("crisp")
    expect(page).to_have_url(re.compile("hand=crisp"))


def test_a_size_is_walked_with_the_arrow_keys_beside_the_ranking(page: Page, site: Site) -> None:
    page.goto(f"/pairing/pattern/{site.pattern('TP-21')}")
    size = page.get_by_label("Size", exact=True)
    wanted = size.locator("option").nth(3).inner_text()
    size.focus()
    for _ in range(3):
        page.keyboard.press("ArrowDown")
        page.wait_for_timeout(300)
    expect(size).to_be_focused()
    expect(size).to_have_value(wanted)
