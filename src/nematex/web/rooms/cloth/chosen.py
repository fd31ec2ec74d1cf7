"""Several cloths chosen on the shelf: compared side by side, or changed together."""

from __future__ import annotations

from flask import Blueprint, abort, jsonify, redirect, render_template, request, url_for
from werkzeug.datastructures import MultiDict
from werkzeug.wrappers import Response

from nematex.core.cloth.estimates import Cloth
from nematex.core.errors import FieldFault
from nematex.store.records import ClothRecord, Job
from nematex.usecases.cloth.acts import asked_filter
from nematex.usecases.cloth.browse import found_cloths
from nematex.usecases.cloth.bulk import Seen, apply_bulk, bulk_changes, bulk_fields, check_field, seen
from nematex.usecases.cloth.form import choices_of
from nematex.usecases.cloth.together import AT_ONCE, JOB, Change, ask_change, change_of, cloths_of, seen_by
from nematex.usecases.jobs import asking
from nematex.web.guard.who import their_name
from nematex.web.rooms.common import now, numbers, shop

room = Blueprint("chosen", __name__, url_prefix="/shelf")
MOST_COMPARED = 4
UNKEPT = ("csrf_token", "shown")
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
    records, given = _to_change(), request.values
    field, text = given.get("field", ""), given.get("text", "").strip()
    makes = request.method == "POST"
    found, fault = None, None
    try:
        if field:
            check_field(field, text)
        if field and len(records) > AT_ONCE:
            shown = request.form.get("shown", "") if makes else None
            change = Change([each.id for each in records], field, text, _by(), shown)
            kept = [(name, text) for name, texts in given.lists() if name not in UNKEPT for text in texts]
            return redirect(url_for("chosen.at_work", job_id=ask_change(shop(), change, kept)))
        if field:
            found = seen(bulk_changes(records, field, text, now().tables))
        if found and makes:
            apply_bulk(shop(), records, field, text, now().tables, _by(), request.form.get("shown"))
            return redirect(url_for("shelf.cloths"))
    except FieldFault as wrong:
        fault = wrong
    page = _page(records, given, found, fault)
    return (page, 400) if fault else page


def _by() -> str:
    return their_name(request.values.get("by", "")) or "the shop"


def _page(
    records: list[ClothRecord], given: MultiDict[str, str], found: Seen | None, fault: FieldFault | None = None, said: str = ""
) -> str:
    return render_template(
        "cloth/together.html", records=records, fields=bulk_fields(), choices_of=choices_of, field=given.get("field", ""),
        text=given.get("text", "").strip(), found=found, fault=fault, said=said, named=NAMED, given=given,
    )  # fmt: skip


def _job(job_id: int) -> Job:
    found = asking.look(shop().database, job_id)
    return found[0] if found and found[0].kind == JOB else abort(404)


@room.get("/together/<int:job_id>")
def at_work(job_id: int) -> Response | str | tuple[str, int]:
    """What would change of very many cloths, or how far the change is."""
    kept = _job(job_id)
    change = change_of(kept)
    if kept.runs:
        return render_template("cloth/changing.html", job=kept, change=change)
    if kept.state == "done" and change.shown is not None:
        return redirect(url_for("shelf.cloths"))
    page = _page(cloths_of(shop(), change), MultiDict(kept.about["given"]), seen_by(kept), said=kept.message)
    return page if kept.state == "done" else (page, 400)


@room.get("/together/<int:job_id>/now")
def how_far(job_id: int) -> Response:
    kept = _job(job_id)
    return jsonify(done=kept.done, total=kept.total, next=None if kept.runs else url_for("chosen.at_work", job_id=job_id))


@room.post("/together/<int:job_id>/stop")
def stop(job_id: int) -> Response:
    asking.stop(shop().database, _job(job_id).id)
    return redirect(url_for("chosen.at_work", job_id=job_id))
