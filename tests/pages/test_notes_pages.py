"""Notes from a filmed programme: written over, looked over, published in every form, held against what is later."""

from __future__ import annotations

import csv
import io
import json
from datetime import date, datetime, timedelta
from decimal import Decimal

import html5lib
import pypdfium2
import pytest
from conftest import WIDTHS, Site, open_page
from playwright.sync_api import Browser, Page, expect
from test_pages import faults

from nematex.core.air.take import Event
from nematex.store.air.takes import add_events, choose_take, keep_take
from nematex.store.cloth.cloths import change_cloth
from nematex.usecases.air.notes.told import told_of
from nematex.usecases.air.run_sheet import run_of
from nematex.usecases.air.takes import takes_of
from nematex.usecases.programme import acts
from nematex.usecases.programme.acts import Line

NOTES = "/programmes/1/notes"


def filmed(site: Site) -> None:
    """A take of Lantern Walk: 40 s of opening, 90 s a place, a slip that stays, one that was filmed again."""
    programme = next(one for one in site.shop.now().programmes if one.id == 1)
    plan = [{"title": "Opening", "kind": "opening", "seconds": 30.0, "picks": []}]
    for number, pick in enumerate(programme.picks, 1):
        plan.append({"title": f"{number}. place", "kind": "place", "seconds": 90.0, "picks": [pick.id]})
    told = {
        "a": Event("open", 0, 0),
        "b": Event("open", 40, 1),
        "c": Event("slip", 60, 1, "weight", "it weighs 236, not 320 g"),
    }
    told |= {str(n): Event("open", 40 + 90 * (n - 1), n) for n in range(2, len(programme.picks) + 1)}
    told |= {"s": Event("slip", 150, 2, "", "silk"), "t": Event("again", 160, 2), "z": Event("end", 600, len(programme.picks))}
    with site.shop.database.work() as work:
        take = keep_take(work, 1, "take-0001", datetime(2026, 10, 24, 18), plan)
        add_events(work, take or 0, told)
        choose_take(work, 1, take or 0)


def test_notes_of_a_filmed_programme_in_every_form(page: Page, site: Site) -> None:
    filmed(site)
    page.goto(NOTES)
    text = page.locator("pre").first.inner_text()
    assert "- 0:00 Opening" in text
    assert "- 0:40 1. place" in text
    assert "- 1:00 1. place: it weighs 236, not 320 g" in text
    assert "silk" not in text  # that part was filmed again
    assert "Made by Gannet Mill." in text
    assert f"Prices as of {site.shop.now().voice.day(date.today())}." in text
    html = page.request.get(f"{NOTES}/blog.html").text()
    tree = html5lib.HTMLParser(strict=True, namespaceHTMLElements=False).parseFragment(html)
    assert [each.text for each in tree.iter("h2")][1].startswith("1. Ropewalk heavy flannel for Dunlin overshirt")
    plain = page.request.get(f"{NOTES}/blog.txt").text()
    assert "1. Ropewalk heavy flannel for Dunlin overshirt\n" in plain
    assert "#" not in plain
    for kind, form in (("film", "txt"), ("newsletter", "md"), ("page", "html"), ("caption", "txt")):
        reply = page.request.get(f"{NOTES}/{kind}.{form}")
        assert reply.status == 200
        assert "Ropewalk heavy flannel" in reply.text()
    assert page.request.get(f"{NOTES}/film.html").status == 404  # it is plain
    assert "\n0:40 1. place\n" in page.request.get(f"{NOTES}/film.txt").text()
    told = json.loads(page.request.get(f"{NOTES}/notes.json").text())
    assert told["places"][0]["shown"][0]["cloth"]["fibres"] == {"cotton": 1.0}
    assert [place["time"] for place in told["places"][:2]] == ["0:40", "2:10"]
    rows = list(csv.DictReader(io.StringIO(page.request.get(f"{NOTES}/links.csv").text().removeprefix("\ufeff"))))
    assert [row["what"] for row in rows[:2]] == ["cloth", "pattern"]
    for kind in ("leaflet", "cards"):
        with pypdfium2.PdfDocument(page.request.get(f"/programmes/1/{kind}").body()) as paper:
            said = " ".join(" ".join(sheet.get_textpage().get_text_range() for sheet in paper).split())
        assert "Ropewalk heavy flannel for Dunlin overshirt" in said
        assert "It shrinks: wash and dry the whole length before cutting." in said


def test_own_text_is_kept_while_facts_move(page: Page, site: Site) -> None:
    page.goto(NOTES)
    page.locator(".write summary").click()
    body = page.get_by_label("Blog post, in Markdown")
    body.fill(body.input_value().replace("# Lantern Walk", "# Lanterns along the harbour") + "\nCome along!\n")
    page.get_by_role("button", name="Keep mine").click()
    expect(page.locator("pre").first).to_contain_text("# Lanterns along the harbour")
    site.shop.now()
    with site.shop.database.work() as work:
        change_cloth(work, site.cloth("GM-119"), {"price_per_m": Decimal("17.20")})
    page.reload()
    record = next(one for one in site.shop.now().shelf.records if one.code == "GM-119")
    moved = page.locator(".moved")
    expect(moved).to_contain_text("£17.20/m")
    assert record.facts.name in moved.inner_text()
    expect(page.locator("pre").first).not_to_contain_text("£17.20")
    page.get_by_role("button", name="Bring it into my text").click()
    expect(page.locator(".moved")).to_have_count(0)
    for said in ("# Lanterns along the harbour", "Come along!", "£17.20/m"):
        expect(page.locator("pre").first).to_contain_text(said)
    stale = page.locator(".write textarea[name=shown]").input_value()
    page.locator(".write summary").click()
    page.get_by_role("button", name="Back to the template").click()
    expect(page.locator("pre").first).to_contain_text("# Lantern Walk")
    assert "Lanterns" in stale  # a colleague's page from before cannot undo it unseen
    token = page.locator("main [name=csrf_token]").first.input_value()
    reply = page.request.post(
        f"{NOTES}/blog",
        form={"csrf_token": token, "body": "mine", "shown": stale, "act": "keep"},
        headers={"Referer": page.url},
    )
    assert reply.status == 400
    assert "clashes with what somebody else kept" in reply.text()
    assert "mine</textarea>" in reply.text()
    site.complaints.clear()


def test_the_checker_and_publishing(page: Page, site: Site) -> None:
    shop, state = site.shop, site.shop.now()
    programme = next(one for one in state.programmes if one.id == 1)
    first = programme.picks[0]
    said = "Pure linen from Gannet Mill, organic, and only £12.00 a metre."
    acts.change_picks(shop, 1, {first.id: Line(said, first.line)})
    with shop.database.work() as work:
        change_cloth(work, first.cloth_id, {"maker_secret": True})
    page.goto(NOTES)
    wrong = page.locator(".caution", has_text="Not to be published like this")
    expect(wrong).to_contain_text("the line of pick 1 says “Pure linen”: no cloth shown there is all of that.")
    expect(wrong).to_contain_text("names Gannet Mill, who asked not to be named")
    page.locator(".checks summary").click()
    for thought in (
        "“organic”. Organic wants a certificate",
        "says £12.00: nothing shown costs that now",
        "a gift, paid for",
        "Nothing was filmed yet",
    ):
        expect(page.locator(".checks")).to_contain_text(thought)
    expect(page.locator("pre").first).not_to_contain_text("Made by Gannet Mill")
    acts.change_picks(shop, 1, {first.id: Line("Warm and brushed.", said)})
    page.goto("/programmes/1/run")
    page.get_by_label("Gifts, payment, commission").fill("The flannel was a gift of the mill.")
    page.get_by_role("button", name="Keep", exact=True).click()
    page.goto(NOTES)
    lines = page.locator("pre").first.inner_text().splitlines()
    assert lines.index("The flannel was a gift of the mill.") <= 2  # early
    page.get_by_role("button", name="Publish version 1").click()
    expect(page.get_by_text("Nothing that was said has changed.")).to_be_visible()
    with shop.database.work() as work:
        change_cloth(work, first.cloth_id, {"price_per_m": Decimal("19.00")})
    page.reload()
    expect(page.get_by_label("Correction")).to_contain_text("price is £19.00/m (£17.37/yd), not £15.80/m (£14.45/yd).")
    page.get_by_role("link", name="Version 1", exact=True).click()
    expect(page.locator("pre").first).to_contain_text("£15.80/m")
    page.goto(NOTES)
    page.get_by_role("button", name="Publish version 2").click()
    expect(page.get_by_text("Since version 2")).to_be_visible()


def test_sales_sources_and_tutorials(page: Page, site: Site) -> None:
    shop = site.shop
    first = next(one for one in shop.now().programmes if one.id == 1).picks[0]
    soon, more = (
        date.today() + timedelta(days=3),
        {"sources": "abroad: https://other.example/x, 7 to 14 days", "link": "https://shop.example/f"},
    )
    for until, told in ((soon, True), (date.today() - timedelta(days=1), False), (None, True)):
        with shop.database.work() as work:
            change_cloth(
                work,
                first.cloth_id,
                {"sale_price_per_m": Decimal("9.00"), "more": {**more, "sale_until": until.isoformat() if until else ""}},
            )
        state = shop.now()
        programme = next(one for one in state.programmes if one.id == 1)
        found = told_of(shop, state, programme, date.today())
        cloth = found["places"][0]["shown"][0]["cloth"]
        assert ("£9.00" in cloth["price"]) is told
        said = " ".join(each.text for each in run_of(shop, state, programme).sheet.timed[1].part.said)
        assert ("£9.00" in said) is told  # nor is it said in front of the camera
        assert cloth["sources"] == [{"region": "abroad", "link": "https://other.example/x", "delivery": "7 to 14 days"}]
        assert found["sale"] == (
            "" if not told else f"On sale {f'until {state.voice.day(until)}' if until else 'while it lasts'}: {cloth['name']}."
        )
    page.goto(f"{NOTES}/templates/blog")
    page.get_by_label("Tutorials by technique").fill("patch pocket = shop.example/pockets\nsmocking = shop.example/smocking")
    page.get_by_label("For every programme of the shop").fill(
        "# {{ programme }}\n{% for one in tutorials %}\n- {{ one.technique }}: {{ one.link }}\n{% endfor %}\n{% set x = 1 %}"
    )
    page.get_by_role("button", name="Keep", exact=True).click()
    expect(page.locator(".fault").first).to_contain_text("uses “assign”")
    box = page.get_by_label("For every programme of the shop")
    box.fill(box.input_value().replace("{% set x = 1 %}", ""))
    page.get_by_role("button", name="Keep", exact=True).click()
    text = page.locator("pre").first.inner_text()
    assert "- patch pocket: https://shop.example/pockets" in text
    assert "smocking" not in text
    page.goto(f"{NOTES}/templates/blog")
    page.get_by_role("button", name="Back to the one that ships").click()
    expect(page.locator("pre").first).to_contain_text("## Before you cut")
    site.complaints.clear()


def test_two_who_change_what_the_whole_shop_says(page: Page, browser: Browser, site: Site) -> None:
    """Templates, tutorials, the order of speaking and how words are said belong to all: a stale page undoes nothing unseen."""
    other = open_page(browser, site)
    for address, field, button in (
        (f"{NOTES}/templates/film", "Tutorials by technique", "Keep"), ("/programmes/1/run", "How words are said", "Keep"),
    ):  # fmt: skip
        mine, theirs = ("gathering = https://a.example/g", "pleats = https://b.example/p")
        page.goto(address)
        other.goto(address)
        other.get_by_label(field).fill(theirs)
        other.get_by_role("button", name=button, exact=True).click()
        other.wait_for_load_state()
        page.get_by_label(field).fill(mine)
        page.get_by_role("button", name=button, exact=True).click()
        expect(page.locator(".fault").first).to_contain_text("clashes with what somebody else saved")
        expect(page.get_by_label(field)).to_have_value(mine)
        page.get_by_role("button", name="Take theirs").click()
        expect(page.get_by_label(field)).to_have_value(theirs)
    other.context.close()
    site.complaints.clear()


@pytest.mark.parametrize("width", WIDTHS)
def test_notes_are_accessible_and_fit_a_phone(browser: Browser, site: Site, axe: str, width: int) -> None:
    filmed(site)
    page = open_page(browser, site, width)
    for address in (NOTES, f"{NOTES}/film", f"{NOTES}/templates/caption", "/programmes/1/takes", "/programmes/1/run"):
        page.goto(address)
        assert faults(page, axe) == [], address
        assert page.evaluate("document.documentElement.scrollWidth <= window.innerWidth"), address
    assert len(takes_of(site.shop, 1)) == 1
    page.context.close()
