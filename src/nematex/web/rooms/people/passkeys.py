"""Passkeys: the questions that a browser is asked, and its answers. A question is good for one answer."""

from __future__ import annotations

from datetime import datetime

from flask import Blueprint, Response, jsonify, redirect, request, session, url_for
from flask.typing import ResponseReturnValue
from werkzeug.wrappers import Response as Reply

from nematex.core.errors import FieldFault
from nematex.usecases.people import keys
from nematex.usecases.people.keys import Place
from nematex.web.guard.proof import prove_first
from nematex.web.rooms.common import inside, now, shop
from nematex.web.rooms.people.account import me
from nematex.web.rooms.people.door import let_person_in

room = Blueprint("passkeys", __name__, url_prefix="/passkeys")
ASKED = "passkey asked"  # in the session: the challenge that waits for its answer
LONGEST_ANSWER = 20_000


OPEN_TO_ALL = ("passkeys.options_in", "passkeys.come_in")


@room.before_request
def _prove_first() -> ResponseReturnValue | None:
    return None if request.endpoint in OPEN_TO_ALL else prove_first("account.page")


def _place() -> Place:
    return Place(request.host.rsplit(":", 1)[0], request.host_url.rstrip("/"))


def _sent(options: tuple[str, str]) -> Response:
    text, session[ASKED] = options
    return Response(text, content_type="application/json", headers={"Cache-Control": "no-store"})


def _answer() -> tuple[str, str]:
    return session.pop(ASKED, ""), request.form.get("answer", "")[:LONGEST_ANSWER]


@room.post("/new")
def options_new() -> Response:
    return _sent(keys.asked_to_make(shop(), me()[0].person, _place(), now().shop_name))


@room.post("/keep")
def make() -> Response | tuple[Response, int]:
    challenge, answer = _answer()
    try:
        keys.make(shop(), me()[0].person, _place(), challenge, answer, request.form.get("name", ""), datetime.now())
    except FieldFault as fault:
        return jsonify(fault=str(fault)), 400
    return jsonify(to=url_for("account.page", _anchor="keys"))


@room.post("/<int:passkey_id>/remove")
def remove(passkey_id: int) -> Reply:
    keys.remove(shop(), me()[1], passkey_id)
    return redirect(url_for("account.page", _anchor="keys"))


@room.post("/in")
def options_in() -> Response:
    return _sent(keys.asked_to_sign_in(_place()))


@room.post("/come-in")
def come_in() -> Response | tuple[Response, int]:
    challenge, answer = _answer()
    try:
        let_person_in(keys.sign_in_by(shop(), _place(), challenge, answer))
    except FieldFault as fault:
        return jsonify(fault=str(fault)), 400
    return jsonify(to=inside(request.form.get("back", ""), "/"))
