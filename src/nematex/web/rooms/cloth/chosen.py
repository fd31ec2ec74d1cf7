"""Several cloths chosen on the shelf: compared side by side, or changed together."""

from __future__ import annotations

from flask import Blueprint, redirect, render_template, request, url_for
from werkzeug.wrappers import Response

from nematex.core.cloth.estimates import Cloth
from nematex.core.errors import FieldFault
from nematex.store.records import ClothRecord
from nematex.usecases.cloth.acts import asked_filter
from nematex.usecases.cloth.browse import found_cloths
from nematex.usecases.cloth.bulk import apply_bulk, bulk_changes, bulk_fields, sign_of_changes
from nematex.usecases.cloth.form import choices_of
from nematex.web.guard.who import their_name
from nematex.web.rooms.common import now, numbers, shop

room = Blueprint("chosen", __name__, url_prefix="/shelf")
MOST_COMPARED = 4
SHOWN = 100
NAMED = 12  # of the cloths to be changed


def _chosen(given: list[str]) -> list[tuple[ClothRecord, Cloth]]:
    """The cloths by their numbers, each once; raises FieldFault where none is left."""
    found = [cloth for number in numbers(given) if (cloth := now().cloth(number))]
    if not found:
        raise FieldFault("cloths", "", "are missing; tick some on the shelf first")
    return found


@room.get("/compare")
def compare() -> str:
    found = _chosen(request.args.getlist("cloth"))
    return render_template("cloth/compare.html", rows=found[:MOST_COMPARED], left=max(0, len(found) - MOST_COMPARED))


def _to_change() -> list[ClothRecord]:
    """The ticked ones, or all that fit the filter."""
    if request.values.get("all"):
        shelf = now().shelf
        chosen, faults = asked_filter(shop(), now(), request.values)
        if faults:
            raise faults[0]
        return [shelf.records[at] for at in found_cloths(shelf, chosen)]
    return [record for record, _ in _chosen(request.values.getlist("cloth"))]


@room.get("/together")
@room.post("/together")
def together() -> Response | str | tuple[str, int]:
    """Choose a field and its new value, see what would change, make it so."""
    records = _to_change()
    field, text = request.values.get("field", ""), request.values.get("text", "").strip()
    changes, fault = None, None
    try:
        if field:
            changes = bulk_changes(records, field, text, now().tables)
        if changes is not None and request.method == "POST":
            by = their_name(request.values.get("by", "")) or "the shop"
            apply_bulk(shop(), records, field, text, now().tables, by, request.form.get("shown"))
            return redirect(url_for("shelf.cloths"))
    except FieldFault as found:
        fault = found
    page = render_template(
        "cloth/together.html",
        records=records,
        fields=bulk_fields(),
        choices_of=choices_of,
        field=field,
        text=text,
        changes=changes,
        sign=sign_of_changes(changes or []),
        fault=fault,
        shown=SHOWN,
        named=NAMED,
        given=request.values,
    )
    return (page, 400) if fault else page
