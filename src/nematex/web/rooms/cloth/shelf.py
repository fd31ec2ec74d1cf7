"""The shelf of cloths, one cloth, and its form."""

from __future__ import annotations

from flask import Blueprint, redirect, render_template, request, url_for
from werkzeug.wrappers import Response

from nematex.core.cloth.readings import in_force
from nematex.core.errors import FieldFault
from nematex.store.records import ClothRecord
from nematex.tables import colour_words, readable
from nematex.usecases.cloth import acts
from nematex.usecases.cloth.browse import browse_cloths, found_cloths
from nematex.usecases.cloth.exchange import cloths_csv, cloths_json, cloths_xlsx
from nematex.usecases.cloth.form import choices_of, cloth_names, form_groups, form_values
from nematex.usecases.cloth.lacks.lacks import lacks_of_cloth
from nematex.usecases.cloth.shelf_filter import LABELS, filter_choices
from nematex.usecases.forms.merging import SHOWN, Clashing, as_shown
from nematex.usecases.judging.ranking import Filters, rank_patterns, read_wish
from nematex.usecases.programme.stocked.stand_ins import stand_ins
from nematex.web.rooms.common import download, find_cloth, inside, now, shop, tell_binned
from nematex.web.rooms.made import EXPORT, by_worker

room = Blueprint("shelf", __name__, url_prefix="/shelf")
BEST_SHOWN = 8
XLSX = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"


@room.get("")
def cloths() -> str:
    chosen, faults = acts.asked_filter(shop(), now(), request.args)
    return render_template(
        "cloth/list.html",
        found=browse_cloths(now().shelf, chosen),
        chosen=chosen,
        faults=faults,
        given=request.args,
        saved=acts.saved_filters(shop()),
        choices=filter_choices(now().tables),
        labels=LABELS,
        colour_words=list(colour_words().by_word),
    )


@room.post("/filters")
def keep_filter() -> Response:
    query = request.form.get("query", "")
    acts.keep_filter(shop(), request.form.get("name", ""), query)
    return redirect(inside(f"{url_for('shelf.cloths')}?{query}", url_for("shelf.cloths")))


@room.post("/filters/<int:filter_id>/remove")
def drop_filter(filter_id: int) -> Response:
    acts.drop_filter(shop(), filter_id)
    return redirect(url_for("shelf.cloths"))


@room.get("/<int:cloth_id>")
def cloth(cloth_id: int) -> str:
    record, facts = find_cloth(cloth_id)
    readings = acts.readings_by_property(shop(), cloth_id)
    alike, cheaper = stand_ins(shop(), now(), record)
    return render_template(
        "cloth/cloth.html",
        record=record,
        cloth=facts,
        best=rank_patterns(shop(), now(), record, read_wish({}), Filters(), BEST_SHOWN),
        properties=readable(),
        readings={name: (in_force(found), found) for name, found in readings.items()},
        lacks=lacks_of_cloth(shop(), now(), cloth_id),
        alike=alike,
        cheaper=cheaper,
        beside=request.args.get("beside", "ruler"),
    )


def _form(values: dict[str, str], record_id: int | None, shown: str = "", fault: FieldFault | None = None) -> str:
    return render_template(
        "cloth/form.html",
        values=values,
        shown=shown,
        groups=form_groups(),
        choices_of=choices_of,
        fault=fault,
        record_id=record_id,
        cloth_names=cloth_names(now().tables),
    )


@room.get("/new")
def new() -> str:
    return _form({}, None)


@room.get("/<int:cloth_id>/edit")
def edit(cloth_id: int) -> str:
    values = form_values(find_cloth(cloth_id)[0])
    return _form(values, cloth_id, as_shown(values))


@room.post("/new")
@room.post("/<int:cloth_id>/edit")
def save(cloth_id: int | None = None) -> Response | tuple[str, int]:
    values = {name: text.strip() for name, text in request.form.items()}
    try:
        kept = acts.save_cloth(shop(), now(), values, cloth_id)
    except Clashing as fault:
        return _form(fault.values, cloth_id, as_shown(fault.now), fault), 400
    except FieldFault as fault:
        return _form(values, cloth_id, values.get(SHOWN, ""), fault), 400
    return redirect(url_for("shelf.cloth", cloth_id=kept))


@room.post("/<int:cloth_id>/remove")
def remove(cloth_id: int) -> Response:
    name = find_cloth(cloth_id)[0].facts.name
    acts.remove_cloth(shop(), cloth_id)
    tell_binned("cloth", cloth_id, name)
    return redirect(url_for("shelf.cloths"))


def _asked_for() -> list[ClothRecord]:
    """The cloths of the filter in the address; all of them without one."""
    shelf = now().shelf
    chosen, faults = acts.asked_filter(shop(), now(), request.args)
    if faults:
        raise faults[0]
    return [shelf.records[at] for at in found_cloths(shelf, chosen)]


@room.get("/export.csv")
@by_worker(EXPORT)
def export_csv() -> Response:
    return download(cloths_csv(_asked_for()), "cloths.csv", "text/csv; charset=utf-8")


@room.get("/export.xlsx")
@by_worker(EXPORT)
def export_xlsx() -> Response:
    return download(cloths_xlsx(_asked_for()), "cloths.xlsx", XLSX)


@room.get("/export.json")
@by_worker(EXPORT)
def export_json() -> Response:
    return download(cloths_json(_asked_for()), "cloths.json", "application/json")
