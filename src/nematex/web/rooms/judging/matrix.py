"""Patterns against cloths as a grid, the best of each, and who is left out."""

from __future__ import annotations

from flask import Blueprint, Response, jsonify, render_template, request, url_for

from nematex.usecases.judging.matrix_view import (
    BLOCK,
    Asked,
    best_csv,
    best_for_cloths,
    best_for_patterns,
    grid,
    grid_csv,
    left_out,
    left_out_csv,
)
from nematex.usecases.judging.ranking import read_wish
from nematex.usecases.judging.whole_matrix import how_far, pairings, ready
from nematex.web.rooms.common import download, inside, now, shop, whole_number
from nematex.web.rooms.made import PAIRINGS, by_worker

room = Blueprint("matrix", __name__, url_prefix="/matrix")
VIEWS = {
    "grid": "the grid",
    "patterns": "best cloths of each pattern",
    "cloths": "best patterns of each cloth",
    "left": "left out",
}


def _asked() -> Asked:
    wish = read_wish(request.args)
    return Asked(
        patterns=tuple(request.args.getlist("pattern", type=int)),
        cloths=tuple(request.args.getlist("cloth", type=int)),
        pattern_words=request.args.get("p", "")[:200],
        cloth_words=request.args.get("q", "")[:200],
        in_stock="in_stock" in request.args,
        look=wish.look,
        school=wish.school,
        pattern_page=max(1, whole_number("pp")),
        cloth_page=max(1, whole_number("cp")),
    )


@room.get("")
def page() -> str:
    view = request.args.get("view", "grid")
    if view in VIEWS and view != "grid" and not ready(shop(), now()):
        return render_template("judging/matrix/progress.html", pairings=pairings(now()), then=request.full_path)
    number = max(1, whole_number("page"))
    if view == "patterns":
        rows, total = best_for_patterns(shop(), now(), number)
        return render_template(
            "judging/matrix/best.html", views=VIEWS, view=view, rows=rows, total=total, page=number, block=BLOCK
        )
    if view == "cloths":
        rows, total = best_for_cloths(shop(), now(), number)
        return render_template(
            "judging/matrix/best.html", views=VIEWS, view=view, rows=rows, total=total, page=number, block=BLOCK
        )
    if view == "left":
        cloths, patterns = left_out(shop(), now())
        return render_template("judging/matrix/left.html", views=VIEWS, view=view, cloths=cloths, patterns=patterns)
    asked = _asked()
    return render_template(
        "judging/matrix/grid.html", views=VIEWS, view="grid", grid=grid(shop(), now(), asked), asked=asked, block=BLOCK
    )


@room.get("/state")
def state() -> Response:
    """How far the whole matrix is, and where to go when it is there."""
    there = inside(request.args.get("then", ""), url_for("matrix.page"))
    if ready(shop(), now()):
        return jsonify(done=0, total=0, next=there)
    done, total = how_far(shop(), now())
    return jsonify(done=done, total=total, next=None)


@room.get("/export.csv")
@by_worker(PAIRINGS)
def export() -> Response:
    """The grid as it is asked for, or one of the lists."""
    view = request.args.get("view", "grid")
    if view == "left":
        text = left_out_csv(shop(), now())
    elif view in ("patterns", "cloths"):
        text = best_csv(shop(), now(), view == "cloths")
    else:
        text = grid_csv(shop(), now(), _asked())
    return download(text, "pairings.csv", "text/csv; charset=utf-8")
