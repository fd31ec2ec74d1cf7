"""The bench and the swatch photo in Chromium: every measurement by its simulated instrument and by typing."""

from __future__ import annotations

import io
import re

import numpy as np
import pytest
from conftest import Site, open_page
from PIL import Image
from playwright.sync_api import Browser, Page, expect
from test_pages import faults
from wrong_pictures import WRONG

from nematex.devices.camera import CLEAN, USUAL, photograph, photograph_disc
from nematex.devices.made_swatch import printed
from nematex.store.cloth.readings import photo, readings_of
from nematex.usecases.cloth.bench.measures import MEASURES

TYPED = {
    ("weight", "square"): {"Mass on the scale, 1": "0.82", "Mass on the scale, 2": "0.84"},
    ("ramp", "ramp"): {"Strip cut along, face up, 1": "4.1", "Strip cut across, face up, 1": "3.7"},
    ("disc", "area"): {"Area of the shadow with the stand, 1": "480"},
    ("stretch", "gauge"): {"Pulled across, until it resists, 1": "10.4"},
    ("thickness", "stack"): {"Height of the stack, 1": "2"},
    ("width", "tape"): {"Edge to edge, 1": "140", "Between the selvedges, 1": "137"},
    ("shrink", "wash"): {"Along, after wash and drying": "48.6"},
}
# What is felt, seen or told by the mill has no instrument.
BY_HAND = {
    ("weight", "ounces"), ("weight", "bolt"), ("disc", "area"), ("hand", "hand"), ("sheer", "card"), ("thickness", "stack"),
    ("sewing", "eye"), ("fastness", "white"),
}  # fmt: skip
CHOSEN = {"hand": ["soft"], "sewing": ["freely", "deeply", "well"], "sheer": ["semi-sheer"]}


def _kept(site: Site, cloth: int) -> list[tuple[str, str, str]]:
    with site.shop.database.work() as work:
        return [(each.property, each.known, each.instrument) for each in readings_of(work, cloth)]


@pytest.mark.long
def test_every_measurement_by_typing(page: Page, site: Site) -> None:
    cloth = site.cloth("GM-102")
    for (name, method), boxes in TYPED.items():
        page.goto(f"/bench/{cloth}/{name}?method={method}")
        for label, text in boxes.items():
            page.get_by_label(label).fill(text)
        page.get_by_label("By", exact=True).fill("buyer")
        page.get_by_role("button", name="What does it come to?").click()
        expect(page.get_by_role("heading", name="It comes to")).to_be_visible()
        expect(page.get_by_role("columnheader", name="before")).to_be_visible()
        page.get_by_role("button", name=re.compile("^Keep it")).click()
        expect(page.get_by_role("status")).to_contain_text("Kept")
    for name, words in CHOSEN.items():
        page.goto(f"/bench/{cloth}/{name}?method={'card' if name == 'sheer' else MEASURES[name].methods[0].name}")
        for word in words:
            page.get_by_role("radio", name=word).last.check()
        page.get_by_role("button", name="What does it come to?").click()
        page.get_by_role("button", name=re.compile("^Keep it")).click()
        expect(page.get_by_role("status")).to_contain_text("Kept")
    page.goto(f"/bench/{cloth}/fastness")
    expect(page.locator(".set-up")).not_to_contain_text("ten rubs")
    page.get_by_label("Grade of the rag, 1 stained to 5 clean, 1").fill("4.5")
    page.get_by_role("button", name="What does it come to?").click()
    expect(page.locator("main")).to_contain_text("none of these decides a pairing")
    page.get_by_role("button", name=re.compile("^Keep it")).click()
    got = {name for name, _, _ in _kept(site, cloth)}
    every = {name for measure in MEASURES.values() for name in measure.properties}
    assert every - got <= {"recovery_pct", "stretch_length_pct", "shrink_width_pct"}  # their boxes were left empty
    page.goto(f"/shelf/{cloth}")
    row = page.locator("tr", has_text="83 g/m²")
    for words in ("measured, counts", "A cut square on a scale", "buyer"):
        expect(row).to_contain_text(words)
    expect(page.locator("tr.past", has_text="80 g/m²")).to_contain_text("stated")


def test_every_measurement_by_the_simulated_instrument(page: Page, site: Site) -> None:
    cloth = site.cloth("LF-302")
    for measure in MEASURES.values():
        for method in measure.methods:
            page.goto(f"/bench/{cloth}/{measure.name}?method={method.name}")
            summary = page.get_by_text("Take it with the simulated one")
            if not summary.count():
                assert (measure.name, method.name) in BY_HAND
                continue
            summary.click()
            page.get_by_role("button", name="Take it").click()
            expect(page.get_by_role("heading", name="It comes to")).to_be_visible()
            page.get_by_role("button", name=re.compile("^Keep it")).click()
            expect(page.get_by_role("status")).to_contain_text("Kept")
    kept = {name for name, known, _ in _kept(site, cloth) if known == "simulated"}
    wanted = {"weight_gsm", "bending_length_cm", "drape_coefficient_pct", "stretch_cross_pct", "sheer", "width_cm"}
    assert wanted <= kept


def test_a_faulty_instrument_is_said_before_anything_is_kept(page: Page, site: Site) -> None:
    cloth = site.cloth("GM-101")
    before = _kept(site, cloth)
    page.goto(f"/bench/{cloth}/width")
    page.get_by_text("Take it with the simulated one").click()
    page.get_by_label("Fault").select_option("wrong unit")
    page.get_by_role("button", name="Take it").click()
    expect(page.locator("div.caution").first).to_contain_text("inches instead of cm")
    expect(page.get_by_role("button", name="Keep it all the same")).to_be_visible()
    page.goto(f"/bench/{cloth}/weight")
    page.get_by_label("Mass on the scale, 1").fill("heavy")
    page.get_by_label("Mass on the scale, 2").fill("0.83")
    page.get_by_role("button", name="What does it come to?").click()
    expect(page.get_by_role("alert")).to_contain_text("Mass on the scale, 1: “heavy” is not a number")
    expect(page.get_by_label("Mass on the scale, 2")).to_have_value("0.83")
    assert _kept(site, cloth) == before
    site.complaints.clear()  # the browser notes a refusal as an error


def test_a_measurement_says_which_pairings_move(page: Page, site: Site) -> None:
    page.goto(f"/bench/{site.cloth('LF-302')}/ramp")
    page.get_by_label("Strip cut along, face up, 1").fill("2.6")
    page.get_by_label("Strip cut across, face up, 1").fill("2.4")
    page.get_by_role("button", name="What does it come to?").click()
    expect(page.locator("#outcome")).to_contain_text("bending length 1.25 cm measured")
    expect(page.locator("#outcome li", has_text="→").first).to_contain_text("with care")


def _jpeg_of_disc(path_px: float) -> bytes:
    return photograph_disc(42, 7, path_px, USUAL, np.random.default_rng(4)).content


def test_a_photo_of_the_disc_is_sent_and_kept(page: Page, site: Site) -> None:
    cloth = site.cloth("GM-103")
    page.goto(f"/bench/{cloth}/disc")
    content = _jpeg_of_disc(20)
    page.get_by_label("Photo of the draped disc").set_input_files(
        {"name": "disc.jpg", "mimeType": "image/jpeg", "buffer": content}
    )
    page.get_by_role("button", name="What does it come to?").click()
    expect(page.get_by_role("alert")).to_contain_text("give px per cm, or how many cm the picture shows")
    page.get_by_label("Photo of the draped disc").set_input_files(
        {"name": "disc.jpg", "mimeType": "image/jpeg", "buffer": content}
    )
    width = Image.open(io.BytesIO(content)).width
    page.get_by_label("or: the picture shows, left to right in cm").fill(f"{width / 20:g}")
    page.get_by_role("button", name="What does it come to?").click()
    expect(page.locator("#outcome")).to_contain_text("7 folds")
    said = re.search(r"drape coefficient ([\d.]+)", page.locator("#outcome").inner_text())
    assert said
    assert float(said[1]) == pytest.approx(42, abs=1.5)
    expect(page.get_by_alt_text("The photo of the draped disc as it is kept")).to_be_visible()
    # A scale that is changed afterwards does not pass for the one it was read with.
    page.get_by_label("or: the picture shows, left to right in cm").fill("99")
    page.get_by_role("button", name="Keep it").click()
    expect(page.get_by_role("alert")).to_contain_text("choose the photo again")
    page.get_by_label("or: the picture shows, left to right in cm").fill(f"{width / 20:g}")
    page.get_by_role("button", name="What does it come to?").click()
    page.get_by_role("button", name="Keep it").click()
    assert ("drape_coefficient_pct", "measured", "A photo of its shadow from above") in _kept(site, cloth)
    site.complaints.clear()


def _send(page: Page, content: bytes, name: str, scale: str = "24") -> None:
    page.get_by_label("Photo", exact=True).set_input_files({"name": name, "mimeType": "image/jpeg", "buffer": content})
    page.get_by_label("or px per cm").fill(scale)
    page.get_by_role("button", name="Read it").click()


def test_a_swatch_photo_is_read_corrected_and_put_in_force(page: Page, site: Site) -> None:
    colours = ((244, 238, 222), (178, 58, 48), (44, 74, 96))
    cloth = printed("one-way", colours, ("tree", "boat"), 6, 5, 1.6, 3)
    content = photograph(cloth, 16, 16, 24, CLEAN, np.random.default_rng(2)).content
    number = site.cloth("GM-106")
    page.goto(f"/photo/{number}")
    _send(page, content, "swatch.jpg")
    expect(page.get_by_role("heading", name="What the photo tells")).to_be_visible()
    expect(page.get_by_label("Kind of print")).to_have_value("motif")
    expect(page.get_by_label("Direction")).to_have_value("one-way")
    assert float(page.get_by_label("Repeat along").input_value()) == pytest.approx(6, rel=0.02)
    assert float(page.get_by_label("Repeat across").input_value()) == pytest.approx(5, rel=0.02)
    # The user knows better in one thing, does not know another, and drops a colour.
    page.get_by_label("Direction").select_option("two-way")
    page.get_by_label("Motif, or the bands' repeat").fill("")
    page.get_by_role("checkbox").last.uncheck()
    page.get_by_label("It shows").select_option("the cloth as such")
    page.get_by_role("button", name="Let it stand").click()
    expect(page.get_by_alt_text("Photo of Slate Roof poplin")).to_be_visible()
    record = next(each for each in site.shop.now().shelf.records if each.id == number)
    assert (record.print_kind, record.facts.print.direction, record.facts.print.scale_cm) == ("motif", "two-way", None)
    assert len(record.colours) == 2
    known = {name: how for name, how, instrument in _kept(site, number) if instrument == "swatch photo"}
    assert known["print_direction"] == "measured"  # somebody has seen it
    assert "print_scale_cm" not in known
    with site.shop.database.work() as work:
        kept = photo(work, record.photo_id or 0)
    assert kept is not None
    assert not Image.open(io.BytesIO(kept.content)).getexif()


def test_a_photo_may_belong_to_one_colourway(page: Page, site: Site) -> None:
    number = site.cloth("GM-114")
    page.goto(f"/photo/{number}")
    page.get_by_role("button", name="Take one with the simulated camera").click()
    page.get_by_label("It shows").select_option("sand")
    page.get_by_role("button", name="Let it stand").click()
    record = next(each for each in site.shop.now().shelf.records if each.id == number)
    ways = {each.name: each.photo_id for each in record.colourways}
    assert ways["sand"]
    assert ways["sea"] is None


def test_the_demo_s_photos_are_read_when_they_are_looked_at(page: Page, site: Site) -> None:
    number = site.cloth("GM-101")
    page.goto(f"/photo/{number}")
    page.get_by_role("link", name=re.compile("Photo .*shown with the cloth")).click()
    expect(page.get_by_label("Kind of print")).to_have_value("motif")


def test_wrong_uploads_are_refused_in_words_and_nothing_typed_is_lost(page: Page, site: Site) -> None:
    number = site.cloth("GM-106")
    page.goto(f"/photo/{number}")
    for words, content in WRONG.items():
        if content:
            _send(page, content, "photo.jpg", "31")
            expect(page.get_by_role("alert")).to_contain_text(words)
            expect(page.get_by_label("or px per cm")).to_have_value("31")
    page.goto(f"/photo/{number}")
    page.get_by_role("button", name="Read it").click()
    expect(page.get_by_role("alert")).to_contain_text("choose a JPEG, PNG or WebP photo")
    site.complaints.clear()  # the browser notes each 400 as an error


@pytest.mark.long
def test_a_large_photo_is_read_and_kept_small(page: Page, site: Site) -> None:
    out = io.BytesIO()
    grain = np.random.default_rng(1).integers(60, 120, (2300, 2300, 3), dtype=np.uint8)
    Image.fromarray(grain).save(out, "PNG")
    assert out.tell() > 9 * 2**20  # more than a price list may have
    number = site.cloth("GM-106")
    page.goto(f"/photo/{number}")
    _send(page, out.getvalue(), "large.png", "100")
    expect(page.get_by_label("Kind of print")).to_have_value("solid")
    with site.shop.database.work() as work:
        kept = photo(work, int(page.url.rsplit("/", 1)[1]))
    assert kept is not None
    assert Image.open(io.BytesIO(kept.content)).size == (1600, 1600)
    assert kept.px_per_cm == pytest.approx(100 * 1600 / 2300)


def test_the_bench_is_accessible_and_fits_a_phone(browser: Browser, site: Site, axe: str) -> None:
    cloth = site.cloth("GM-114")
    page = open_page(browser, site, width=390)
    addresses = ["/bench", "/bench?q=lawn", "/quality", "/quality?kind=contradictory", f"/bench/{cloth}", f"/photo/{cloth}"]
    addresses += [f"/bench/{cloth}/{m.name}?method={one.name}" for m in MEASURES.values() for one in m.methods]
    addresses += [f"/shelf/compare?cloth={cloth}&cloth={site.cloth('OW-401')}", f"/shelf/together?cloth={cloth}"]
    for address in addresses:
        reply = page.goto(address)
        assert reply is not None
        assert reply.status == 200, address
        assert page.evaluate("document.documentElement.scrollWidth") <= 390, address
        assert faults(page, axe) == [], address
    page.get_by_role("link", name="Bench", exact=True).click()
    page.goto(f"/photo/{cloth}")
    page.get_by_role("button", name="Take one with the simulated camera").click()
    page.wait_for_url("**/photo/*/*")
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    assert faults(page, axe) == []
    page.goto(f"/bench/{cloth}/weight")
    page.get_by_text("Take it with the simulated one").click()
    page.get_by_role("button", name="Take it").click()
    assert faults(page, axe) == []
    page.context.close()
    assert site.complaints == []


def test_what_is_next_to_measure_stands_first(page: Page, site: Site) -> None:
    page.goto(f"/bench/{site.cloth('XX-901')}")
    rows = page.locator(".bench-list [data-row]")
    asked = [int(found[1]) if (found := re.search(r"measure for (\d+)", text)) else 0 for text in rows.all_inner_texts()]
    assert asked[0] > 0
    assert asked == sorted(asked, reverse=True)
