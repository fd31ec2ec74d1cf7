"""The take log: how long each part took, slips and notes, chapters of the chosen take."""

from __future__ import annotations

from flask import Blueprint, Response, abort, redirect, render_template, request, url_for
from werkzeug.wrappers import Response as Reply

from nematex.core.air.chapter_text import chapter_lines, webvtt
from nematex.core.air.run_sheet import clock
from nematex.core.errors import FieldFault
from nematex.usecases.air.takes import ACTS, change_take, chosen_take, takes_of
from nematex.web.rooms.common import download, shop
from nematex.web.rooms.programme.programmes import find_programme

room = Blueprint("takes", __name__, url_prefix="/programmes/<int:programme_id>/takes")


def _page(programme_id: int, fault: FieldFault | None = None, typed: dict[int, str] | None = None) -> str:
    programme = find_programme(programme_id)
    chosen = chosen_take(shop(), programme_id)
    return render_template(
        "air/takes.html", programme=programme, takes=takes_of(shop(), programme_id), chosen=chosen, fault=fault, clock=clock,
        lines=chapter_lines(chosen.chapters) if chosen else [], typed=typed or {},
    )  # fmt: skip


@room.get("")
def page(programme_id: int) -> str:
    return _page(programme_id)


@room.post("/<int:take_id>")
def change(programme_id: int, take_id: int) -> Reply | tuple[str, int]:
    find_programme(programme_id)
    act, offset = request.form.get("act", ""), request.form.get("offset", "")
    if act not in ACTS:
        abort(400)
    try:
        change_take(shop(), programme_id, take_id, act, offset)
    except FieldFault as fault:
        return _page(programme_id, fault, {take_id: offset}), 400
    return redirect(url_for("takes.page", programme_id=programme_id))


@room.get("/chapters.vtt")
def chapters(programme_id: int) -> Response:
    find_programme(programme_id)
    chosen = chosen_take(shop(), programme_id) or abort(404)
    text = webvtt(chosen.chapters, chosen.length_s + chosen.take.offset_s)
    return download(text, f"chapters-{programme_id}.vtt", "text/vtt; charset=utf-8")
