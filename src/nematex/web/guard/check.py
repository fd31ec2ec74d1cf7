"""The one place that lets a request through: who asks, what the address asks for, and whether both fit."""

from __future__ import annotations

from flask import Flask, flash, g, jsonify, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from nematex.core.people.rights import ROLES
from nematex.store.trail.who import act_as, act_no_longer
from nematex.tables import rights
from nematex.web.guard.table import OPEN, all_rights, right_of
from nematex.web.guard.who import here, login


def guard(app: Flask) -> None:
    """Put the guard before every address of the application; raises KeyError where one asks for no right."""
    login.init_app(app, add_context_processor=False)
    known = rights()
    for right in all_rights(list(app.url_map.iter_rules())).values():
        if right != OPEN:
            known[right]
    app.before_request(_let_through)
    app.teardown_request(_forget)


def _forget(_fault: object) -> None:
    if token := g.pop("acting", None):
        act_no_longer(token)


def _let_through() -> ResponseReturnValue | None:
    if request.endpoint is None:
        return None  # there is no such address
    right = right_of(request.endpoint, request.method)
    if right == OPEN:
        return None
    found = here()
    if found is None:
        return _ask_who()
    g.acting = act_as(found.person.name)
    if found.may(right):
        return None
    return _refuse(right, found.person.role)


def wants_data() -> bool:
    """Whether a program of the page asks, not the page itself."""
    fetched = request.headers.get("Sec-Fetch-Dest") == "empty" or request.headers.get("X-Asks") == "data"
    return fetched or request.is_json or request.accept_mimetypes.best == "application/json"


def _ask_who() -> ResponseReturnValue:
    if wants_data():
        return jsonify(fault="sign-in: has ended; sign in on another page of this browser, then go on here"), 401
    if request.method in ("GET", "HEAD"):
        return redirect(url_for("door.sign_in", back=request.full_path.rstrip("?")))
    flash("Your sign-in has ended. Nothing of this form was saved; sign in, and go back to it: what you typed is still there.")
    back = request.referrer or ""
    back = back.removeprefix(request.host_url.rstrip("/")) if back.startswith(request.host_url) else "/"
    return render_template("people/ended.html", back=back), 401


def _refuse(right: str, role: str) -> ResponseReturnValue:
    able = [each for each in ROLES if each in rights()[right].roles]
    who = " or ".join(f"{'an' if each == 'owner' else 'a'} {each}" for each in able)
    text = f"{rights()[right].lets}: asks for {who}; you are signed in as {role}. An owner can change that under People."
    if wants_data():
        return jsonify(fault=text), 403
    return render_template("error.html", title="Not yours to do", text=text), 403
