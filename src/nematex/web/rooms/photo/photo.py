"""The swatch photo: send it, see what it tells, let it stand or correct it."""

from __future__ import annotations

import secrets

from flask import Blueprint, abort, jsonify, redirect, render_template, request, session, url_for
from werkzeug.wrappers import Response

from nematex.core.cloth.facts import DIRECTIONS
from nematex.core.errors import FieldFault
from nematex.store.records import ClothRecord, Photo
from nematex.tables import properties
from nematex.usecases.photo.made_up import made_up_photo
from nematex.usecases.photo.swatch import (
    answers,
    ask_reading,
    confirmed,
    is_read,
    keep_photo,
    put_in_force,
    reading_of,
    swatch_photo,
    swatch_photos,
)
from nematex.web.guard.who import their_form
from nematex.web.rooms.common import find_cloth, shop

room = Blueprint("photo", __name__, url_prefix="/photo")


def _send(record: ClothRecord, values: dict[str, str], fault: FieldFault | None = None, said: str = "") -> str:
    earlier = swatch_photos(shop(), record.id)
    return render_template("photo/send.html", record=record, values=values, fault=fault, said=said, earlier=earlier)


@room.get("/<int:cloth_id>")
def send(cloth_id: int) -> str:
    return _send(find_cloth(cloth_id)[0], {})


@room.post("/<int:cloth_id>")
def receive(cloth_id: int) -> Response | tuple[str, int]:
    record = find_cloth(cloth_id)[0]
    values = their_form()
    sent = request.files.get("photo")
    try:
        if values.get("act") == "simulate":
            made = made_up_photo(record, secrets.randbits(32))
            content, scale, wide = made.content, f"{made.px_per_cm:g}", ""
        elif sent is None or not sent.filename:
            raise FieldFault("photo", "", "is missing; choose a JPEG, PNG or WebP photo")
        else:
            content, scale, wide = sent.read(), values.get("px_per_cm", ""), values.get("wide", "")
        number = keep_photo(shop(), record, content, scale, wide, values.get("act") == "simulate")
    except FieldFault as fault:
        return _send(record, values, fault), 400
    return redirect(url_for("photo.look", cloth_id=cloth_id, photo_id=number))


def _photo(cloth_id: int, photo_id: int) -> Photo:
    return swatch_photo(shop(), cloth_id, photo_id) or abort(404)


def _look(record: ClothRecord, photo: Photo, values: dict[str, str] | None = None, fault: FieldFault | None = None) -> str:
    said = answers(photo.found)
    offered = {name: str(each.offered) if each.offered is not None else "" for name, each in said.items()}
    offered |= {f"colour-{at}": "1" for at in range(len(photo.found["palette"]))} | {"ground": str(photo.found["ground"])}
    return render_template(
        "photo/look.html",
        record=record,
        photo=photo,
        said=said,
        values=values or offered | {"by": session.get("by", "")},
        fault=fault,
        kinds=properties()["print_kind"].words,
        directions=DIRECTIONS,
    )


@room.get("/<int:cloth_id>/<int:photo_id>")
def look(cloth_id: int, photo_id: int) -> str | tuple[str, int]:
    record, photo = find_cloth(cloth_id)[0], _photo(cloth_id, photo_id)
    if not is_read(photo):
        job = ask_reading(shop(), photo)
        if job.runs:
            return render_template("photo/reading.html", record=record, photo=photo, job=job), 202
        photo = _photo(cloth_id, photo_id)
        if not is_read(photo):
            return _send(record, {}, said=job.message), 400
    return _look(record, photo)


@room.get("/<int:cloth_id>/<int:photo_id>/now/<int:job_id>")
def how_far(cloth_id: int, photo_id: int, job_id: int) -> Response:
    """Where a photo's reading is when the worker is done with it, or why there is none. It asks for nothing anew."""
    photo, job = _photo(cloth_id, photo_id), reading_of(shop(), job_id) or abort(404)
    there = url_for("photo.look", cloth_id=cloth_id, photo_id=photo_id) if is_read(photo) else None
    return jsonify(done=0, total=0, next=there, failed=there is None and not job.runs, why=job.message)


@room.post("/<int:cloth_id>/<int:photo_id>")
def keep(cloth_id: int, photo_id: int) -> Response | tuple[str, int]:
    record, photo = find_cloth(cloth_id)[0], _photo(cloth_id, photo_id)
    if not is_read(photo):
        return redirect(url_for("photo.look", cloth_id=cloth_id, photo_id=photo_id))
    values = dict(request.form.items())
    session["by"] = values.get("by", "")[:60]
    try:
        readings = confirmed(photo, values, session["by"] or "the shop")
        put_in_force(shop(), record, photo, readings, values.get("colourway", ""))
    except FieldFault as fault:
        return _look(record, photo, values, fault), 400
    return redirect(url_for("shelf.cloth", cloth_id=cloth_id))
