"""What everybody may read: a sew-along at its public address. Nothing can be changed here."""

from __future__ import annotations

from flask import Blueprint, Response, abort, render_template, url_for

from nematex.core.errors import FieldFault
from nematex.store.air.sew_alongs import SewAlong
from nematex.usecases.air.sew_along import acts
from nematex.web.rooms.air.sew_alongs import calendar_of, paper_of, told
from nematex.web.rooms.common import now, shop
from nematex.web.rooms.made import SHEET, by_worker
from nematex.web.rooms.shown_at import shown_at

room = Blueprint("public", __name__, url_prefix="/along/<key>")


def _found(key: str) -> SewAlong:
    return (acts.of_key(shop(), key) if len(key) <= 40 else None) or abort(404)


@room.after_request
def _unlisted(response: Response) -> Response:
    """The address is known to those who were given it: no search engine is."""
    response.headers["X-Robots-Tag"] = "noindex"
    return response


@room.get("")
def page(key: str) -> str:
    kept = _found(key)
    try:
        found = told(kept, acts.asked_of(now(), kept))
    except FieldFault:  # its pattern or all its cloths are put away
        return _rests(kept)[0]
    return render_template("air/along/public.html", key=key, **found)


def _rests(kept: SewAlong) -> tuple[str, int]:
    """While there is nothing to show: viewers are told so, and nothing of the shop's inside."""
    return render_template("air/along/rests.html", kept=kept), 410


@room.get("/calendar.ics")
def calendar(key: str) -> Response:
    kept = _found(key)
    try:
        return calendar_of(kept, shown_at(url_for("public.page", key=key)))
    except FieldFault:
        return Response(*_rests(kept))


@room.get("/<any(checklist, worksheet):what>.pdf")
@by_worker(SHEET)
def printed(key: str, what: str) -> Response:
    kept = _found(key)
    try:
        return paper_of(kept, what)
    except FieldFault:
        return Response(*_rests(kept))
