"""How cloths hang: a page of its own, and the drawing alone for when something on the page is changed."""

from __future__ import annotations

from typing import Any

from flask import Blueprint, render_template, request

from nematex.core.errors import FieldFault
from nematex.core.hang.silhouettes import SILHOUETTES
from nematex.usecases.cloth.browse import offered_cloths
from nematex.usecases.hang.view import hang_view
from nematex.web.drawing.silhouette import cowl_paths, disc_path, draw
from nematex.web.rooms.common import find_pattern, now

room = Blueprint("hang", __name__, url_prefix="/hang")


def _found() -> dict[str, Any]:
    pattern_id = request.args.get("pattern", type=int)
    pattern = find_pattern(pattern_id) if pattern_id else None
    shelf, drawer = now().shelf, now().drawer
    ids = request.args.getlist("cloth", type=int)
    tools = {"draw": draw, "disc_path": disc_path, "cowl_paths": cowl_paths}
    try:
        return {"view": hang_view(shelf, drawer, ids, pattern, request.args), "fault": None, **tools}
    except FieldFault as fault:
        return {"view": None, "fault": fault, **tools}


@room.get("")
def page() -> str:
    found = _found()
    if found["view"] is None and found["fault"].field == "garment":
        raise found["fault"]
    chosen = request.args.getlist("cloth", type=int)
    offered = offered_cloths(now().shelf, request.args.get("find", "")[:200], chosen)
    return render_template(
        "hang/page.html", **found, kinds=SILHOUETTES.values(), offered=offered, asked=request.args, chosen=chosen
    )


@room.get("/drawing")
def drawing() -> tuple[str, int]:
    found = _found()
    return render_template("hang/drawing.html", **found), 200 if found["view"] else 400
