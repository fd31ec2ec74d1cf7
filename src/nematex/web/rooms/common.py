"""What the rooms share: the shop of this application, and looking up or answering 'not here'."""

from __future__ import annotations

from flask import Response, abort, current_app, request

from nematex.core.cloth import Cloth
from nematex.core.errors import UnknownChoice
from nematex.core.verdict import Verdict
from nematex.store.records import ClothRecord, PatternRecord
from nematex.usecases.ranking import Filters
from nematex.usecases.shelf import Drawer, Shelf, Shop

STRUCTURES = ("woven", "knit", "net")


def shop() -> Shop:
    found: Shop = current_app.extensions["shop"]
    return found


def find_cloth(cloth_id: int) -> tuple[Shelf, ClothRecord, Cloth]:
    shelf = shop().shelf()
    at = shelf.place.get(cloth_id)
    if at is None:
        abort(404)
    return shelf, shelf.records[at], shelf.cloths[at]


def find_pattern(pattern_id: int) -> tuple[Drawer, PatternRecord]:
    drawer = shop().drawer()
    record = drawer.by_id.get(pattern_id)
    if record is None:
        abort(404)
    return drawer, record


def whole_number(name: str, default: int = 1) -> int:
    text = request.args.get(name, "")
    return int(text) if text.isdigit() and len(text) < 7 else default


def filters() -> Filters:
    """The filters in the address; raises UnknownChoice."""
    structure, verdict = request.args.get("structure", ""), request.args.get("verdict", "")
    if structure and structure not in STRUCTURES:
        raise UnknownChoice("structure", structure, STRUCTURES, "structure")
    words = [each.word for each in Verdict]
    if verdict and verdict not in words:
        raise UnknownChoice("verdict", verdict, words, "verdict")
    return Filters(
        q=request.args.get("q", "")[:200],
        structure=structure,
        verdict=verdict,
        in_stock="in_stock" in request.args,
        set_aside="set_aside" in request.args,
        page=whole_number("page"),
    )


def download(text: str | bytes, filename: str, kind: str) -> Response:
    return Response(text, content_type=kind, headers={"Content-Disposition": f'attachment; filename="{filename}"'})
