"""The whole way, driven in Chromium: a messy price list in, paired both ways, picked, ordered, and the notes copied."""

from __future__ import annotations

import re
from pathlib import Path

import pytest
from conftest import Site, open_page
from messy import MESSY_LIST
from playwright.sync_api import Browser, Page, expect


def type_pattern(page: Page) -> None:
    page.goto("/patterns/new")
    page.get_by_label("Code").fill("LN-1")
    page.get_by_label("Name").fill("Linnet smock")
    page.get_by_label("Garment").fill("dress")
    page.get_by_label("Recommended cloths").fill(
        "Light to medium weight wovens such as linen cotton, chambray, lawn or viscose"
    )
    page.get_by_label("Details").fill("gathers")
    page.get_by_label("Cloth required").fill("A; 8 10 12; 150 cm; 2.2 m")
    page.get_by_role("button", name="Save").click()


def test_from_an_empty_shop_to_copied_notes(browser: Browser, empty_site: Site, tmp_path: Path) -> None:
    page = open_page(browser, empty_site)
    page.context.grant_permissions(["clipboard-read", "clipboard-write"])
    page.goto("/")
    expect(page.get_by_role("heading", name="An empty shelf.")).to_be_visible()

    # The price list: preview, faults by row and column, bad rows to download, a column corrected, applied.
    page.get_by_role("link", name="Import a price list").click()
    (tmp_path / "autumn.csv").write_bytes(MESSY_LIST.encode("cp1252"))
    page.get_by_label("File").set_input_files(tmp_path / "autumn.csv")
    page.get_by_role("button", name="Look at it").click()
    expect(page.get_by_text("7 new, 0 changed, 0 the same as on the shelf, 2 with faults.")).to_be_visible()
    expect(page.get_by_role("row", name=re.compile("7 Breite.*two different things"))).to_be_visible()
    with page.expect_download() as download:
        page.get_by_role("link", name=re.compile("bad rows")).click()
    assert "reason" in download.value.path().read_text(encoding="utf-8")
    page.get_by_label("Meaning of In stock").select_option("leave out")
    page.get_by_role("button", name="Read it with these columns").click()
    expect(page.get_by_label("Meaning of In stock")).to_have_value("")
    page.get_by_role("button", name="Put 7 on the shelf").click()
    expect(page.get_by_text("7 new, 0 changed")).to_be_visible()

    # A pattern typed from its envelope, and how it was read.
    type_pattern(page)
    expect(page.get_by_text("60 to 220 g/m²")).to_be_visible()

    # Pattern → cloths; the school and the look change what is shown.
    page.get_by_role("link", name="What goes with it").click()
    first = page.locator("article").first
    expect(first).to_contain_text("suits")
    page.get_by_role("link", name="by the list").click()
    expect(page.locator("article", has_text="Puddle light denim")).not_to_contain_text("suits", use_inner_text=True)
    page.get_by_role("link", name="flowing").click()
    expect(page).to_have_url(re.compile("school=list.*look=flowing|look=flowing.*school=list"))
    expect(page.locator("article").first.get_by_role("link").first).to_have_text("Dusk moth challis")
    page.get_by_role("link", name="structured").click()
    expect(page.locator("article").first.get_by_role("link").first).not_to_have_text("Dusk moth challis")

    # A programme, then picks from both directions.
    page.goto("/programmes")
    page.get_by_label("Name").fill("Mothlight")
    page.get_by_label("Shown on").fill("2027-03-01")
    page.get_by_role("button", name="Save").click()
    page.goto(f"/pairing/pattern/{empty_site.pattern('LN-1')}")
    page.locator("article", has_text="Gorse path").get_by_role("button", name="add").click()
    expect(page.locator("article")).to_have_count(1)
    page.goto(f"/pairing/cloth/{empty_site.cloth('WB-03')}?look=flowing")
    page.get_by_role("link", name="Linnet smock").click()
    expect(page.get_by_text("receipt", exact=True)).to_be_visible()
    page.get_by_label("Your own line").fill("Moves like a *moth*.")
    page.get_by_role("button", name="Add", exact=True).click()
    expect(page.locator("article")).to_have_count(2)

    # The second to the front; the line is kept.
    page.get_by_role("button", name="Move pick 2 up").click()
    expect(page.locator("article").first).to_contain_text("Dusk moth challis for Linnet smock")
    page.get_by_label("Your own line for pick 2").fill("The sensible one.")
    page.locator("article").nth(1).get_by_role("button", name="Keep").click()
    expect(page.get_by_label("Your own line for pick 2")).to_have_value("The sensible one.")

    # The notes, in the order shown, both unit systems, cautions, places for links; copied.
    page.get_by_role("link", name="Notes", exact=True).click()
    page.get_by_role("button", name="Copy").click()
    expect(page.get_by_role("status")).to_have_text("Copied.")
    notes = page.evaluate("navigator.clipboard.readText()")
    assert notes.index("1. Dusk moth challis") < notes.index("2. Gorse path linen cotton")
    assert "119 g/m² (3.5 oz/yd²)" in notes
    assert "viscose (rayon)" in notes
    assert "LINK" not in notes
    assert r"\*moth\*" in notes
    assert "viscose from bamboo" not in notes  # that is for the presenter to say rightly
    assert notes.count("It shrinks: wash and dry") == 1  # once, whatever it is said of
    page.get_by_role("button", name="Plain text").click()
    page.get_by_role("button", name="Copy").click()
    assert "“Moves like a *moth*.”" in page.evaluate("navigator.clipboard.readText()")
    with page.expect_download() as download:
        page.get_by_role("link", name="HTML").click()
    html = download.value.path().read_text(encoding="utf-8")
    assert "<p>Moves like a *moth*.</p>" in html
    page.context.close()
    assert empty_site.complaints == []
    assert empty_site.strangers == []


def test_on_a_phone_the_answers_come_first(browser: Browser, site: Site) -> None:
    page = open_page(browser, site, width=390)
    page.goto(f"/pairing/pattern/{site.pattern('TP-21')}")
    expect(page.get_by_text("Lightweight wovens with drape")).to_be_hidden()
    page.get_by_text("What the envelope says").click()
    expect(page.get_by_text("Lightweight wovens with drape")).to_be_visible()
    page.context.close()
    assert site.complaints == []


def test_units_and_words_follow_the_setting(page: Page, site: Site) -> None:
    page.goto(f"/shelf/{site.cloth('LF-301')}")
    expect(page.get_by_text("100 % viscose (rayon)")).to_be_visible()
    page.get_by_role("button", name="rayon").click()
    expect(page.get_by_text("100 % rayon (viscose)")).to_be_visible()
    page.get_by_role("button", name="in, oz").click()
    expect(page.get_by_text("3.5 oz/yd² (120 g/m²)")).to_be_visible()


@pytest.mark.parametrize(
    ("name", "content", "message"),
    [
        ("empty.csv", b"", "is empty"),
        ("sheet.xlsx", b"PK\x03\x04" + b"\0" * 400, "is a damaged spreadsheet"),
        ("page.csv", b"<html><body>prices</body></html>", "is a web page"),
        ("picture.csv", b"\x89PNG\r\n\x1a\n" + b"\0" * 100, "is not text"),
        ("huge.csv", b"code,name\n" + b"A1,blue lawn\n" * 1_600_000, "8 MB"),
    ],
)
def test_wrong_files_get_a_clear_message(
    browser: Browser, site: Site, tmp_path: Path, name: str, content: bytes, message: str
) -> None:
    page = open_page(browser, site)
    before = site.shop.now().shelf.version
    page.goto("/import")
    (tmp_path / name).write_bytes(content)
    page.get_by_label("Supplier").fill("Gannet Mill")
    page.get_by_label("File").set_input_files(tmp_path / name)
    page.get_by_role("button", name="Look at it").click()
    expect(page.get_by_role("alert")).to_contain_text(message)
    if len(content) < 8_000_000:
        expect(page.get_by_label("Supplier")).to_have_value("Gannet Mill")
    assert site.shop.now().shelf.version == before
    page.context.close()
    assert site.strangers == []


def test_a_fault_in_a_form_loses_nothing(page: Page, site: Site) -> None:
    page.goto("/shelf/new")
    page.get_by_label("Article code").fill("NEW-1")
    page.get_by_label("Name", exact=True).fill("Chalk lawn")
    page.get_by_label("Weight").fill("like a feather")
    page.get_by_label("Fibre content").fill("100% cotton")
    page.get_by_role("button", name="Save").click()
    expect(page.get_by_role("alert")).to_contain_text("weight: “like a feather” is not a weight")
    expect(page.get_by_label("Fibre content")).to_have_value("100% cotton")
    page.get_by_label("Weight").fill("2.4 oz")
    page.get_by_role("button", name="Save").click()
    expect(page.get_by_text("81 g/m² (2.4 oz/yd²)")).to_be_visible()
    site.complaints.clear()  # the browser notes the 400 of the refused form


def test_a_measurement_changes_the_verdict(page: Page, site: Site) -> None:
    cloth, pattern = site.cloth("XX-901"), site.pattern("TP-23")
    page.goto(f"/pairing/one/{pattern}/{cloth}")
    drape = page.locator(".check", has=page.get_by_role("heading", name="Drape"))
    expect(drape).to_contain_text("typical for its name")
    expect(page.get_by_text("Worth measuring")).to_be_visible()
    expect(page.get_by_role("link", name="Measure it")).to_have_attribute("href", re.compile(r"/bench/\d+/"))
    page.get_by_role("link", name="enter it").click()
    page.get_by_label("Bending length", exact=True).fill("2.2")
    page.get_by_label("Weight").fill("175 g/m²")
    page.get_by_role("button", name="Save").click()
    page.goto(f"/pairing/one/{pattern}/{cloth}")
    expect(drape).to_contain_text("suits")
    expect(drape).to_contain_text("2.2 cm (measured)")


def test_patterns_and_programmes_can_be_edited_and_removed(page: Page, site: Site) -> None:
    page.goto(f"/patterns/{site.pattern('TP-25')}/edit")
    page.get_by_label("Recommended cloths").fill("Linen only")
    page.get_by_label("Cloth required").fill("A; 8; wide; 1 m")
    page.get_by_role("button", name="Save").click()
    expect(page.get_by_role("alert")).to_contain_text("Requirement table, line 1")
    expect(page.get_by_label("Recommended cloths")).to_have_value("Linen only")
    page.get_by_label("Cloth required").fill('A; 8 10; 60"; 1 1/2 yd')
    page.get_by_role("button", name="Save").click()
    expect(page.locator("table.amounts").get_by_role("cell", name="1.37 m").first).to_be_visible()
    page.get_by_role("button", name="Remove").click()
    page.get_by_role("button", name="Really remove?").click()
    expect(page.get_by_role("status")).to_contain_text("Dipper shorts is in the bin")
    expect(page.get_by_role("main").get_by_text("Dipper shorts")).to_have_count(1)  # only what is said of it
    page.goto("/programmes/1")
    page.get_by_role("button", name="take out").first.click()
    expect(page.locator("article")).to_have_count(4)
    site.complaints.clear()
