"""The door: set-up on the first run, signing in and out, and coming in by an invitation."""

from __future__ import annotations

from datetime import datetime

from flask import Blueprint, Response, abort, current_app, redirect, render_template, request, session, url_for
from flask_login import login_user, logout_user
from werkzeug.wrappers import Response as Reply

from nematex.core.errors import FieldFault
from nematex.core.people.rights import ROLES
from nematex.store.people.persons import Person
from nematex.usecases.people import inviting, set_up, signing_in
from nematex.usecases.people.signing_in import SignInRefused, Tried
from nematex.web.guard.known import is_known, remember
from nematex.web.guard.who import TRIES, Here, here
from nematex.web.rooms.common import inside, now, shop

room = Blueprint("door", __name__)
Answer = str | Reply | tuple[str, int]


def tried(name: str = "") -> Tried:
    """What was typed to prove who one is."""
    given = request.form
    called, device = name or given.get("name", ""), (request.user_agent.string or "")[:120]
    typed = called, given.get("password", ""), given.get("code", "")
    return Tried(*typed, device, request.remote_addr or "", is_known(called))


def let_in(token: str) -> None:
    """A browser holds the token from here on; what its session held before is gone, its forms' token too."""
    session.clear()
    found = signing_in.who_is(shop(), token, datetime.now()) or abort(401)
    login_user(Here(found[1], token, found[0]))
    remember(found[1].name)


def let_person_in(person: Person) -> None:
    told = tried(person.name)
    let_in(signing_in.let_in(shop(), person, told.device, told.address, datetime.now()))


@room.get("/sign-in")
def sign_in() -> Answer:
    if not set_up.has_people(shop()):
        return redirect(url_for("door.first"))
    return render_template("people/sign_in.html", values={}, fault=None, back=request.args.get("back", ""))


@room.post("/sign-in")
def come_in() -> Answer:
    back = request.form.get("back", "")
    try:
        let_in(signing_in.sign_in(shop(), tried(), datetime.now()))
    except SignInRefused as fault:
        values = {"name": request.form.get("name", "")[:240]}
        return render_template("people/sign_in.html", values=values, fault=fault, back=back), 400
    return redirect(inside(back, "/"))


@room.post("/sign-out")
def sign_out() -> Reply:
    found = here()
    if found and found.token:
        signing_in.sign_out(shop(), found.token)
    logout_user()
    session.clear()
    answer = redirect(url_for("door.sign_in"))
    answer.headers["Clear-Site-Data"] = '"cache"'  # so that going back shows nobody what was shown here
    return answer


def _first(fault: FieldFault | None = None) -> str:
    code = request.values.get("code", "")
    given = {name: request.form.get(name, "")[:240] for name in ("name", "shop")} | {"code": code[:100]}
    wanted = current_app.config["SET_UP_CODE"]
    return render_template("people/set_up.html", values=given, fault=fault, open=set_up.same_code(code, wanted), made_up=now())


@room.get("/set-up")
def first() -> Answer:
    if set_up.has_people(shop()):
        return redirect(url_for("door.sign_in"))
    return _first()


@room.post("/set-up")
def make_owner() -> Answer:
    given = request.form
    try:
        if not set_up.same_code(given.get("code", ""), current_app.config["SET_UP_CODE"]):
            raise FieldFault(
                "code", given.get("code", "")[:40] or "nothing", "is not the one that ./nematex start printed; copy it"
            )
        _same_twice()
        set_up.make_owner(shop(), given.get("name", ""), given.get("password", ""), given.get("shop", ""), datetime.now())
    except FieldFault as fault:
        return _first(fault), 400
    let_in(signing_in.sign_in(shop(), tried(" ".join(given.get("name", "").split())), datetime.now()))
    return redirect(url_for("home.home"))


def _same_twice() -> None:
    if request.form.get("password", "") != request.form.get("again", ""):
        raise FieldFault("again", "", "is not the same as the password; type both once more")


@room.get("/invitation/<token>")
def invited(token: str) -> Answer:
    found = inviting.invited(shop(), token, datetime.now())
    return render_template("people/invited.html", invited=found, values={}, fault=None) if found else _gone()


def _gone() -> tuple[str, int]:
    return render_template("error.html", title="Not good any more", text=f"{inviting.GONE}."), 404


@room.post("/invitation/<token>")
def accept(token: str) -> Answer:
    found = inviting.invited(shop(), token, datetime.now())
    if found is None:
        return _gone()
    try:
        _same_twice()
        person = inviting.accept(shop(), token, request.form.get("name", ""), request.form.get("password", ""), datetime.now())
    except FieldFault as fault:
        values = {"name": request.form.get("name", "")[:240]}
        return render_template("people/invited.html", invited=found, values=values, fault=fault), 400
    let_person_in(person)
    return redirect(url_for("home.home"))


@room.post("/try-as")
def try_as() -> Reply:
    """In the made-up shop: see it as somebody else sees it."""
    found = here()
    role = request.form.get("role", "")
    if found is None or not found.tries or role not in ROLES:
        abort(404)
    session[TRIES] = role
    return redirect(inside(request.form.get("back", ""), "/"))


@room.get("/certificate.crt")
def certificate() -> Response:
    """The shop's own certificate, for a phone to trust."""
    kept = current_app.config["CERTIFICATE"]
    if not kept:
        abort(404)
    return Response(kept, content_type="application/x-x509-ca-cert", headers={"Cache-Control": "no-cache"})
