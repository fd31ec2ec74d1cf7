"""One's own sign-in: password, a phone's code, passkeys, where one is signed in."""

from __future__ import annotations

from datetime import datetime

from flask import Blueprint, abort, flash, redirect, render_template, request, session, url_for
from flask.typing import ResponseReturnValue
from markupsafe import Markup
from werkzeug.wrappers import Response

from nematex.core.errors import FieldFault
from nematex.usecases.people import codes, signing_in, staff
from nematex.web.guard.proof import prove_first
from nematex.web.guard.who import Here, here
from nematex.web.qr import qr_svg
from nematex.web.rooms.common import inside, now, shop
from nematex.web.rooms.people.door import tried

room = Blueprint("account", __name__, url_prefix="/account")
ASKS_ITSELF = ("account.password", "account.prove", "account.elsewhere")  # ending sign-ins lets nobody in
BEGUN = "code begun"  # in the session: a secret whose phone has not shown yet that it knows it


@room.before_request
def _prove_first() -> ResponseReturnValue | None:
    """What changes how one signs in; the page itself can be read."""
    changes = request.method == "POST" and request.endpoint not in ASKS_ITSELF
    return prove_first("account.page") if changes else None


def me() -> tuple[Here, int]:
    """Who asks, with their number; whoever tries the made-up shop has no sign-in of their own."""
    found = here()
    if found is None or found.person.id is None:
        abort(404)
    return found, found.person.id


def _page(fault: FieldFault | None = None, spare: list[str] | None = None) -> str:
    found, number = me()
    secret = session.get(BEGUN, "")
    picture = Markup(qr_svg(codes.address_of(secret, found.person.name, now().shop_name))) if secret else ""
    mine = staff.own(shop(), number)
    key = next((one.key for one in mine.sign_ins if found.signed and one.key == found.signed.key), "")
    return render_template(
        "people/account.html",
        person=found.person,
        own=mine,
        this=key,
        secret=secret,
        picture=picture,
        fault=fault,
        spare=spare or [],
    )


@room.get("")
def page() -> str:
    return _page()


@room.post("/password")
def password() -> Response | tuple[str, int]:
    found, _ = me()
    given = request.form
    try:
        if given.get("password", "") != given.get("again", ""):
            raise FieldFault("again", "", "is not the same as the new password; type both once more")
        staff.change_password(shop(), found.person, given.get("old", ""), given.get("password", ""), found.token)
    except FieldFault as fault:
        return _page(fault), 400
    flash("Your password is changed. Wherever else you were signed in, you are not any more.")
    return redirect(url_for("account.page"))


@room.post("/code")
def code() -> Response | str | tuple[str, int]:
    """Begin with a phone's code, confirm it, or end it."""
    _, number = me()
    act, typed, moment = request.form.get("act", ""), request.form.get("code", ""), datetime.now()
    try:
        if act == "begin":
            session[BEGUN] = codes.new_secret()
        elif act == "confirm" and session.get(BEGUN):
            spare = codes.start_code(shop(), number, session[BEGUN], typed, moment)
            session.pop(BEGUN)
            return _page(spare=spare)
        elif act == "end":
            codes.stop_code(shop(), number, typed, moment)
        else:
            session.pop(BEGUN, None)
    except FieldFault as fault:
        return _page(fault), 400
    return redirect(url_for("account.page", _anchor="code"))


@room.post("/sign-ins")
def elsewhere() -> Response:
    """End one sign-in, or all but this."""
    found, number = me()
    staff.end_elsewhere(shop(), number, request.form.get("key", ""), found.token)
    return redirect(url_for("account.page", _anchor="places"))


@room.get("/prove")
def proving() -> str:
    return render_template("people/prove.html", back=request.args.get("back", ""), fault=None, person=me()[0].person)


@room.post("/prove")
def prove() -> Response | tuple[str, int]:
    """The password once more, before what reaches far."""
    found, _ = me()
    back = request.form.get("back", "")
    try:
        signing_in.prove(shop(), found.person, found.token, tried(found.person.name), datetime.now())
    except FieldFault as fault:
        return render_template("people/prove.html", back=back, fault=fault, person=found.person), 400
    return redirect(inside(back, url_for("account.page")))
