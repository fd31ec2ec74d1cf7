"""Laying out in Chromium: ask, look, move by hand, take away, send pieces of one's own."""

from __future__ import annotations

import json
import re
from math import ceil
from pathlib import Path

import numpy as np
import pypdfium2
from conftest import Site
from playwright.sync_api import Page, expect
from test_pages import faults

from nematex.core.amount.lay.pieces import Piece
from nematex.usecases.lay.pieces_file import pieces_svg
from nematex.usecases.lay.text import LayOut

TWO = [Piece("front", ((0, 0), (40, 0), (40, 30), (0, 30)), 2, "pair"), Piece("belt", ((0, 0), (90, 0), (90, 6), (0, 6)))]


def asked(page: Page, site: Site, cloth: str = "GM-102", pattern: str = "TW-12") -> None:
    codes = {record.code: record.id for record in site.shop.now().drawer.records}
    number = codes.get(pattern) or next(iter(codes.values()))
    page.goto(f"/lay/{number}/{site.cloth(cloth)}")


def lay_two(page: Page, site: Site, folder: Path) -> None:
    """Two pieces of one's own, sent as a file and laid."""
    file = folder / "two.svg"
    file.write_text(pieces_svg(TWO))
    asked(page, site)
    page.get_by_text("pieces of your own").click()
    page.get_by_label("SVG or DXF").set_input_files(file)
    page.get_by_label("Take").select_option("5")
    page.get_by_role("button", name="Lay it out").click()


def test_drafted_pieces_are_laid_and_moved_by_hand(page: Page, site: Site) -> None:
    asked(page, site)
    expect(page.get_by_role("heading", name="What is laid")).to_be_visible()
    page.get_by_label("Take").select_option("5")
    page.get_by_label("folded along its length").check()
    page.get_by_role("button", name="Lay it out").click()
    expect(page.locator(".lay-drawing")).to_be_visible()
    expect(page.get_by_text("Drafted pieces: an approximation")).to_be_visible()
    pieces = page.locator(".laid-piece")
    count = pieces.count()
    keep = page.get_by_role("button", name="Keep this lay")
    expect(keep).to_be_disabled()
    pieces.first.focus()
    page.keyboard.press("ArrowUp")  # over the edge or the fold
    said = page.locator(".by-hand [role=status]")
    expect(said).to_contain_text(re.compile("over the edge|overlap|away from the fold"))
    expect(keep).to_be_disabled()
    page.keyboard.press("ArrowDown")
    expect(said).to_contain_text("nothing overlaps")
    last = pieces.nth(count - 1)
    last.focus()
    page.keyboard.press("ArrowRight")
    expect(said).not_to_be_empty()
    with page.expect_download() as download:
        page.get_by_role("link", name="the lay as JSON").click()
    answer = LayOut.model_validate(json.loads(Path(download.value.path()).read_text()))
    assert len(answer.placements) == count


def test_a_lay_moved_by_hand_is_kept_beside_the_first(page: Page, site: Site, tmp_path: Path) -> None:
    lay_two(page, site, tmp_path)
    expect(page.get_by_text("Pieces from two.svg")).to_be_visible()
    before = page.url
    belt = page.locator('.laid-piece[data-piece="belt"]')
    belt.focus()
    for _ in range(120):
        page.keyboard.press("ArrowRight")
    expect(page.locator(".by-hand [role=status]")).to_contain_text("nothing overlaps")
    page.get_by_role("button", name="Keep this lay").click()
    expect(page.locator(".lay-drawing")).to_be_visible()
    assert page.url != before
    page.goto(before)
    expect(page.locator(".lay-drawing")).to_be_visible()  # the first stands as it was


def test_what_cannot_be_laid_is_said_on_the_page(page: Page, site: Site, tmp_path: Path) -> None:
    file = tmp_path / "sail.svg"
    file.write_text(pieces_svg([Piece("sail", ((0, 0), (50, 0), (50, 400), (0, 400)))]))
    asked(page, site)
    page.get_by_text("pieces of your own").click()
    page.get_by_label("SVG or DXF").set_input_files(file)
    page.get_by_role("button", name="Lay it out").click()
    expect(page.get_by_role("alert")).to_contain_text("sail")
    expect(page.get_by_role("alert")).to_contain_text("too wide")
    site.complaints.clear()  # the browser notes the 400 as an error


def test_the_lay_and_its_drawing_are_accessible(page: Page, site: Site, axe: str) -> None:
    asked(page, site)
    page.get_by_label("Take").select_option("5")
    page.get_by_label("folded along its length").check()
    page.get_by_role("button", name="Lay it out").click()
    expect(page.locator(".lay-drawing")).to_be_visible()
    assert faults(page, axe) == []


def test_a_lay_is_printed_in_its_true_size(page: Page, site: Site, tmp_path: Path) -> None:
    lay_two(page, site, tmp_path)
    expect(page.get_by_role("link", name="Letter")).to_be_visible()
    length = float(page.locator(".lay-drawing").get_attribute("data-length") or 0)
    paths = [path.get_attribute("d") or "" for path in page.locator(".laid-piece .outline").all()]
    address = page.get_by_role("link", name="A4").get_attribute("href")
    document = pypdfium2.PdfDocument(page.request.get(f"{site.base}{address}").body())
    width = next(record.facts.width_cm for record in site.shop.now().shelf.records if record.code == "GM-102") or 0
    assert len(document) == 1 + ceil((length - 1) / 18) * ceil((width - 1) / 26)
    # Each sheet begins 10 mm from the paper's edges: an outline lies on it where it lies on the cloth.
    sheet = np.asarray(document[1].render(scale=300 / 72, grayscale=True).to_numpy()).squeeze()
    seen = 0
    for path in paths:
        corners = [(float(x), float(y)) for x, y in re.findall(r"(-?[\d.]+) (-?[\d.]+)", path)]
        for (x0, y0), (x1, y1) in zip(corners, [*corners[1:], corners[0]], strict=True):
            for share in np.linspace(0.02, 0.98, 25):
                x, y = x0 + share * (x1 - x0), y0 + share * (y1 - y0)
                if 0.3 < x < 17 and 0.3 < y < 25:
                    at_x, at_y = (round((10 + 10 * cm) * 300 / 25.4) for cm in (x, y))
                    assert sheet[at_y - 4 : at_y + 5, at_x - 4 : at_x + 5].min() < 128
                    seen += 1
    assert seen > 10
