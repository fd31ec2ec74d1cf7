"""How cloths hang: a page of its own, and the drawing alone for when something on the page is changed."""

from __future__ import annotations

from typing import Any

from flask import Blueprint, render_template, request

from nematex.core.errors import FieldFault
from nematex.core.hang.silhouettes import SILHOUETTES
from nematex.core.pattern.facts import Wish
from nematex.core.quantity.estimate import Known
from nematex.store.records import PatternRecord
from nematex.usecases.cloth.browse import offered_cloths
from nematex.usecases.hang.view import hang_view
from nematex.web.drawing.silhouette import cowl_paths, disc_path, draw
from nematex.web.rooms.common import find_pattern, now

room = Blueprint("hang", __name__, url_prefix="/hang")


def _example(pattern: PatternRecord | None) -> list[int]:
    """What the page opens with: a cloth that falls beside one that stands, felt or measured where there are any."""
    shelf = now().shelf
    wovens = [at for at, cloth in enumerate(shelf.cloths) if cloth.structure == "woven"]
    known = [at for at in wovens if shelf.cloths[at].bending_length.known >= Known.JUDGED]
    places = known or wovens or list(range(len(shelf.cloths)))
    if pattern:
        asked = now().drawer.demand(pattern, Wish())
        window = asked.window(asked.bending_length, asked.structure)
        inside = [at for at in places if window and window.low <= shelf.cloths[at].bending_length.best <= window.high]
        places = inside if len(inside) > 1 else places
    by_drape = sorted(places, key=lambda at: shelf.cloths[at].bending_length.best)
    eighth = len(by_drape) // 8
    ends = dict.fromkeys([by_drape[eighth], by_drape[-1 - eighth]]) if by_drape else {}
    return [shelf.records[at].id for at in ends]


def _found() -> dict[str, Any]:
    pattern_id = request.args.get("pattern", type=int)
    pattern = find_pattern(pattern_id) if pattern_id else None
    shelf, drawer = now().shelf, now().drawer
    ids = request.args.getlist("cloth", type=int) or ([] if "cloth" in request.args else _example(pattern))
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
    chosen = [row.record.id for row in found["view"].rows] if found["view"] else request.args.getlist("cloth", type=int)
    offered = offered_cloths(now().shelf, request.args.get("find", "")[:200], chosen)
    return render_template(
        "hang/page.html", **found, kinds=SILHOUETTES.values(), offered=offered, asked=request.args, chosen=chosen
    )


@room.get("/drawing")
def drawing() -> tuple[str, int]:
    found = _found()
    return render_template("hang/drawing.html", **found), 200 if found["view"] else 400
