"""The wall: a programme's garments drawn in their cloths, put in order by hand, and taken away as pictures."""

from __future__ import annotations

from collections.abc import Mapping

from flask import Blueprint, Response, abort, redirect, render_template, request, url_for
from werkzeug.wrappers import Response as Reply

from nematex.core.errors import FieldFault, UnknownChoice
from nematex.usecases.programme import photos
from nematex.usecases.programme.acts import open_to_all
from nematex.usecases.programme.proposing import planning
from nematex.web.pdf import fonts_inside, png
from nematex.web.rooms.common import as_number, download, numbers, shop
from nematex.web.rooms.made import SHEET, by_worker
from nematex.web.rooms.programme.hung import GROUNDS, SIZES, cloths_of, in_size, on_page
from nematex.web.rooms.programme.programmes import find_programme

room = Blueprint("wall", __name__, url_prefix="/programmes/<int:programme_id>")


def asked(name: str, choices: Mapping[str, object]) -> str:
    """A choice of the address, else the first; raises UnknownChoice."""
    chosen = request.args.get(name, next(iter(choices)))
    if chosen not in choices:
        raise UnknownChoice(name, chosen[:40], choices, name)
    return chosen


def _page(programme_id: int, fault: FieldFault | None = None) -> str:
    programme = find_programme(programme_id)
    drawn = on_page(programme)
    return render_template(
        "programme/wall/page.html", programme=programme, w=drawn, c=GROUNDS["light"], cloths=cloths_of(drawn), sizes=SIZES,
        grounds=GROUNDS, fault=fault, own=photos.photographed(shop(), programme),
    )  # fmt: skip


@room.get("/wall")
def page(programme_id: int) -> str:
    return _page(programme_id)


def _standing(programme_id: int, fonts: str) -> tuple[str, str]:
    """The wall as one SVG in a size that people post, and its name."""
    programme, size, ground = find_programme(programme_id), asked("size", SIZES), asked("ground", GROUNDS)
    drawn = in_size(programme, size)
    text = render_template(
        "programme/wall/drawing.svg", w=drawn, c=GROUNDS[ground], cloths=cloths_of(drawn), standing=True, title=programme.name,
        fonts=fonts,
    )  # fmt: skip
    return text, f"wall-{programme_id}-{size}-{ground}"


@room.get("/wall.svg")
def as_svg(programme_id: int) -> Response:
    text, name = _standing(programme_id, fonts_inside())
    return download(text, f"{name}.svg", "image/svg+xml")


@room.get("/wall.png")
@by_worker(SHEET)
def as_png(programme_id: int) -> Response:
    text, name = _standing(programme_id, "")
    return download(png(text, *SIZES[asked("size", SIZES)]), f"{name}.png", "image/png")


@room.post("/wall/order")
def order(programme_id: int) -> Reply:
    """The running order, as the picks stand on the wall."""
    find_programme(programme_id)
    leading = numbers(request.form.get("order", "").split()[:200])
    if not leading:
        abort(400)
    planning.put_in_order(shop(), programme_id, leading, as_number(request.form.get("moved", "")))
    return redirect(url_for("wall.page", programme_id=programme_id))


@room.post("/wall/public")
def public(programme_id: int) -> Reply:
    """Show the look-book to all, or to nobody any more."""
    find_programme(programme_id)
    open_to_all(shop(), programme_id, request.form.get("act") == "show")
    return redirect(url_for("wall.page", programme_id=programme_id, _anchor="public"))


@room.get("/wall/photo/<int:pick_id>")
def photo(programme_id: int, pick_id: int) -> Response:
    find_programme(programme_id)
    content = photos.photo_of(shop(), pick_id)
    return Response(content, content_type="image/jpeg") if content else abort(404)


@room.post("/wall/photo")
def put_photo(programme_id: int) -> Reply | tuple[str, int]:
    """The shop's own photo in the place of a drawing, or the drawing again."""
    find_programme(programme_id)
    pick_id, sent = request.form.get("pick", 0, int), request.files.get("photo")
    try:
        if request.form.get("act") == "drop":
            photos.drop_photo(shop(), programme_id, pick_id)
        else:
            photos.put_photo(shop(), programme_id, pick_id, sent.read() if sent else b"")
    except FieldFault as fault:
        return _page(programme_id, fault), 400
    return redirect(url_for("wall.page", programme_id=programme_id))
