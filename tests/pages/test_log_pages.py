"""What was made and how it wore: kept, held against the rules, looked back on."""

from __future__ import annotations

import io
from datetime import date, datetime, timedelta

import pytest
from conftest import WIDTHS, Site, open_page
from PIL import Image
from playwright.sync_api import Browser, Page, expect
from test_pages import faults

from nematex.core.errors import FieldFault
from nematex.store.cloth.feed import add_levels
from nematex.usecases.air.made.log import made, save_make
from nematex.usecases.air.made.year import year_of, years
from nematex.usecases.forms.merging import as_shown
from nematex.usecases.judging.overrides import latest

NOW = datetime(2026, 11, 20, 12)
LOGGED = 3  # garments of the demo
COAT = {"pattern": "Curlew coat", "cloth": "Breakwater coating"}


def test_a_garment_is_logged_washed_and_stands_among_the_hands(page: Page, site: Site) -> None:
    page.goto("/programmes")
    page.get_by_role("link", name="what was made").click()
    page.get_by_label("Pattern").fill("Siskin tee")
    page.get_by_label("Cloth", exact=True).fill("Curlew coat")
    page.get_by_role("button", name="Keep").click()
    expect(page.locator(".fault").first).to_contain_text("cloth")
    site.complaints.clear()
    page.get_by_label("Cloth", exact=True).fill("gm-119")
    page.get_by_label("Verdict after making").select_option("with care")
    page.get_by_role("button", name="Keep").click()
    expect(page.locator(".fault").first).to_contain_text("why")
    site.complaints.clear()
    page.get_by_label("Why: what the hands know").fill("Too stiff for a tee, but the sleeves stand nicely.")
    page.get_by_label("Hours").fill("3.5")
    page.get_by_label("a viewer made it").check()
    page.get_by_label("What was used instead").fill("a ribbing from an old jumper")
    picture = io.BytesIO()
    Image.new("RGB", (300, 400), "#7a5230").save(picture, "PNG")
    page.get_by_label("Photo").set_input_files({"name": "tee.png", "mimeType": "image/png", "buffer": picture.getvalue()})
    page.get_by_role("button", name="Keep").click()
    expect(page.locator("h1")).to_have_text("Siskin tee in Ropewalk heavy flannel")
    expect(page.locator("img.made-photo")).to_have_count(1)
    cloth, pattern = site.cloth("GM-119"), site.shop.now().drawer.records
    tee = next(one for one in pattern if one.facts.name == "Siskin tee")
    said = latest(site.shop, tee.id, cloth)[cloth, tee.id]
    assert (said.verdict, said.made, said.by_whom) == ("with care", True, "viewer")
    page.get_by_label("Verdict after washing").select_option("against")
    page.get_by_label("What washing did").fill("It felted at the seams.")
    page.get_by_role("button", name="Keep").click()
    expect(page.locator(".caution")).to_contain_text("After washing it was worse")
    assert latest(site.shop, tee.id, cloth)[cloth, tee.id].verdict == "against"
    page.goto("/hands")  # it agrees with the rules now, and what was said on the table is gone from there
    expect(page.locator("main")).not_to_contain_text("the sleeves stand nicely")
    page.goto(f"/log?cloth_id={cloth}")
    expect(page.locator("article.made")).to_have_count(2)
    page.get_by_role("link", name="Siskin tee in Ropewalk heavy flannel").click()
    page.get_by_role("button", name="Remove").click()
    page.get_by_role("button", name="Put it back").click()
    page.goto("/log")
    expect(page.locator("article.made")).to_have_count(LOGGED + 1)


def test_what_is_wrong_with_an_entry(site: Site) -> None:
    shop, state = site.shop, site.shop.now()
    for given, field in (
        ({"made_on": "2027-01-01"}, "made on"), ({"hours": "-1"}, "hours"), ({"hours": "many"}, "hours"),
        ({"verdict": "great"}, "verdict"),
        ({"changes": "x" * 100_000}, "changes"), ({"cloth": ""}, "cloth"),
        ({"made_on": "0001-01-01"}, "made on"), ({"hours": "9" * 5000}, "hours"),
    ):  # fmt: skip
        with pytest.raises(FieldFault) as fault:
            save_make(shop, state, None, {**COAT, **given}, NOW)
        assert field in str(fault.value)
    assert made(shop, state).total == LOGGED


def test_two_who_write_of_one_garment(site: Site) -> None:
    shop, state = site.shop, site.shop.now()
    number = save_make(shop, state, None, COAT, NOW)
    shown = as_shown({**COAT, "made_on": "2026-11-20"})
    save_make(shop, state, number, {**COAT, "made_on": "2026-11-20", "hours": "22", "shown": shown}, NOW)
    save_make(shop, state, number, {**COAT, "made_on": "2026-11-20", "changes": "longer", "shown": shown}, NOW)
    one, count = made(shop, state).rows[0], made(shop, state).total
    assert (one.make.hours, one.make.told["changes"], count) == (22.0, "longer", LOGGED + 1)


def test_the_year_says_what_was_shown_what_worked_and_what_sold(page: Page, site: Site) -> None:
    shop, state = site.shop, site.shop.now()
    save_make(
        shop, state, None, {**COAT, "made_on": "2026-11-02", "hours": "22", "verdict": "suits", "reason": "Rolls well."}, NOW
    )
    save_make(shop, state, None, {**COAT, "made_on": "2025-12-31", "hours": "9"}, NOW)
    with shop.database.work() as work:
        for days, metres in ((6, 20.0), (4, 14.5)):
            add_levels(work, {site.cloth("OW-413"): metres}, NOW - timedelta(days=days))
    found = year_of(shop, shop.now(), 2026, NOW)
    lantern = next(one for one in state.programmes if one.name == "Lantern Walk")
    assert lantern.shown_on == date(2026, 10, 24)
    assert lantern in found.programmes
    assert (len(found.made), found.hours) == (LOGGED + 1, 22.0 + 11 + 6 + 4)
    assert dict(found.verdicts) == {"suits": 2, "with care": 2}  # what held after the wash
    assert [each.pattern.facts.name for each in found.worse_washed] == ["Whimbrel tiered skirt"]
    assert found.sold_m == pytest.approx(5.5)
    assert found.sold[0].shown  # it was in Lantern Walk
    assert years(shop, state, NOW.date()) == [2026, 2025]
    page.goto("/log/year/2026")
    expect(page.locator("main")).to_contain_text("4 garments made in 43 hours: 2 suits, 2 with care.")
    expect(page.locator("main")).to_contain_text("Lantern Walk")
    page.get_by_role("link", name="2025").click()
    expect(page.locator("main")).to_contain_text("Nothing was shown.")
    assert page.request.get("/log/year/1999").status == 404
    site.complaints.clear()


@pytest.mark.parametrize("width", WIDTHS)
def test_the_log_is_accessible_and_fits_a_phone(browser: Browser, site: Site, axe: str, width: int) -> None:
    number = save_make(site.shop, site.shop.now(), None, {**COAT, "verdict": "suits", "reason": "Rolls well."}, NOW)
    page = open_page(browser, site, width)
    for address in ("/log", f"/log/{number}", f"/log/year/{date.today().year}"):
        page.goto(address)
        assert faults(page, axe) == [], address
        assert page.evaluate("document.documentElement.scrollWidth <= window.innerWidth"), address
    page.context.close()
