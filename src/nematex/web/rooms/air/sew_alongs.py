"""Sew-alongs for the shop: made, dated, held against the stock, printed, shown to all or not."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from flask import Blueprint, Response, abort, redirect, render_template, request, url_for
from werkzeug.wrappers import Response as Reply

from nematex.core.errors import FieldFault
from nematex.core.paging import page_of
from nematex.store.air.sew_alongs import SewAlong
from nematex.tables import regions
from nematex.usecases.air.sew_along import acts
from nematex.usecases.air.sew_along.calendar import as_calendar
from nematex.usecases.air.sew_along.dates import HOME, order_days, usual_carrier
from nematex.usecases.air.sew_along.form import Asked, ahead, write_parts
from nematex.usecases.air.sew_along.supplies import notions_of, supplies
from nematex.usecases.forms.merging import SHOWN, Clashing, as_shown
from nematex.usecases.kit.kit import return_reserved
from nematex.web.pdf import fonts_by_name
from nematex.web.rooms.common import as_number, download, now, shop, tell_binned, whole_number
from nematex.web.rooms.made import SHEET, by_worker
from nematex.web.rooms.paper import as_pdf, paper_asked

room = Blueprint("along", __name__, url_prefix="/sew-alongs")
NAMES = 400  # of cloths and patterns, offered while one types


def find(sew_along_id: int) -> SewAlong:
    return acts.found(shop(), sew_along_id) or abort(404)


def moment() -> datetime:
    """Now, by the shop's clock."""
    return datetime.now(regions()[HOME].zone)


def told(kept: SewAlong, asked: Asked) -> dict[str, Any]:
    """What pages, papers and calendars tell of a sew-along."""
    state, rule = now(), now().tables.judging.sew_along
    found = supplies(shop(), state, asked, kept.id)
    return {
        "kept": kept,
        "rule": rule,
        "asked": asked,
        "days": order_days(asked.parts, rule, usual_carrier(), moment()),
        "supplies": found,
        "notions": notions_of(asked, found[0]),
        "hours": rule.hours.get(asked.pattern.difficulty),
        "ahead": ahead(moment().date(), asked.event, rule),
        "zone": regions()[HOME].zone,
    }


def names() -> dict[str, list[str]]:
    state = now()
    return {
        "cloth_names": [each.facts.name for each in state.shelf.records[:NAMES]],
        "pattern_names": [each.facts.name for each in state.drawer.records[:NAMES]],
    }


@room.get("")
def page() -> str:
    given = {name: request.args.get(name, "")[:200] for name in ("pattern", "cloths")}
    return _list(given)


def _list(values: dict[str, str], fault: FieldFault | None = None) -> str:
    found = page_of(acts.all_of(shop()), whole_number("page"))
    return render_template("air/along/list.html", found=found, values=values, fault=fault, shown="", **names())


@room.post("")
def make() -> Reply | tuple[str, int]:
    try:
        number = acts.save(shop(), now(), None, request.form)
    except FieldFault as fault:
        return _list(request.form.to_dict(), fault), 400
    return redirect(url_for("along.one", sew_along_id=number))


def _one(kept: SewAlong, values: dict[str, str] | None = None, shown: str = "", fault: FieldFault | None = None) -> str:
    typed = acts.typed_of(kept)
    try:
        found = told(kept, acts.asked_of(now(), kept))
    except FieldFault as gone:
        found, fault = {"kept": kept, "asked": None}, fault or gone
    lines = write_parts(found["asked"].parts) if found["asked"] else ""
    return render_template(
        "air/along/one.html",
        values=values or typed,
        shown=shown or as_shown(typed),
        fault=fault,
        lines=lines,
        **found,
        **names(),
    )


@room.get("/<int:sew_along_id>")
def one(sew_along_id: int) -> str:
    return _one(find(sew_along_id))


@room.post("/<int:sew_along_id>")
def save(sew_along_id: int) -> Reply | tuple[str, int]:
    kept, given = find(sew_along_id), request.form.to_dict()
    try:
        acts.save(shop(), now(), sew_along_id, given)
    except Clashing as clash:
        return _one(kept, clash.values, as_shown(clash.now), clash), 400
    except FieldFault as fault:
        return _one(kept, given, given.get(SHOWN, ""), fault), 400
    return redirect(url_for("along.one", sew_along_id=sew_along_id))


@room.post("/<int:sew_along_id>/reserve")
def reserve(sew_along_id: int) -> Reply | tuple[str, int]:
    """Take what makers may want of a cloth out of the stock, or put it back."""
    kept = find(sew_along_id)
    try:
        asked = acts.asked_of(now(), kept)
        cloth_id = as_number(request.form.get("cloth", ""))
        of = next((each for each in supplies(shop(), now(), asked, sew_along_id) if each.record.id == cloth_id), None) or abort(
            404
        )
        if request.form.get("act") == "back":
            for each in of.reserved:
                return_reserved(shop(), each.id)
        else:
            acts.reserve_for(shop(), kept, of)
    except FieldFault as fault:
        return _one(kept, fault=fault), 400
    return redirect(url_for("along.one", sew_along_id=sew_along_id, _anchor="cloth"))


@room.post("/<int:sew_along_id>/public")
def public(sew_along_id: int) -> Reply:
    """Show it to all, or withdraw it: its old address is dead."""
    find(sew_along_id)
    acts.open_to_all(shop(), sew_along_id, request.form.get("act") == "show")
    return redirect(url_for("along.one", sew_along_id=sew_along_id, _anchor="public"))


@room.post("/<int:sew_along_id>/remove")
def remove(sew_along_id: int) -> Reply:
    kept = find(sew_along_id)
    acts.remove(shop(), sew_along_id)
    tell_binned("sew-along", sew_along_id, kept.name)
    return redirect(url_for("along.page"))


@room.get("/<int:sew_along_id>/<any(checklist, worksheet):what>.pdf")
@by_worker(SHEET)
def printed(sew_along_id: int, what: str) -> Reply:
    kept = find(sew_along_id)
    try:
        return paper_of(kept, what)
    except FieldFault:  # the page says what is put away, and mends it
        return redirect(url_for("along.one", sew_along_id=sew_along_id))


def paper_of(kept: SewAlong, what: str) -> Response:
    """The makers' checklist or the size worksheet."""
    found = told(kept, acts.asked_of(now(), kept))
    html = render_template(f"air/along/{what}.html", paper=paper_asked(), fonts=fonts_by_name(), **found)
    return as_pdf(html, f"{what}-{kept.id}")


@room.get("/<int:sew_along_id>/calendar.ics")
def calendar(sew_along_id: int) -> Reply:
    kept = find(sew_along_id)
    try:
        return calendar_of(kept, "")
    except FieldFault:
        return redirect(url_for("along.one", sew_along_id=sew_along_id))


def calendar_of(kept: SewAlong, address: str) -> Response:
    found = told(kept, acts.asked_of(now(), kept))
    text = as_calendar(kept, found["asked"], found["days"], found["zone"], moment(), address)
    return download(text, f"sew-along-{kept.id}.ics", "text/calendar; charset=utf-8")
