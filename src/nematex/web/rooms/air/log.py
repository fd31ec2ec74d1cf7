"""The log of garments made, and the year in review."""

from __future__ import annotations

from datetime import datetime

from flask import Blueprint, Response, abort, flash, redirect, render_template, request, url_for
from werkzeug.wrappers import Response as Reply

from nematex.core.errors import FieldFault
from nematex.usecases.air.made import log
from nematex.usecases.air.made.log import WORDS, Made
from nematex.usecases.air.made.year import year_of, years
from nematex.usecases.forms.merging import SHOWN, Clashing, as_shown
from nematex.web.rooms.air.sew_alongs import names
from nematex.web.rooms.common import as_number, now, shop, tell_binned, whole_number

room = Blueprint("log", __name__, url_prefix="/log")


def _find(make_id: int) -> Made:
    found = log.find_make(shop(), now(), make_id)
    if found is None and log.is_kept(shop(), make_id):
        flash("This garment's pattern or cloth lies in the bin: put it back, and the garment stands in the log again.")
        abort(redirect(url_for("log.page")))
    return found or abort(404)


def _list(values: dict[str, str], fault: FieldFault | None = None) -> str:
    of = {name: as_number(request.args.get(name, "")) for name in ("cloth_id", "pattern_id")}
    found = log.made(shop(), now(), whole_number("page"), **of)
    return render_template(
        "air/log/list.html", found=found, of=of, values=values, fault=fault, shown="", words=WORDS, **names()
    )


@room.get("")
def page() -> str:
    return _list({name: request.args.get(name, "")[:200] for name in ("pattern", "cloth", "view", "size")})


@room.post("")
def make() -> Reply | tuple[str, int]:
    try:
        number = log.save_make(shop(), now(), None, request.form, datetime.now())
        _photo(number)
    except FieldFault as fault:
        return _list(request.form.to_dict(), fault), 400
    return redirect(url_for("log.one", make_id=number))


def _photo(make_id: int) -> None:
    sent = request.files.get("photo")
    if sent and sent.filename:
        log.keep_photo(shop(), make_id, sent.read())


def _one(found: Made, values: dict[str, str] | None = None, shown: str = "", fault: FieldFault | None = None) -> str:
    typed = log.typed_of(found)
    others = log.made(shop(), now(), pattern_id=found.pattern.id).rows
    return render_template(
        "air/log/one.html", one=found, values=values or typed, shown=shown or as_shown(typed), fault=fault, words=WORDS,
        others=[each for each in others if each.make.id != found.make.id], **names(),
    )  # fmt: skip


@room.get("/<int:make_id>")
def one(make_id: int) -> str:
    return _one(_find(make_id))


@room.post("/<int:make_id>")
def save(make_id: int) -> Reply | tuple[str, int]:
    found, given = _find(make_id), request.form.to_dict()
    try:
        log.save_make(shop(), now(), make_id, {"viewers": "", **given}, datetime.now())
        _photo(make_id)
    except Clashing as clash:
        return _one(found, clash.values, as_shown(clash.now), clash), 400
    except FieldFault as fault:
        return _one(found, given, given.get(SHOWN, ""), fault), 400
    return redirect(url_for("log.one", make_id=make_id))


@room.get("/<int:make_id>/photo")
def photo(make_id: int) -> Response:
    content = log.photo_of(shop(), make_id) or abort(404)
    return Response(content, content_type="image/jpeg", headers={"Cache-Control": "private, max-age=3600"})


@room.post("/<int:make_id>/remove")
def remove(make_id: int) -> Reply:
    found = _find(make_id)
    log.remove_make(shop(), make_id)
    tell_binned("make", make_id, f"{found.pattern.facts.name} in {found.cloth.facts.name}")
    return redirect(url_for("log.page"))


@room.get("/year/<int:year>")
def year(year: int) -> str:
    moment = datetime.now()
    known = years(shop(), now(), moment.date())
    if year not in known:
        abort(404)
    return render_template("air/log/year.html", y=year_of(shop(), now(), year, moment), years=known)
