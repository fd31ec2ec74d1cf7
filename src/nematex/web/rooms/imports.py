"""Bringing in a price list: send, look, correct the columns, apply."""

from __future__ import annotations

from flask import Blueprint, abort, redirect, render_template, request, url_for
from werkzeug.wrappers import Response

from nematex.core.errors import FieldFault
from nematex.usecases.importing import apply, bad_rows, choose_columns, preview, send
from nematex.usecases.list_columns import import_fields
from nematex.web.rooms.common import download, shop

room = Blueprint("imports", __name__, url_prefix="/import")
SHOWN = 200


@room.get("")
def form() -> str:
    return render_template("imports/send.html", fault=None, supplier="")


@room.post("")
def receive() -> Response | tuple[str, int]:
    sent, supplier = request.files.get("file"), request.form.get("supplier", "")
    try:
        if sent is None or not sent.filename:
            raise FieldFault("file", "", "is missing; choose a CSV price list")
        kept = send(shop(), sent.filename, sent.read(), supplier)
    except FieldFault as fault:
        return render_template("imports/send.html", fault=fault, supplier=supplier), 400
    return redirect(url_for("imports.look", upload_id=kept))


def _look(upload_id: int, fault: FieldFault | None = None) -> str:
    found = preview(shop(), upload_id) or abort(404)
    return render_template("imports/preview.html", found=found, fields=import_fields(), fault=fault, shown=SHOWN)


@room.get("/<int:upload_id>")
def look(upload_id: int) -> str:
    return _look(upload_id)


@room.post("/<int:upload_id>/columns")
def columns(upload_id: int) -> Response | tuple[str, int]:
    chosen = {
        int(name.removeprefix("column-")): field
        for name, field in request.form.items()
        if name.startswith("column-") and name[7:].isdigit() and field
    }
    try:
        choose_columns(shop(), upload_id, chosen)
    except FieldFault as fault:
        return _look(upload_id, fault), 400
    return redirect(url_for("imports.look", upload_id=upload_id))


@room.post("/<int:upload_id>/apply")
def put_on_shelf(upload_id: int) -> str:
    found = apply(shop(), upload_id) or abort(404)
    return render_template("imports/done.html", found=found)


@room.get("/<int:upload_id>/bad-rows.csv")
def bad(upload_id: int) -> Response:
    text = bad_rows(shop(), upload_id)
    return download(text if text is not None else abort(404), "bad-rows.csv", "text/csv; charset=utf-8")
