"""The people of the shop: who they are, what they may do, and inviting more."""

from __future__ import annotations

from datetime import datetime

from flask import Blueprint, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue
from werkzeug.wrappers import Response

from nematex.core.errors import FieldFault
from nematex.core.paging import page_of
from nematex.core.people.rights import ROLES
from nematex.tables import rights
from nematex.usecases.people import inviting, staff
from nematex.web.guard.proof import prove_first
from nematex.web.guard.who import their_name
from nematex.web.rooms.common import shop, whole_number
from nematex.web.rooms.shown_at import shown_at

room = Blueprint("people", __name__, url_prefix="/people")


@room.before_request
def _prove_first() -> ResponseReturnValue | None:
    return prove_first("people.page")


def _page(fault: FieldFault | None = None, link: str = "", whose: str = "") -> str:
    found = staff.staff(shop(), datetime.now())
    people = page_of(found.people, whole_number("page"))
    return render_template(
        "people/people.html", staff=found, people=people, roles=ROLES, rights=rights().values(), fault=fault,
        link=link, whose=whose, values=request.form,
    )  # fmt: skip


@room.get("")
def page() -> str:
    return _page()


def _link(token: str) -> str:
    return shown_at(url_for("door.invited", token=token))


@room.post("/invite")
def invite() -> str | tuple[str, int]:
    """Make a link for somebody new; it is shown once."""
    given = request.form
    try:
        token = inviting.invite(shop(), given.get("name", ""), given.get("role", ""), their_name("the owner"), datetime.now())
    except FieldFault as fault:
        return _page(fault), 400
    return _page(link=_link(token), whose=given.get("name", "").strip()[:60] or "the new one")


@room.post("/withdraw")
def withdraw() -> Response:
    staff.take_back(shop(), request.form.get("key", ""))
    return redirect(url_for("people.page"))


@room.post("/<int:person_id>")
def change(person_id: int) -> Response | str | tuple[str, int]:
    """Another role, a new password, or goodbye."""
    given = request.form
    try:
        if given.get("act") == "renew":
            token = inviting.renew_password(shop(), person_id, their_name("the owner"), datetime.now())
            return _page(link=_link(token), whose="a new password")
        if given.get("act") == "end":
            staff.end_person(shop(), person_id, datetime.now())
        else:
            staff.give_role(shop(), person_id, given.get("role", ""), given.get("was", ""))
    except FieldFault as fault:
        return _page(fault), 400
    return redirect(url_for("people.page"))
