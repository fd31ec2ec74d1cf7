"""What is seen and said: the pairing room, rankings narrowed both ways, garments in their cloths, sentences, notes, places."""

from __future__ import annotations

import re

import numpy as np
from conftest import Site
from playwright.sync_api import Page, expect


def test_the_pairing_room_asks_once_for_either_side(page: Page, site: Site) -> None:
    page.goto("/pairing")
    expect(page.locator(".card-link svg.garment").first).to_be_visible()
    expect(page.locator(".card-link svg.swatch").first).to_be_visible()
    page.get_by_label("What goes with").fill("lawn")
    page.get_by_role("button", name="Find it").click()
    expect(page.locator(".sides section").nth(1).locator("li")).to_have_count(
        int(np.count_nonzero(site.shop.now().shelf.holding("lawn")))
    )
    page.get_by_role("link", name=re.compile("Bean Row lawn")).click()
    expect(page.get_by_role("heading", name="Bean Row lawn")).to_be_visible()


def test_a_ranking_of_cloths_is_narrowed_by_price_colour_season_and_stock(page: Page, site: Site) -> None:
    page.goto(f"/pairing/pattern/{site.pattern('OR-11')}")
    every = _total(page)
    page.get_by_label("Price up to").fill("12")
    page.get_by_label("Price up to").press("Tab")
    expect(page.get_by_role("heading", name=re.compile("cloths, best first"))).not_to_have_text(f"{every} cloths, best first")
    assert 0 < _total(page) < every
    for price in page.locator(".pair-row[data-row] div.soft.small").all_inner_texts():
        assert float(re.findall(r"£(\d+\.\d\d)", price)[0]) <= 12
    page.goto(f"/pairing/pattern/{site.pattern('OR-11')}?near=navy&season=winter")
    assert 0 < _total(page) < every
    page.goto(f"/pairing/pattern/{site.pattern('OR-11')}?near=blurple")
    expect(page.get_by_role("alert")).to_contain_text("blurple")
    assert _total(page) == every
    site.complaints.clear()


def test_a_ranking_of_patterns_is_narrowed_by_garment_and_size(page: Page, site: Site) -> None:
    cloth = site.cloth("GM-101")
    page.goto(f"/pairing/cloth/{cloth}")
    every = _total(page)
    page.get_by_label("Garment").select_option("skirt")
    expect(page.get_by_role("heading", name=re.compile("^[0-9]+ patterns?, best first"))).not_to_have_text(
        f"{every} patterns, best first"
    )
    assert 0 < _total(page) < every
    page.goto(f"/pairing/cloth/{cloth}?size=16&in_stock=1")
    rows = page.locator(".pair-row[data-row]")
    assert rows.count() > 0
    stock = 9.8  # metres of Bean Row lawn in the demo shop
    for amount in page.locator(".pair-row[data-row] .amount strong").all_inner_texts():
        assert float(amount.removesuffix(" m")) <= stock
    rows.first.locator("a.name").click()
    expect(page.get_by_label("Size")).to_have_value("16")


def _total(page: Page) -> int:
    return int(page.locator(".answers-head h2").inner_text().split()[0])


def test_rows_speak_aloud_and_a_click_shows_the_bench(page: Page, site: Site) -> None:
    page.goto(f"/pairing/pattern/{site.pattern('OR-11')}")
    said = page.locator(".pair-row details.aloud > summary").all_inner_texts()
    assert len(set(said)) == len(said) > 5
    assert not any(re.search(r"g/m²|bends|edge:|typical", one) for one in said)
    page.locator(".pair-row details.aloud > summary").first.click()
    expect(page.locator(".pair-row .bench-says").first).to_contain_text("g/m²")


def test_the_garment_is_drawn_in_its_cloth_and_follows_its_details(page: Page, site: Site) -> None:
    page.goto(f"/pairing/one/{site.pattern('OR-11')}/{site.cloth('GM-101')}")
    worn = page.locator("svg.worn.large")
    expect(worn).to_be_visible()
    assert worn.locator("pattern use, pattern path").count() > 1
    fill = worn.locator("path.edge").first.get_attribute("fill")
    assert fill == f"url(#{worn.locator('pattern').get_attribute('id')})"
    expect(page.get_by_text("not a photograph")).to_be_visible()
    page.goto("/hang")
    expect(page.locator("svg.hung-garment")).to_have_count(2)  # it opens with two cloths


def test_several_patterns_and_a_garment_in_several_cloths_are_one_place(page: Page, site: Site) -> None:
    page.goto(f"/pairing/cloth/{site.cloth('GM-101')}")
    for at in (0, 1):
        page.locator(".pair-row[data-row] input[name=patterns]").nth(at).check()
    page.get_by_role("button", name=re.compile("Add the ticked patterns as one")).click()
    expect(page.locator("article.joined")).to_have_count(1)
    numbers = page.locator("article .number").all_inner_texts()
    assert numbers[-1] == "with it"
    page.locator("article").last.get_by_role("button", name="by itself").click()
    expect(page.locator("article.joined")).to_have_count(0)
    page.locator("article").last.get_by_role("button", name="join above").click()
    expect(page.locator("article.joined")).to_have_count(1)
    # A jersey body and a tulle sleeve: as a whole dress the tulle would be against, on its own part it is not.
    body, sleeve = site.cloth("SK-503"), site.cloth("LF-317")
    page.goto(f"/pairing/mixed/{site.pattern('OR-16')}?cloth.body={body}&cloth.sleeve={sleeve}")
    page.get_by_role("button", name="Add", exact=True).click()
    joined = page.locator("article.joined").last
    expect(joined).to_contain_text("sleeve")
    expect(joined.locator(".verdict").first).to_have_text("suits")


def test_tiers_in_several_colours_and_an_added_belt_each_have_their_own_amount(page: Page, site: Site) -> None:
    pattern, lawn, poplin = site.pattern("TP-21"), site.cloth("GM-101"), site.cloth("GM-106")
    page.goto(f"/pairing/one/{pattern}/{lawn}?size=14&hacks=belt")
    page.get_by_role("link", name="In several cloths").click()  # with the change, the size and this cloth as its body
    rows = page.locator("#takes tr")
    expect(rows).to_have_count(2)
    alone = rows.nth(1).locator("td").nth(2).inner_text()
    page.get_by_label("tier 2").select_option(str(poplin))
    page.get_by_label("added belt").select_option(str(poplin))
    expect(rows).to_have_count(3)
    expect(rows.nth(2)).to_contain_text("added belt")
    rows.nth(2).get_by_text("receipt").click()
    expect(rows.nth(2)).to_contain_text("tier 2: ")
    assert float(rows.nth(1).locator("td").nth(2).inner_text().split()[0]) < float(alone.split()[0])
    page.get_by_role("button", name="Add", exact=True).click()
    joined = page.locator("article.joined").first
    expect(joined).to_contain_text(re.compile(r"m .* for tier 2 and added belt, size 14"))


def test_a_second_size_is_held_and_its_amount_said(page: Page, site: Site) -> None:
    page.goto("/programmes/1")
    page.get_by_label("size 16 and").first.select_option("24")
    page.get_by_role("button", name="Keep", exact=True).first.click()
    expect(page.locator("article").first).to_contain_text("for size 24")
    page.goto("/programmes/1/notes")
    expect(page.locator("pre").first).to_contain_text("shown in sizes 16 and 24")


def test_notes_speak_to_viewers_and_keep_links(page: Page, site: Site) -> None:
    cloth = site.cloth("GM-101")
    page.goto(f"/shelf/{cloth}/edit")
    page.get_by_label("Link", exact=True).fill("javascript:alert(1)")
    page.get_by_role("button", name="Save").click()
    expect(page.get_by_role("alert")).to_contain_text("is no web address")
    page.get_by_label("Link", exact=True).fill("shop.example/bean-row")
    page.get_by_role("button", name="Save").click()
    page.goto(f"/pairing/one/{site.pattern('OR-11')}/{cloth}")
    page.get_by_label("Programme").select_option(label="Lantern Walk")
    page.get_by_role("button", name="Add", exact=True).click()
    page.goto("/programmes/1/notes")
    notes = page.locator("pre").first.inner_text()
    assert "(https://shop.example/bean-row)" in notes
    assert "LINK" not in notes
    assert "say so" not in notes  # that speaks to the presenter
    cautions = [line for line in notes.split("## Before you cut")[1].splitlines() if line.startswith("- ")]
    assert len(cautions) == len({line.rsplit(" (", 1)[0] for line in cautions}) > 1
    assert "24 October 2026" in notes
    page.locator(".checks summary").click()  # beside the notes, to the presenter
    expect(page.get_by_text("Was anything here a gift, paid for, or linked for a commission?")).to_be_visible()
    site.complaints.clear()


def test_looking_at_a_programme_does_not_move_where_picks_go(page: Page, site: Site) -> None:
    page.goto("/programmes/2?picks=here")
    page.goto("/programmes/1")
    page.goto(f"/pairing/pattern/{site.pattern('OR-11')}")
    expect(page.get_by_label("Programme")).to_have_value("2")
    page.goto("/programmes/1")
    page.get_by_role("link", name="let picks go here").click()
    page.goto(f"/pairing/pattern/{site.pattern('OR-11')}")
    expect(page.get_by_label("Programme")).to_have_value("1")


def test_a_colourway_that_shows_is_judged_by_itself(page: Page, site: Site) -> None:
    cloth = site.cloth("GM-106")
    page.goto(f"/shelf/{cloth}/edit")
    page.get_by_label("Colourways").fill("navy #1d2746 3 m opaque | white #ffffff 2 m semi-sheer")
    page.get_by_role("button", name="Save").click()
    page.goto(f"/pairing/one/{site.pattern('OR-11')}/{cloth}")
    expect(page.get_by_text("By colourway:")).to_contain_text("white, semi-sheer")


def test_a_line_that_was_not_read_is_put_where_it_belongs(page: Page, site: Site) -> None:
    page.goto("/patterns/new")
    page.get_by_label("The envelope, pasted").fill("Whirligig top\nRecommended: lawn.\n\nMind the zzyx at the back")
    page.get_by_role("button", name="Read it into the form").click()
    page.get_by_label(re.compile("Where line . belongs")).first.select_option("notes")
    page.get_by_role("button", name="Put them there").click()
    expect(page.get_by_label("Notes", exact=True)).to_have_value("Mind the zzyx at the back")


def test_an_opaque_cloth_that_wants_no_lining_is_offered_none(page: Page, site: Site) -> None:
    page.goto(f"/pairing/one/{site.pattern('OR-11')}/{site.cloth('OW-401')}/beneath")
    expect(page.get_by_text("wants no lining here")).to_be_visible()
    expect(page.locator(".lining-line")).to_have_count(0)
    assert site.complaints == []


def test_from_the_front_page_to_a_pick_by_keys_alone(page: Page, site: Site) -> None:
    page.goto("/")
    keys = ["g", "m"]
    for key in keys:
        page.keyboard.press(key)
    page.wait_for_url("**/pairing")
    for key in ("/", *"tiered", "Enter"):
        page.keyboard.press(key)
        keys.append(key)
    page.wait_for_url("**q=tiered*")
    for key in ("j", "Enter"):
        page.keyboard.press(key)
        keys.append(key)
    page.wait_for_url("**/pairing/pattern/*")
    expect(page.locator(".pair-row[data-row]").first).to_be_visible()
    for key in ("j", "a"):
        page.keyboard.press(key)
        keys.append(key)
    page.wait_for_url("**/programmes/*")
    assert len(keys) < 20  # it took 75 once
    assert site.complaints == []


def test_an_envelope_of_two_garments_becomes_two_patterns(page: Page, site: Site) -> None:
    page.goto("/patterns/new")
    envelope = "Snipe hoodie and joggers\nHoodie: French terry\nJoggers: ponte\nHoodie 150 cm 1.8 m\nJoggers 150 cm 1.4 m"
    page.get_by_label("The envelope, pasted").fill(envelope)
    page.get_by_role("button", name="Read it into the form").click()
    page.get_by_role("button", name="Save, then the joggers").click()
    expect(page.get_by_role("status")).to_contain_text("Snipe hoodie is kept")
    expect(page.get_by_label("Recommended cloths")).to_have_value("ponte")
    expect(page.get_by_role("button", name="Save, then")).to_have_count(0)
    page.get_by_role("button", name="Save", exact=True).click()
    expect(page.get_by_role("heading", level=1, name="Snipe joggers")).to_be_visible()
    page.goto("/patterns")
    expect(page.get_by_role("link", name=re.compile("Snipe (hoodie|joggers)"))).to_have_count(2)
