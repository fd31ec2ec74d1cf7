"""The bin: what was taken away, to be put back or let go for good."""

from __future__ import annotations

from typing import Any

from flask import Blueprint, redirect, render_template, request, url_for
from werkzeug.wrappers import Response

from nematex.core.paging import page_of
from nematex.usecases.bin import in_the_bin, let_go, put_back
from nematex.web.rooms.common import inside, shop, whole_number

room = Blueprint("bin", __name__, url_prefix="/bin")
PLACES = {
    "cloth": "shelf.cloth",
    "pattern": "patterns.pattern",
    "programme": "programmes.programme",
    "sew-along": "along.one",
    "make": "log.one",
    "kit": "kits.one",
}


@room.get("")
def page() -> str:
    return render_template("bin.html", found=page_of(in_the_bin(shop()), whole_number("page")))


@room.post("/<kind>/<int:row_id>/back")
def back(kind: str, row_id: int) -> Response:
    """Put something back, and go where it is."""
    done = put_back(shop(), kind, row_id)
    number: dict[str, Any] = {f"{kind.replace('-', '_')}_id": row_id}
    there = url_for(PLACES[kind], **number) if done and kind in PLACES else url_for("bin.page")
    return redirect(inside(request.form.get("back", ""), there))


@room.post("/<kind>/<int:row_id>/go")
def go(kind: str, row_id: int) -> Response:
    """Let something go for good."""
    let_go(shop(), kind, row_id)
    return redirect(url_for("bin.page"))
