"""Planning a programme on the page: its brief, what is proposed, its wall and what is published of it."""

from __future__ import annotations

import io

import pypdfium2
import pytest
from conftest import WIDTHS, Site, open_page
from defusedxml import ElementTree
from PIL import Image
from playwright.sync_api import Browser, Page, expect
from test_pages import faults

from nematex.store.records import Programme


def kept(site: Site, name: str) -> Programme:
    return next(one for one in site.shop.now().programmes if one.name == name)


def begin(page: Page, name: str) -> None:
    page.goto("/programmes")
    page.get_by_label("Name").fill(name)
    page.get_by_role("button", name="Save").click()
    page.wait_for_url("**/programmes/*")


def test_a_set_is_planned_from_an_empty_brief_by_keys_alone(page: Page, site: Site) -> None:
    begin(page, "By keys")
    page.get_by_role("link", name="Brief", exact=True).press("Enter")
    page.wait_for_url("**/brief")
    for label, text in (("Places", "5"), ("Budget per garment", "60"), ("Easy makes, at least", "2"), ("Hip", "90 to 140 cm")):
        page.get_by_label(label, exact=True).focus()
        page.keyboard.type(text)
    page.keyboard.press("Enter")  # the first button of a form: keep it and propose
    page.wait_for_url("**/programmes/*")
    rows = page.locator("article.pick-line")
    expect(rows).to_have_count(5)
    expect(page.locator("details", has_text="What was given up")).to_contain_text("no other set of them can do better by more")
    taken = rows.first.locator("a.name").inner_text()
    page.keyboard.press("j")
    page.keyboard.press("a")
    expect(page.locator("article.pick-line.proposed")).to_have_count(4)
    page.wait_for_load_state()
    page.keyboard.press("j")
    page.keyboard.press("j")
    page.keyboard.press("n")
    expect(rows).to_have_count(4)
    page.wait_for_load_state()
    page.keyboard.press("p")
    expect(rows).to_have_count(5)
    expect(rows.first.locator("a.name")).to_have_text(taken)
    picks = kept(site, "By keys").picks
    assert [pick.proposed for pick in picks] == [False, True, True, True, True]


def test_two_people_write_one_brief(page: Page, browser: Browser, site: Site) -> None:
    page.goto("/programmes/1/brief")
    other = open_page(browser, site)
    other.goto("/programmes/1/brief")
    other.get_by_label("Places", exact=True).fill("7")
    other.get_by_label("Theme").fill("harbour")
    other.get_by_role("button", name="Keep it", exact=True).click()
    other.wait_for_url("**/programmes/1")
    page.get_by_label("Places", exact=True).fill("9")
    page.get_by_label("Season it is worn in").select_option("autumn")
    page.get_by_role("button", name="Keep it", exact=True).click()
    expect(page.locator(".fault").first).to_contain_text("clashes with what somebody else saved")
    expect(page.get_by_label("Season it is worn in")).to_have_value("autumn")
    page.get_by_role("button", name="Keep it", exact=True).click()
    page.wait_for_url("**/programmes/1")
    assert kept(site, "Lantern Walk").brief == {"slots": "9", "season": "autumn", "theme": "harbour"}
    site.complaints.clear()
    other.context.close()


def test_a_wrong_brief_keeps_what_was_typed(page: Page, site: Site) -> None:
    page.goto("/programmes/1/brief")
    page.get_by_label("Places", exact=True).fill("a few")
    page.get_by_label("Theme").fill("wool")
    page.get_by_role("button", name="Keep it and propose a set").click()
    expect(page.locator(".fault").first).to_contain_text("whole number from 0 to 40")
    expect(page.get_by_label("Theme")).to_have_value("wool")
    site.complaints.clear()


def test_the_brief_goes_along_to_the_rankings(page: Page, site: Site) -> None:
    page.goto("/programmes/1/brief")
    page.get_by_label("For", exact=True).select_option("beginners")
    page.get_by_label("Budget per garment").fill("30")
    page.get_by_role("button", name="Keep it", exact=True).click()
    page.get_by_role("link", name="Find another pairing").click()
    expect(page.locator("main")).to_contain_text("Narrowed by the brief of Lantern Walk: for beginners, up to 30 a garment.")
    beginners = [one for one in site.shop.now().drawer.records if one.difficulty in ("easy", "improver")]
    grown = [one for one in beginners if one.facts.wearer == "adult"]
    expect(page.get_by_role("heading", name="Start from a pattern")).to_contain_text(str(len(grown)))
    page.locator("a.card-link", has_text="Avocet shift").click()
    narrowed = int(page.locator("h2").first.inner_text().split()[0])
    page.get_by_role("link", name="Without it").click()
    expect(page.locator("main")).not_to_contain_text("Narrowed by the brief")
    assert int(page.locator("h2").first.inner_text().split()[0]) > narrowed


def order(site: Site) -> list[int]:
    return [pick.id for pick in kept(site, "Lantern Walk").picks]


def test_the_wall_is_put_in_order_by_keys_and_by_hand(page: Page, site: Site) -> None:
    before = order(site)
    page.goto("/programmes/1/wall")
    page.locator('[data-place="0"]').focus()
    page.keyboard.press("ArrowRight")
    page.keyboard.press("Shift+ArrowRight")
    expect(page.get_by_role("status")).to_have_text("Moved to place 3.")
    expect(page.locator(f'[data-pick="{before[1]}"]')).to_be_focused()
    assert order(site) == [before[0], before[2], before[1], *before[3:]]
    first, fourth = (page.locator(f'[data-place="{at}"] .spot').bounding_box() for at in (0, 3))
    assert first
    assert fourth
    page.mouse.move(first["x"] + first["width"] / 2, first["y"] + 80)
    page.mouse.down()
    page.mouse.move(fourth["x"] + fourth["width"] / 2, fourth["y"] + fourth["height"] / 2, steps=6)
    page.mouse.up()
    expect(page.get_by_role("status")).to_have_text("Moved to place 4.")
    assert order(site) == [before[2], before[1], before[3], before[0], before[4]]
    page.keyboard.press("Enter")
    page.wait_for_url(f"**/programmes/1#pick-{before[0]}")


@pytest.mark.parametrize(("size", "px"), [("wide", (1920, 1080)), ("square", (1080, 1080)), ("portrait", (1080, 1350))])
def test_the_wall_is_a_picture_to_post(page: Page, site: Site, size: str, px: tuple[int, int]) -> None:
    for ground, lightness in (("light", 200), ("dark", 60)):
        reply = page.request.get(f"/programmes/1/wall.png?size={size}&ground={ground}")
        picture = Image.open(io.BytesIO(reply.body())).convert("RGB")
        assert picture.size == px
        assert (sum(picture.getpixel((4, 4))) > 3 * lightness) == (ground == "light")  # type: ignore[arg-type]
        colours = picture.getcolors(2**24) or []
        assert len(colours) > 200  # cloths, not a blank
        svg = page.request.get(f"/programmes/1/wall.svg?size={size}&ground={ground}").text()
        said = " ".join(text for node in ElementTree.fromstring(svg).iter() if (text := node.text))
        assert "Drawn from measurements, not a photograph." in said
        assert "Ropewalk heavy flannel" in said


def test_the_look_book_holds_names_prices_and_lines(page: Page) -> None:
    reply = page.request.get("/programmes/1/book?paper=Letter")
    assert reply.headers["content-type"] == "application/pdf"
    with pypdfium2.PdfDocument(reply.body()) as book:
        text = " ".join(sheet.get_textpage().get_text_range() for sheet in book)
        assert [round(side) for side in book[0].get_size()] == [612, 792]  # US Letter in points
    for words in ("Lantern Walk", "Curlew coat", "£44.00/m", "A coat that does not mind the wind off the breakwater."):
        assert words in " ".join(text.split())


# A file let fall on the third garment, as a browser does it.
DROPPED = """bytes => {
  const dropped = new DataTransfer();
  dropped.items.add(new File([new Uint8Array(bytes)], "a.png", { type: "image/png" }));
  const where = document.querySelector('[data-place="2"] .spot');
  where.dispatchEvent(new DragEvent("drop", { bubbles: true, cancelable: true, dataTransfer: dropped }));
}"""


def test_the_shops_own_photo_takes_the_place_of_a_drawing(page: Page, site: Site) -> None:
    content = io.BytesIO()
    Image.new("RGB", (300, 400), "#00aa55").save(content, "PNG")
    page.goto("/programmes/1/wall")
    page.get_by_label("Photo").set_input_files({"name": "a.png", "mimeType": "image/png", "buffer": content.getvalue()})
    page.get_by_role("button", name="Show it").click()
    expect(page.locator('[data-place="0"] image')).to_have_count(1)
    picture = Image.open(io.BytesIO(page.request.get("/programmes/1/wall.png").body())).convert("RGB")
    near = [colour for _, colour in picture.getcolors(2**24) or [] if abs(colour[1] - 170) < 4 and colour[0] < 8]  # type: ignore[index, operator]
    assert near
    page.get_by_label("Of which garment").select_option(index=0)
    page.get_by_role("button", name="the drawing again").click()
    expect(page.locator('[data-place="0"] image')).to_have_count(0)
    page.evaluate(DROPPED, list(content.getvalue()))
    expect(page.locator('[data-place="2"] image')).to_have_count(1)
    page.get_by_label("Of which garment").select_option(index=2)
    page.get_by_role("button", name="the drawing again").click()
    expect(page.locator('[data-place="2"] image')).to_have_count(0)
    expect(page.locator('[data-place="0"] image')).to_have_count(0)
    page.get_by_label("Photo").set_input_files({"name": "a.png", "mimeType": "image/png", "buffer": b"%PDF-1.4"})
    page.get_by_role("button", name="Show it").click()
    expect(page.locator(".fault")).to_contain_text("is a PDF by its content")
    site.complaints.clear()


@pytest.mark.parametrize("width", WIDTHS)
def test_planning_is_accessible_and_fits_a_phone(browser: Browser, site: Site, axe: str, width: int) -> None:
    page = open_page(browser, site, width)
    of_one = [f"/programmes/1{view}" for view in ("", "/brief", "/wall", "/together", "/check")]
    copied = "/copy?shape=midi dress, long sleeve, tiers&fibres=100 % viscose&colour=rust"
    for address in (*of_one, "/history", "/stock", copied, f"/pairing/two/{site.pattern('TP-21')}"):
        page.goto(address)
        assert faults(page, axe) == [], address
        assert page.evaluate("document.documentElement.scrollWidth <= window.innerWidth"), address
    page.context.close()
