"""The look-book: a programme as a PDF with its wall, then each garment with its cloth, price and notes."""

from __future__ import annotations

from flask import render_template

from nematex.usecases.programme.acts import programme
from nematex.usecases.programme.notes import entries
from nematex.web.drawing.wall import wall
from nematex.web.pdf import fonts_by_name
from nematex.web.rooms.common import now, shop
from nematex.web.rooms.paper import PAPERS
from nematex.web.rooms.programme.hung import GROUNDS, cloths_of, garments, places

MM_TO_PX = 96 / 25.4
MARGIN_MM = 14.0


def book_html(programme_id: int, paper_name: str) -> str | None:
    """The pages of the book; None where the programme is gone."""
    shown = programme(shop(), programme_id)
    if shown is None:
        return None
    paper = PAPERS[paper_name]
    hung = garments(shown, as_data=True)
    size = (paper.width - 2 * MARGIN_MM) * MM_TO_PX, (paper.height - 2 * MARGIN_MM) * MM_TO_PX
    drawn = wall(hung, shown.name, *size)
    return render_template(
        "programme/wall/book.html", programme=shown, w=drawn, c=GROUNDS["light"], cloths=cloths_of(drawn), paper=paper,
        pages=list(zip(hung, places(entries(shop(), now(), shown, for_notes=True)), strict=True)), fonts=fonts_by_name(),
        margin=MARGIN_MM,
    )  # fmt: skip
