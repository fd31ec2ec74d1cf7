"""Why a pattern's windows are as they are, and where they are corrected."""

from __future__ import annotations

from collections.abc import Mapping

from flask import Blueprint, redirect, render_template, request, url_for
from werkzeug.wrappers import Response

from nematex.core.errors import FieldFault
from nematex.usecases.cloth.form import cloth_names
from nematex.usecases.forms.merging import as_shown
from nematex.usecases.judging.ranking import fitting_wish, read_wish
from nematex.usecases.judging.why_view import (
    as_edge,
    drop_edge,
    drop_reading,
    edges_of,
    reading_fixes_of,
    readings_shown,
    set_edge,
    set_reading,
)
from nematex.web.guard.who import their_form
from nematex.web.rooms.common import find_pattern, now, shop, whole_number

room = Blueprint("why", __name__, url_prefix="/patterns/<int:pattern_id>/why")


def _page(pattern_id: int, values: Mapping[str, str] | None = None, fault: FieldFault | None = None) -> str:
    record, drawer = find_pattern(pattern_id), now().drawer
    wish = fitting_wish(record, read_wish(request.values))
    return render_template(
        "judging/why.html",
        record=record,
        wish=wish,
        demand=drawer.demand(record, wish),
        edges=edges_of(drawer, record, wish, shop().as_shipped),
        waiting=reading_fixes_of(record),
        as_edge=as_edge,
        words_shown=as_shown(readings_shown(record)),
        cloth_names=cloth_names(now().tables),
        values=values or {},
        fault=fault,
        moved=whole_number("moved", -1),
    )


@room.get("")
def page(pattern_id: int) -> str:
    return _page(pattern_id)


@room.post("/edge")
def edge(pattern_id: int) -> Response | tuple[str, int]:
    record = find_pattern(pattern_id)
    wish = fitting_wish(record, read_wish(request.form))
    try:
        moved = set_edge(shop(), now(), record, wish, their_form())
    except FieldFault as fault:
        return _page(pattern_id, request.form, fault), 400
    return redirect(url_for("why.page", pattern_id=pattern_id, part=wish.part, look=wish.look, moved=moved))


@room.post("/reading")
def reading(pattern_id: int) -> Response | tuple[str, int]:
    try:
        set_reading(shop(), now(), find_pattern(pattern_id), their_form())
    except FieldFault as fault:
        return _page(pattern_id, request.form, fault), 400
    return redirect(url_for("why.page", pattern_id=pattern_id, _anchor="words"))


@room.post("/drop")
def drop(pattern_id: int) -> Response:
    """Back to what was read: an edge, or the meaning of words."""
    record = find_pattern(pattern_id)
    if words := request.form.get("words"):
        drop_reading(shop(), record, words)
    else:
        drop_edge(shop(), record, request.form.get("window", ""), request.form.get("side", ""))
    return redirect(url_for("why.page", pattern_id=pattern_id))
