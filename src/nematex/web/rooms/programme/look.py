"""A programme's look-book as everybody may read it who was given its address. Nothing can be changed here."""

from __future__ import annotations

from flask import Blueprint, Response, abort, render_template

from nematex.usecases.programme.acts import of_key
from nematex.web.rooms.common import shop
from nematex.web.rooms.programme.hung import GROUNDS, cloths_of, garments, in_size

room = Blueprint("look", __name__, url_prefix="/look")
LONGEST_KEY = 40


@room.after_request
def _unlisted(response: Response) -> Response:
    response.headers["X-Robots-Tag"] = "noindex"
    return response


@room.get("/<key>")
def page(key: str) -> str:
    programme = (of_key(shop(), key) if len(key) <= LONGEST_KEY else None) or abort(404)
    drawn = in_size(programme, "wide")
    return render_template(
        "programme/wall/public.html", programme=programme, w=drawn, c=GROUNDS["light"], cloths=cloths_of(drawn), standing=True,
        title=programme.name, fonts="", hung=garments(programme), lines={pick.id: pick.line for pick in programme.picks},
    )  # fmt: skip
