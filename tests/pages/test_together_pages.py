"""Whether a set hangs together, what is true of its stock on the day, what was shown before, and a look that is copied."""

from __future__ import annotations

import json
import threading
from collections.abc import Iterator
from datetime import date, datetime, timedelta
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer

import pytest
from conftest import Site
from playwright.sync_api import Page, expect

from nematex.store.cloth.cloths import change_cloth
from nematex.store.cloth.feed import add_levels
from nematex.store.records import Pick, Programme
from nematex.store.settings import put
from nematex.usecases.cloth.acts import remove_cloth
from nematex.usecases.programme import acts
from nematex.usecases.programme.proposing import planning
from nematex.usecases.stock.polling import SETTING


def kept(site: Site, name: str) -> Programme:
    return next(one for one in site.shop.now().programmes if one.name == name)


def stock(site: Site, code: str, metres: float) -> None:
    with site.shop.database.work() as work:
        change_cloth(work, site.cloth(code), {"stock_m": metres})


def test_a_capsule_is_counted_drawn_and_grows_by_one_key(page: Page, site: Site) -> None:
    number = kept(site, "Allotment Spring").id
    page.goto(f"/programmes/{number}/together")
    expect(page.get_by_role("heading", name="4 outfits")).to_be_visible()
    expect(page.locator("ul.outfits li")).to_have_count(4)
    expect(page.locator("ul.tones")).to_contain_text("Bean Row lawn")
    gain = int(page.locator(".closing .soft").first.inner_text().split()[0])
    page.keyboard.press("j")
    page.keyboard.press("a")
    expect(page.get_by_role("heading", name=f"{4 + gain} outfits")).to_be_visible()
    expect(page.locator("main")).to_contain_text("unites it")
    assert len(kept(site, "Allotment Spring").picks) == 7


def test_what_the_set_lacks_is_said_and_brought(page: Page, site: Site) -> None:
    made = acts.save_programme(site.shop, None, {"name": "All alike", "shown_on": "2027-07-10", "intro": ""})
    chosen = [("SK-512", "PR-32"), ("SK-501", "OR-13"), ("SK-502", "BR-44")]
    codes = {record.code for record in site.shop.now().shelf.records}
    picks = [Pick(0, site.cloth(cloth), site.pattern(pattern)) for cloth, pattern in chosen if cloth in codes]
    for pick in picks:
        acts.add_picks(site.shop, made, [Pick(0, pick.cloth_id, pick.pattern_id)])
    page.goto(f"/programmes/{made}/set")
    row = page.locator("tr", has=page.get_by_role("cell", name="cloths", exact=True))
    expect(row).to_contain_text("No woven.")
    row.get_by_role("button").first.click()
    expect(page.locator("tr", has=page.get_by_role("cell", name="cloths", exact=True))).not_to_contain_text("No woven.")
    assert len(kept(site, "All alike").picks) == len(picks) + 1


def test_the_makers_expected_make_a_pick_red_everywhere(page: Page, site: Site) -> None:
    coming = (date.today() + timedelta(days=20)).isoformat()
    shown = acts.about(kept(site, "Lantern Walk"))
    acts.save_programme(site.shop, 1, {"shown_on": coming, "shown": json.dumps(shown)})
    planning.save_brief(site.shop, site.shop.now(), 1, {"makers": "4"})
    stock(site, "OW-413", 12.0)  # the coat takes 3 m: 4 makers and a tenth, 13.2 m
    page.goto("/programmes/1")
    red = page.locator(".short-of", has_text="12 m left; 4 makers may take 13.2 m")
    expect(red).to_be_visible()
    # The shop has no other coating: a denim is none, and is not offered.
    expect(page.locator("article", has=red)).to_contain_text("No cloth in stock that behaves alike is enough for it.")
    page.goto("/")
    expect(page.locator(".alarms")).to_contain_text("Lantern Walk")
    page.goto("/programmes/1/wall")
    expect(page.locator(".hung.red").first).to_contain_text("too little left")
    stock(site, "OW-413", 0.0)
    page.goto("/programmes/1/notes")
    expect(page.locator("main")).to_contain_text(
        "Not to be published like this: 2. Breakwater coating for Curlew coat: sold out"
    )


def test_what_is_on_air_today_is_looked_over_on_the_front_page(page: Page, site: Site) -> None:
    shown = acts.about(kept(site, "Lantern Walk"))
    acts.save_programme(site.shop, 1, {"shown_on": date.today().isoformat(), "shown": json.dumps(shown)})
    page.goto("/")
    air = page.locator("li", has=page.locator("a[href$='/programmes/1/check']"))
    expect(air).to_contain_text("5 want a thought")  # no cloth of it has a link
    stock(site, "OW-413", 0.0)
    page.reload()
    expect(air).to_contain_text("1 thing must not go out like this")


@pytest.fixture
def feed() -> Iterator[tuple[str, dict[str, object]]]:
    """A stock feed on loopback and what it says."""
    told: dict[str, object] = {}

    class Handler(BaseHTTPRequestHandler):
        def do_GET(self) -> None:
            content = told["content"]
            self.send_response(200)
            self.end_headers()
            self.wfile.write(content if isinstance(content, bytes) else json.dumps(content).encode())

        def log_message(self, *args: object) -> None:
            pass

    server = ThreadingHTTPServer(("127.0.0.1", 0), Handler)
    threading.Thread(target=server.serve_forever, daemon=True).start()
    yield f"http://127.0.0.1:{server.server_port}/stock", told
    server.shutdown()
    server.server_close()


def test_the_feed_sells_a_pick_out_and_it_is_replaced_in_three_keys(
    page: Page, site: Site, feed: tuple[str, dict[str, object]]
) -> None:
    address, told = feed
    with site.shop.database.work() as work:
        put(work, SETTING, address)
    now = datetime.now().replace(microsecond=0).isoformat()
    told["content"] = {"at": now, "levels": [{"code": "GM-119", "metres": 0}, {"code": "OW-413", "metres": "much"}]}
    page.goto("/programmes/1/check")
    page.keyboard.press("p")
    wrong = page.locator("li.short-of")
    expect(wrong).to_contain_text("1. Ropewalk heavy flannel for Dunlin overshirt: sold out")
    expect(page.locator("main")).to_contain_text("1 lines of the stock feed are no stock")
    wrong.locator("a").click()
    page.wait_for_url("**/programmes/1#pick-*")
    row = page.locator("article.pick-line").first
    new = row.locator(".closing a").first.inner_text()
    page.keyboard.press("j")
    page.keyboard.press("a")
    expect(row.locator("a.name")).to_contain_text(new)
    expect(row).to_contain_text("in the place of Ropewalk heavy flannel, sold out")
    told["content"] = b"<html>closed</html>"
    page.goto("/stock")
    page.keyboard.press("p")
    expect(page.locator(".caution")).to_contain_text("no JSON. Nothing was lost")


def test_an_alternative_is_found_waits_and_is_shown_instead(page: Page, site: Site) -> None:
    page.goto("/programmes/1")
    row = page.locator("article.pick-line").nth(1)
    row.get_by_text("Still open, alternatives").click()
    row.get_by_label("Still open").fill("ask whether the pattern house still prints it")
    row.get_by_label("Still open").press("Enter")
    page.wait_for_load_state()
    assert kept(site, "Lantern Walk").picks[1].question == "ask whether the pattern house still prints it"
    page.locator("article.pick-line").nth(1).get_by_role("link", name="another cloth for Curlew coat").click()
    other = page.locator("article.pair-row a.name").nth(1).inner_text()
    page.locator("article.pair-row").nth(1).get_by_role("button", name="let it wait").click()
    page.wait_for_url("**/programmes/1#pick-*")
    row = page.locator("article.pick-line").nth(1)
    expect(row).to_contain_text("Waiting behind it: ")
    expect(page.locator("article.pick-line")).to_have_count(5)
    row.get_by_role("button", name="show it instead").click()
    expect(page.locator("article.pick-line").nth(1).locator("a.name")).to_contain_text(other)
    expect(page.locator("article.pick-line").nth(1)).to_contain_text("Breakwater coating")
    page.goto("/programmes/1/check")
    expect(page.locator("main")).not_to_contain_text("still prints it")  # it was asked of the one that waits now


def test_history_says_when_with_what_and_how_it_sold(page: Page, site: Site) -> None:
    """Shown on 24 October; 14 m then, 11 m after a week, 9 m after three: 3 m within a fortnight."""
    cloth = site.cloth("GM-119")
    for day, metres in ((date(2026, 10, 20), 14.0), (date(2026, 10, 31), 11.0), (date(2026, 11, 14), 9.0)):
        with site.shop.database.work() as work:
            add_levels(work, {cloth: metres}, datetime(day.year, day.month, day.day, 12))
    page.goto(f"/shelf/{cloth}")
    page.get_by_role("link", name="where it was shown").click()
    row = page.locator("tr", has_text="Lantern Walk")
    expect(row).to_contain_text("24 October 2026")
    expect(row.locator("td").last).to_have_text("3 m")
    page.get_by_role("link", name="Dunlin overshirt").first.click()
    expect(page.get_by_role("heading", name="Where Dunlin overshirt was shown")).to_be_visible()
    page.get_by_role("link", name="everything that was shown").click()
    expect(page.locator("tr", has_text="autumn 2026").first).to_contain_text("Lantern Walk")


def test_a_pairing_shown_not_long_ago_is_said_before_air(page: Page, site: Site) -> None:
    first = kept(site, "Lantern Walk").picks[0]
    made = acts.save_programme(site.shop, None, {"name": "Again", "shown_on": "2027-01-10", "intro": ""})
    acts.add_picks(site.shop, made, [Pick(0, first.cloth_id, first.pattern_id)])
    planning.save_brief(site.shop, site.shop.now(), made, {"not_again": "6"})
    page.goto(f"/programmes/{made}/check")
    expect(page.locator("main")).to_contain_text("was shown on 24 October 2026 in Lantern Walk, within 6 months")


def test_a_look_is_copied_dear_and_cheap(page: Page, site: Site) -> None:
    page.goto("/copy")
    page.get_by_label("What it is, with its details").fill("wide trousers, cropped")
    page.get_by_label("What its label says").fill("100 % linen")
    page.get_by_role("button", name="How is it made?").click()
    first = page.locator("article.pair-copy").first
    expect(first).to_contain_text("Godwit wide trousers")
    expect(first).to_contain_text("Change it: 22 cm shorter")  # 100 cm as it is, 78 cm as described
    dear, cheap = (first.locator("div", has_text=label).last for label in ("Dear:", "Cheap:"))
    prices = [float(each.inner_text().split("£")[1].split()[0]) for each in (dear, cheap)]
    assert prices[1] < prices[0]
    first.locator("a.name").nth(1).click()
    expect(page.locator("main")).to_contain_text("22 cm shorter")
    page.goto("/copy?shape=a thing")
    expect(page.locator(".fault")).to_contain_text("names no garment that is known here")
    site.complaints.clear()


def test_one_pattern_in_two_cloths_on_one_sheet(page: Page, site: Site) -> None:
    pattern = site.pattern("OR-11")
    page.goto(f"/pairing/one/{pattern}/{site.cloth('OW-203')}")
    page.get_by_role("link", name="beside another cloth").click()
    expect(page.locator("section h2").first).to_have_text("Marram washed linen")
    page.get_by_label("Second cloth").select_option(label="Furrow needlecord")
    sides = page.locator(".compare section")
    expect(sides.nth(1).locator("h2")).to_have_text("Furrow needlecord")
    for side in (sides.nth(0), sides.nth(1)):
        expect(side).to_contain_text("The garment costs")
        expect(side.locator("svg.tape")).to_have_count(5)
    expect(sides.nth(0)).to_contain_text("made up.")  # the demo's presenter has made this one


def test_a_lining_and_ribbing_stand_with_their_garment(page: Page, site: Site) -> None:
    page.goto("/programmes/1")
    row = page.locator("article.pick-line").nth(1)  # the coat
    row.get_by_text("Still open, alternatives").click()
    row.get_by_label("Which cloth").fill("Sloe lining")
    row.get_by_role("button", name="Add it").click()
    page.wait_for_url("**/programmes/1#pick-*")
    beside = page.locator("article.pick-line").nth(2)
    expect(beside.locator("a.name")).to_contain_text("Sloe lining for Curlew coat, lining")
    expect(beside).to_contain_text("for the lining")
    expect(beside).to_contain_text("with it")
    page.goto("/programmes/1/notes")
    text = page.locator("pre").first.inner_text()
    assert "with it: Sloe lining for Curlew coat, lining" in text
    assert "Could not be judged" not in text
    assert kept(site, "Lantern Walk").picks[2].part == "lining"
    page.goto("/programmes/1/wall")
    expect(page.locator("[data-pick]")).to_have_count(5)  # it hangs with the coat, not by itself


def test_a_cloth_that_was_put_away_finds_its_near_stand_in(page: Page, site: Site) -> None:
    number = kept(site, "Siskin tee kit").id
    pick = kept(site, "Siskin tee kit").picks[0]
    remove_cloth(site.shop, pick.cloth_id)
    page.goto(f"/programmes/{number}")
    waiting = page.locator(".caution", has_text="is in the bin")
    near = waiting.locator(".closing").first
    name = near.locator("a").inner_text()
    near.get_by_role("button", name="Show it").click()
    expect(page.locator("article.pick-line a.name")).to_contain_text(name)
    expect(page.locator("article.pick-line")).to_contain_text("in the place of a cloth that the shop no longer has")
