"""The sheets to print, rendered to pixels and measured."""

from __future__ import annotations

import math

import numpy as np
import numpy.typing as npt
import pypdfium2
import pytest
import segno
from conftest import Site
from playwright.sync_api import Page

from nematex.web.rooms.cloth.aids import AIDS, QR_MM
from nematex.web.rooms.paper import PAPERS

DPI = 300
MM = DPI / 25.4
SLACK_PX = 2


@pytest.fixture
def printed(page: Page, site: Site):  # type: ignore[no-untyped-def]
    def render(address: str, at: int = 0) -> npt.NDArray[np.uint8]:
        """A page of a PDF in grey at 300 dpi, as a printer at 100 % sets it."""
        reply = page.request.get(site.base + address)
        assert reply.status == 200, address
        document = pypdfium2.PdfDocument(reply.body())
        return np.asarray(document[at].render(scale=DPI / 72, grayscale=True).to_numpy()).squeeze()

    return render


def _longest_run(row: npt.NDArray[np.bool_]) -> tuple[int, int]:
    """Start and length of the longest dark run."""
    edges = np.diff(np.concatenate([[0], row.astype(np.int8), [0]]))
    starts, ends = np.flatnonzero(edges == 1), np.flatnonzero(edges == -1)
    best = int(np.argmax(ends - starts))
    return int(starts[best]), int(ends[best] - starts[best])


@pytest.mark.parametrize("paper", PAPERS)
@pytest.mark.parametrize("name", [*AIDS, "labels"])
def test_the_control_lines_are_ten_centimetres(printed, site: Site, name: str, paper: str) -> None:  # type: ignore[no-untyped-def]
    more = f"&cloth={site.cloth('GM-101')}" if name == "labels" else ""
    sheet = printed(f"/print/{name}.pdf?paper={paper}{more}") < 128
    height, width = PAPERS[paper].height, PAPERS[paper].width
    assert sheet.shape == (pytest.approx(height * MM, abs=2), pytest.approx(width * MM, abs=2))
    start, length = _longest_run(sheet[round((height - 14) * MM)])
    # Dark from outer edge to outer edge of the two end strokes, each 0.2 mm wide about the line's ends.
    assert length == pytest.approx(100.2 * MM, abs=SLACK_PX)
    assert start == pytest.approx(20 * MM, abs=SLACK_PX)
    _, tall = _longest_run(sheet[:, round((width - 10) * MM)])
    assert tall == pytest.approx(100.2 * MM, abs=SLACK_PX)


def test_the_weight_square_is_ten_by_ten(printed) -> None:  # type: ignore[no-untyped-def]
    sheet = printed("/print/weight-square.pdf") < 128
    _, across = _longest_run(sheet[round(48 * MM)])
    _, down = _longest_run(sheet[:, round(40 * MM)])
    assert (across, down) == (pytest.approx(100.3 * MM, abs=SLACK_PX), pytest.approx(100.3 * MM, abs=SLACK_PX))


def test_the_ramp_falls_at_its_angle(printed) -> None:  # type: ignore[no-untyped-def]
    # ASTM D1388 / ISO 9073-7: 41.5° (from memory). The slope's edge is looked for in two columns.
    sheet = printed("/print/ramp.pdf") < 128
    rows = []
    for x in (80, 160):
        column = sheet[round(70 * MM) : round(195 * MM), round(x * MM)]
        rows.append(int(np.flatnonzero(column)[0]) / MM)
    assert math.degrees(math.atan((rows[1] - rows[0]) / 80)) == pytest.approx(41.5, abs=0.1)


def test_the_stretch_gauge_s_half_is_fifteen_centimetres(printed) -> None:  # type: ignore[no-untyped-def]
    # ASTM D2594's arithmetic (from memory): a mark of 10 cm pulled to 15 is 50 %.
    sheet = printed("/print/stretch-gauge.pdf") < 128
    ticks = np.flatnonzero(sheet[round(80.5 * MM), : round(191 * MM)]) / MM
    assert np.abs(ticks - (20 + 150)).min() < 0.2
    assert np.abs(ticks - (20 + 100)).min() < 0.2


def test_the_black_card_is_black_and_the_white_one_white(printed) -> None:  # type: ignore[no-untyped-def]
    black, white = (printed("/print/show-through.pdf", at) for at in (1, 2))
    middle = slice(round(60 * MM), round(150 * MM)), slice(round(30 * MM), round(170 * MM))
    assert black[middle].max() == 0
    assert white[middle].min() == 255


def test_a_label_s_code_is_the_address_of_its_cloth(printed, site: Site) -> None:  # type: ignore[no-untyped-def]
    cloth = site.cloth("LF-301")
    sheet = printed(f"/print/labels.pdf?cloth={cloth}") < 128
    code = segno.make(f"{site.base}/shelf/{cloth}", error="m")
    modules = list(code.matrix_iter(border=4))
    left, top, step = 14 + 87 - QR_MM, 12 + 22, QR_MM / len(modules)
    for row, dark in enumerate(modules):
        for column, on in enumerate(dark):
            y, x = round((top + (row + 0.5) * step) * MM), round((left + (column + 0.5) * step) * MM)
            assert sheet[y, x] == bool(on), (row, column)


def test_a_sheet_that_is_not_there_and_labels_for_nobody(page: Page, site: Site) -> None:
    assert page.request.get(f"{site.base}/print/nothing.pdf").status == 404
    nobody = page.request.get(f"{site.base}/print/labels.pdf")
    assert nobody.status == 400
    assert "choose the cloths that want a label" in nobody.text()
    assert "A4" in page.request.get(f"{site.base}/print/ramp.pdf?paper=foolscap").text()
