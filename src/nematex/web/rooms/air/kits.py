"""Kits that are offered: kept from the kit's page, sold one by one, with leaflet and labels."""

from __future__ import annotations

from datetime import datetime

from flask import Blueprint, Response, abort, redirect, render_template, request, url_for
from werkzeug.wrappers import Response as Reply

from nematex.core.errors import FieldFault
from nematex.core.paging import page_of
from nematex.usecases.air import kits
from nematex.usecases.air.kits import Offered
from nematex.usecases.programme.acts import programme
from nematex.web.pdf import fonts_by_name
from nematex.web.rooms.common import as_number, now, numbers, shop, tell_binned, whole_number
from nematex.web.rooms.kit.kit import asked_answer, kit_page
from nematex.web.rooms.made import SHEET, by_worker
from nematex.web.rooms.paper import as_pdf, paper_asked

room = Blueprint("kits", __name__, url_prefix="/kits")
MOST_LABELS = 1000


def _find(kit_id: int) -> Offered:
    return kits.find_kit(shop(), now(), kit_id) or abort(404)


@room.get("")
def page() -> str:
    found = [each for kit in kits.all_kits(shop()) if (each := kits.offered(shop(), now(), kit))]
    return render_template("kit/offers.html", found=page_of(found, whole_number("page")))


@room.post("")
def keep() -> Reply | tuple[str, int]:
    """Reserve what was worked out and offer it."""
    given, answer, fault = asked_answer()
    programme_id = as_number(request.form.get("programme", ""))
    if programme_id and programme(shop(), programme_id) is None:
        abort(404)
    try:
        if answer is None:
            raise fault or FieldFault("kit", "", "is not worked out yet")
        number = kits.keep_kit(shop(), now(), answer, request.form.get("name", ""), programme_id, datetime.now())
    except FieldFault as found:
        return kit_page(given, answer, found), 400
    return redirect(url_for("kits.one", kit_id=number))


def _one(found: Offered, fault: FieldFault | None = None) -> str:
    of = programme(shop(), found.kit.programme_id) if found.kit.programme_id else None
    return render_template("kit/offer.html", one=found, of=of, fault=fault, shown=kits.optional_shown(found.kit))


@room.get("/<int:kit_id>")
def one(kit_id: int) -> str:
    return _one(_find(kit_id))


@room.post("/<int:kit_id>")
def change(kit_id: int) -> Reply | tuple[str, int]:
    """`act`: "sell 12", "back 12" for a size, or "optional"."""
    found = _find(kit_id)
    act, _, size = request.form.get("act", "").partition(" ")
    try:
        if act == "optional":
            optional = frozenset(numbers(request.form.getlist("optional")))
            kits.say_optional(shop(), kit_id, optional, request.form.get("shown"))
        elif act in ("sell", "back"):
            kits.sell(shop(), kit_id, size, 1 if act == "sell" else -1, datetime.now())
        else:
            abort(400)
    except FieldFault as fault:
        return _one(found, fault), 400
    return redirect(url_for("kits.one", kit_id=kit_id))


@room.post("/<int:kit_id>/remove")
def remove(kit_id: int) -> Reply:
    name = _find(kit_id).kit.name
    kits.remove_kit(shop(), kit_id)
    tell_binned("kit", kit_id, name)
    return redirect(url_for("kits.page"))


@room.get("/<int:kit_id>/<any(leaflet, labels):what>.pdf")
@by_worker(SHEET)
def printed(kit_id: int, what: str) -> Response:
    """The leaflet of a kit, or a label for each of them."""
    found = _find(kit_id)
    if what == "labels" and found.kit.total > MOST_LABELS:
        raise FieldFault("kit", found.kit.total, f"are too many labels at once; at most {MOST_LABELS}")
    labels = [(size, metres) for size, metres, count in found.kit.sizes for _ in range(count)] if what == "labels" else []
    html = render_template(f"kit/{what}.html", one=found, labels=labels, paper=paper_asked(), fonts=fonts_by_name())
    return as_pdf(html, f"kit-{what}-{kit_id}")
