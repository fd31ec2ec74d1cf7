"""Sheets to print true to size: for measuring, for comparing, and labels for the shelf."""

from __future__ import annotations

import math
import re

import segno
from flask import Blueprint, Response, abort, render_template, request, url_for

from nematex.core.cloth.print_scale import scale_words
from nematex.core.errors import FieldFault
from nematex.web.rooms.common import now, numbers
from nematex.web.rooms.made import SHEET, by_worker
from nematex.web.rooms.paper import as_pdf, paper_asked
from nematex.web.rooms.shown_at import shown_at

room = Blueprint("aids", __name__, url_prefix="/print")
AIDS = {
    "weight-square": "Weight square, 10 × 10 cm",
    "ramp": "Ramp of 41.5° with its strip ruler",
    "stretch-gauge": "Stretch gauge",
    "show-through": "Show-through card, black and white cards",
    "motif-scale": "Motif scale card",
    "hand-card": "Reference card of handle, true to size",
}
LABELS_A_PAGE, MOST_LABELS = 10, 400
QR_MM = 24.0


@room.get("/<name>.pdf")
@by_worker(SHEET)
def sheet(name: str) -> Response:
    if name not in AIDS:
        abort(404)
    hands = {hand.word: hand for hand in now().tables.cloth_hands.values()}.values()
    scales = scale_words(now().tables)
    slope = math.tan(math.radians(41.5))
    html = render_template(
        f"cloth/aids/{name}.html", paper=paper_asked(), title=AIDS[name], hands=hands, scales=scales, slope=slope
    )
    return as_pdf(html, name)


def _qr_path(address: str) -> tuple[str, int]:
    """The dark modules of a QR code as strokes one unit, a module, wide, and the code's size in modules."""
    rows = [bytes(row) for row in segno.make(address, error="m").matrix_iter(border=4)]
    dark = [f"M{run.start()} {y}.5h{len(run[0])}" for y, row in enumerate(rows) for run in re.finditer(b"\x01+", row)]
    return "".join(dark), len(rows)


@room.get("/labels.pdf")
@by_worker(SHEET)
def labels() -> Response:
    """Shelf labels for the cloths asked for, each with a QR code to its page."""
    chosen = [cloth for number in numbers(request.args.getlist("cloth")) if (cloth := now().cloth(number))]
    if len(chosen) > MOST_LABELS:
        raise FieldFault("cloth", len(chosen), f"are too many labels at once; at most {MOST_LABELS}")
    if not chosen:
        raise FieldFault("cloth", "", "is missing; choose the cloths that want a label")
    rows = [(record, cloth, *_qr_path(shown_at(url_for("shelf.cloth", cloth_id=record.id)))) for record, cloth in chosen]
    sheets = [rows[at : at + LABELS_A_PAGE] for at in range(0, len(rows), LABELS_A_PAGE)]
    shown = {"paper": paper_asked(), "title": "Shelf labels", "sheets": sheets, "qr_mm": QR_MM}
    return as_pdf(render_template("cloth/aids/labels.html", **shown), "labels")
