"""Every page: reachable, accessible, by keyboard, without script faults, on a phone."""

from __future__ import annotations

import re

import pytest
from conftest import Site, open_page, tried_app
from playwright.sync_api import Browser, Page, expect

from nematex.core.pattern.facts import Wish
from nematex.usecases.held.shop import Shop
from nematex.usecases.judging.ranking import Filters, rank_cloths

SERIOUS = ("serious", "critical")


def addresses(site: Site) -> list[str]:
    cloth, pattern, half = site.cloth("LF-301"), site.pattern("TP-21"), site.cloth("XX-902")
    return [
        "/", "/shelf", "/shelf?q=nothingatall", f"/shelf/{cloth}", f"/shelf/{half}", f"/shelf/{cloth}/edit", "/shelf/new",
        "/patterns", f"/patterns/{pattern}", f"/patterns/{pattern}/edit", "/patterns/new", "/pairing",
        f"/pairing/pattern/{pattern}", f"/pairing/pattern/{pattern}?q=nothingatall", f"/pairing/cloth/{cloth}",
        f"/pairing/one/{pattern}/{half}", "/programmes", "/programmes/1", "/programmes/1/notes",
        "/programmes/1/takes", "/programmes/1/notes/templates/film", "/import", "/parts",
        "/pairing/have?q=1.6 m of 138 cm viscose crepe", "/kit?q=20 tee kits from a bolt of 13 m and one of 12 m, with ribbing",
        f"/lay/{site.pattern('TP-21')}/{site.cloth('GM-102')}",
    ]  # fmt: skip


STANDARDS = ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa", "best-practice"]
# Only what is wrong is gathered and sent: what passes would be megabytes of a page's own text.
RUN = "tags => axe.run({runOnly: tags, resultTypes: ['violations']}).then(({violations}) => violations)"


def faults(page: Page, axe: str) -> list[str]:
    page.evaluate(axe)
    found = page.evaluate(RUN, STANDARDS)
    return [f"{fault['id']}: {fault['nodes'][0]['html'][:160]}" for fault in found if fault["impact"] in SERIOUS]


def test_axe_finds_no_serious_fault_on_any_page(page: Page, site: Site, axe: str) -> None:
    for address in addresses(site):
        reply = page.goto(address)
        assert reply is not None
        assert reply.status == 200, address
        assert faults(page, axe) == [], address
        expect(page.locator("h1")).to_have_count(1)


def test_the_import_preview_and_the_error_pages_are_accessible_too(browser: Browser, site: Site, axe: str) -> None:
    page = open_page(browser, site)
    page.goto("/import")
    page.get_by_label("File").set_input_files(
        {"name": "a.csv", "mimeType": "text/csv", "buffer": b"code,name\nA,x\nB,blue lawn\n"}
    )
    page.get_by_role("button", name="Look at it").click()
    assert faults(page, axe) == []
    for address, status in (("/shelf/999999", 404), ("/pairing/pattern/1?look=wild", 400)):
        reply = page.goto(address)
        assert reply is not None
        assert reply.status == status
        assert faults(page, axe) == []
    page.context.close()


def test_on_a_phone_nothing_runs_out_of_the_side(browser: Browser, site: Site, axe: str) -> None:
    page = open_page(browser, site, width=390)
    for address in addresses(site):
        page.goto(address)
        assert page.evaluate("document.documentElement.scrollWidth") <= 390, address
    assert faults(page, axe) == []
    page.context.close()


def test_keys_walk_the_rows_and_open_them(page: Page, site: Site) -> None:
    """Each page is waited for until its keys work, which the address alone does not say."""
    page.goto(f"/pairing/pattern/{site.pattern('TP-21')}")
    page.keyboard.press("j")
    page.keyboard.press("j")
    second = page.locator("article").nth(1).locator("a.name")
    expect(second).to_be_focused()
    page.keyboard.press("k")
    expect(page.locator("article").first.locator("a.name")).to_be_focused()
    page.keyboard.press("Enter")
    page.wait_for_url(re.compile("/pairing/one/"))
    page.keyboard.press("3")
    page.wait_for_url(re.compile("look=flowing"))
    page.keyboard.press("l")
    page.wait_for_url(re.compile("school=hand"))
    page.keyboard.press("?")
    expect(page.get_by_role("dialog")).to_be_visible()
    page.keyboard.press("Escape")
    page.keyboard.press("g")
    page.keyboard.press("s")
    page.wait_for_url(re.compile("/shelf"))
    page.keyboard.press("/")
    expect(page.get_by_label("Search")).to_be_focused()


def test_letter_keys_can_be_switched_off(page: Page, site: Site) -> None:
    page.goto("/shelf")
    page.keyboard.press("?")
    page.get_by_label("Letter keys are on").uncheck()
    page.keyboard.press("Escape")
    page.keyboard.press("j")
    expect(page.locator("a.name").first).not_to_be_focused()


def test_a_pick_is_added_by_keyboard(page: Page, site: Site) -> None:
    page.goto(f"/pairing/pattern/{site.pattern('TP-21')}?programme=1")
    page.keyboard.press("j")
    page.keyboard.press("a")
    expect(page).to_have_url(re.compile("/programmes/1"))
    expect(page.locator("article")).to_have_count(6)
    for address in ("/", "/programmes"):
        page.goto(address)
        expect(page.locator("li", has=page.locator('a[href="/programmes/1"]')).first).to_contain_text("6 picks")


def test_the_page_agrees_with_the_core_on_the_whole_demo_shop(page: Page, site: Site) -> None:
    shelf, drawer = site.shop.now().shelf, site.shop.now().drawer
    for record in drawer.records[::6]:
        everything = Filters(set_aside=True)
        ranking = rank_cloths(site.shop, site.shop.now(), record, Wish(), everything)
        shown = []
        for number in range(1, ranking.pages + 1):
            page.goto(f"/pairing/pattern/{record.id}?set_aside=1&page={number}")
            shown += page.locator("article").evaluate_all(
                "rows => rows.map(row => ['a.name', '.verdict'].map(part => row.querySelector(part).textContent.trim()))"
            )
        single = [
            (row.cloth_record.facts.name, row.verdict.word)
            for number in range(1, ranking.pages + 1)
            for row in rank_cloths(site.shop, site.shop.now(), record, Wish(), Filters(set_aside=True, page=number)).rows
        ]
        assert [tuple(row) for row in shown] == single
        assert len(shown) == len(shelf.records)


@pytest.mark.parametrize("back", ["https://elsewhere.test/", "//elsewhere.test/", "/\\elsewhere.test"])
def test_a_setting_never_leads_away(browser: Browser, site: Site, back: str) -> None:
    page = open_page(browser, site)
    page.goto("/")
    page.get_by_role("banner").locator("input[name=back]").evaluate("(box, back) => { box.value = back; }", back)
    page.get_by_role("button", name="in, oz").click()
    expect(page).to_have_url(site.base + "/")
    page.context.close()


def test_headers_and_forms_are_guarded(demo: Shop) -> None:

    client = tried_app(demo.database).test_client()
    reply = client.get("/")
    policy = reply.headers["Content-Security-Policy"]
    assert "unsafe" not in policy
    assert "default-src 'none'" in policy
    assert client.post("/shelf/1/remove").status_code == 400
    assert len(demo.now().shelf.records) >= 60
    assert client.get("/", headers={"Host": "elsewhere.test"}).status_code == 400
