"""What is unknown or contradictory on the shelf."""

from __future__ import annotations

from flask import Blueprint, render_template, request

from nematex.core.errors import UnknownChoice
from nematex.usecases.cloth.lacks.lacks import KINDS, lack_page
from nematex.usecases.judging.whole_matrix import pairings, ready
from nematex.web.rooms.common import now, shop, whole_number

room = Blueprint("quality", __name__, url_prefix="/quality")


@room.get("")
def lacking() -> str:
    kind = request.args.get("kind", "")
    if kind and kind not in KINDS:
        raise UnknownChoice("kind", kind, KINDS, "kind")
    if not ready(shop(), now()):
        return render_template("judging/matrix/progress.html", pairings=pairings(now()), then=request.full_path)
    return render_template("cloth/quality/list.html", found=lack_page(shop(), now(), kind, whole_number("page")), kind=kind)
