"""The remote: a phone's page with large keys for the camera view of the same code."""

from __future__ import annotations

from datetime import datetime

from flask import Blueprint, Response, abort, jsonify, redirect, render_template, request, url_for
from werkzeug.wrappers import Response as Reply

from nematex.core.errors import FieldFault
from nematex.store.air.remotes import Remote
from nematex.usecases.air.remote import find_remote, press, read_code
from nematex.usecases.programme.acts import programme
from nematex.web.rooms.common import json_sent, shop

room = Blueprint("remote", __name__, url_prefix="/remote")


def _found(code: str) -> Remote:
    return find_remote(shop(), code, datetime.now()) or abort(404)


@room.get("")
def form() -> str:
    return render_template("air/pair.html", fault="")


@room.post("")
def pair() -> Reply | tuple[str, int]:
    code = read_code(request.form.get("code", ""))
    if find_remote(shop(), code, datetime.now()):
        return redirect(url_for("remote.page", code=code))
    fault = f"code: {code or 'nothing'} is none that a camera view shows. It has six letters and digits, and is good for a day."
    return render_template("air/pair.html", fault=fault, code=code), 400


@room.get("/<code>")
def page(code: str) -> str:
    found = _found(code)
    shown = programme(shop(), found.programme_id) or abort(404)
    return render_template("air/remote.html", remote=found, programme=shown)


@room.get("/<code>/shows")
def shows(code: str) -> Response:
    return jsonify(_found(code).shows)


@room.post("/<code>/press")
def pressed(code: str) -> Response | tuple[Response, int]:
    given = json_sent()
    text = {name: str(given.get(name, ""))[:4000] for name in ("key", "kind", "text")}
    age = given.get("age", 0.0)
    try:
        age_s = float(age) if isinstance(age, int | float) else -1.0
        press(shop(), _found(code), text["key"], text["kind"], text["text"], age_s, datetime.now())
    except FieldFault as fault:
        return jsonify(fault=str(fault)), 400
    return jsonify(kept=text["key"])
