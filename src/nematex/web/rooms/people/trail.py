"""Who changed what: of one record, or of the whole shop."""

from __future__ import annotations

from flask import Blueprint, abort, render_template

from nematex.store.trail.kept import KEPT
from nematex.usecases.people.trail import KEPT_DAYS, trail
from nematex.web.rooms.common import now, shop, whole_number

room = Blueprint("trail", __name__, url_prefix="/trail")
KINDS = (*(each.kind for each in KEPT), "setting")
ADDRESSES = {
    "cloth": "shelf.cloth", "pattern": "patterns.pattern", "programme": "programmes.programme", "sew-along": "along.one",
    "kit": "kits.one", "make": "log.one",
}  # fmt: skip
NUMBERS = {
    "cloth": "cloth_id", "pattern": "pattern_id", "programme": "programme_id", "sew-along": "sew_along_id", "kit": "kit_id",
    "make": "make_id",
}  # fmt: skip


def _page(kind: str, row_id: int | None) -> str:
    if kind and kind not in KINDS:
        abort(404)
    found = trail(shop(), now(), kind, row_id, whole_number("page"))
    return render_template(
        "people/trail.html", found=found, kind=kind, row_id=row_id, days=KEPT_DAYS,
        addresses=ADDRESSES, numbers=NUMBERS, kinds=KINDS,
    )  # fmt: skip


@room.get("")
def whole() -> str:
    return _page("", None)


@room.get("/<kind>")
def of_kind(kind: str) -> str:
    return _page(kind, None)


@room.get("/<kind>/<int:row_id>")
def one(kind: str, row_id: int) -> str:
    return _page(kind, row_id)
