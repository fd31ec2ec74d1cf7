"""The shelf of cloths, one cloth, and its form."""

from __future__ import annotations

from flask import Blueprint, redirect, render_template, request, url_for
from werkzeug.wrappers import Response

from nematex.core.errors import FieldFault
from nematex.core.readings import in_force
from nematex.store.cloths import remove_cloths
from nematex.store.filters import remove_filter, save_filter, saved_filters
from nematex.store.readings import readings_of
from nematex.store.records import ClothRecord, ReadingRecord
from nematex.tables import colour_names, properties
from nematex.usecases.browsing import browse_cloths, found_cloths
from nematex.usecases.cloth_form import CHOICES, FIELDS, cloth_names, form_values, record_from_form
from nematex.usecases.exchange import cloths_csv, cloths_json, cloths_xlsx
from nematex.usecases.quality import lacks_of_cloth
from nematex.usecases.ranking import Filters, rank_patterns, read_wish
from nematex.usecases.readings import keep_cloths
from nematex.usecases.shelf_filter import CHOICES as FILTER_CHOICES
from nematex.usecases.shelf_filter import LABELS, read_filter
from nematex.web.rooms.common import download, find_cloth, shop

room = Blueprint("shelf", __name__, url_prefix="/shelf")
XLSX = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"


@room.get("")
def cloths() -> str:
    chosen, faults = read_filter(request.args)
    with shop().database.work() as work:
        saved = saved_filters(work)
    return render_template(
        "shelf/list.html",
        found=browse_cloths(shop().shelf(), chosen),
        chosen=chosen,
        faults=faults,
        given=request.args,
        saved=saved,
        choices=FILTER_CHOICES,
        labels=LABELS,
        colour_words=[each.name for each in colour_names()],
    )


@room.post("/filters")
def keep_filter() -> Response:
    name, query = request.form.get("name", "").strip()[:80], request.form.get("query", "")[:1000]
    if not name:
        raise FieldFault("name of the filter", "", "is missing; call it something you will know again")
    with shop().database.work() as work:
        save_filter(work, name, query)
    return redirect(f"{url_for('shelf.cloths')}?{query}")


@room.post("/filters/<int:filter_id>/remove")
def drop_filter(filter_id: int) -> Response:
    with shop().database.work() as work:
        remove_filter(work, filter_id)
    return redirect(url_for("shelf.cloths"))


@room.get("/<int:cloth_id>")
def cloth(cloth_id: int) -> str:
    _, record, facts = find_cloth(cloth_id)
    best = rank_patterns(shop().drawer(), record, facts, read_wish({}), Filters())
    with shop().database.work() as work:
        readings = readings_of(work, cloth_id)
    by_property: dict[str, list[ReadingRecord]] = {name: [] for name in properties()}
    for each in readings:
        by_property.setdefault(each.property, []).append(each)
    return render_template(
        "shelf/cloth.html",
        record=record,
        cloth=facts,
        best=best,
        properties=properties(),
        readings={name: (in_force(found), found) for name, found in by_property.items() if found},
        lacks=lacks_of_cloth(shop(), cloth_id),
        beside=request.args.get("beside", "ruler"),
    )


def _form(values: dict[str, str], record_id: int | None, fault: FieldFault | None = None) -> str:
    return render_template(
        "shelf/form.html",
        values=values,
        fields=FIELDS,
        choices=CHOICES,
        fault=fault,
        record_id=record_id,
        cloth_names=cloth_names(),
    )


@room.get("/new")
def new() -> str:
    return _form({}, None)


@room.get("/<int:cloth_id>/edit")
def edit(cloth_id: int) -> str:
    return _form(form_values(find_cloth(cloth_id)[1]), cloth_id)


@room.post("/new")
@room.post("/<int:cloth_id>/edit")
def save(cloth_id: int | None = None) -> Response | tuple[str, int]:
    old = find_cloth(cloth_id)[1] if cloth_id else None
    values = {name: text.strip() for name, text in request.form.items()}
    try:
        record = record_from_form(values, old, {each.code.casefold() for each in shop().shelf().records})
    except FieldFault as fault:
        return _form(values, cloth_id, fault), 400
    with shop().database.work() as work:
        before = {old.code.casefold(): old} if old else {}
        keep_cloths(work, [record], before, "the shop", "typed")
    kept = next(each for each in shop().shelf().records if each.code == record.code)
    return redirect(url_for("shelf.cloth", cloth_id=kept.id))


@room.post("/<int:cloth_id>/remove")
def remove(cloth_id: int) -> Response:
    with shop().database.work() as work:
        remove_cloths(work, [cloth_id])
    return redirect(url_for("shelf.cloths"))


def _asked_for() -> list[ClothRecord]:
    """The cloths of the filter in the address; all of them without one."""
    shelf = shop().shelf()
    chosen, faults = read_filter(request.args)
    if faults:
        raise faults[0]
    return [shelf.records[at] for at in found_cloths(shelf, chosen)]


@room.get("/export.csv")
def export_csv() -> Response:
    return download(cloths_csv(_asked_for()), "cloths.csv", "text/csv; charset=utf-8")


@room.get("/export.xlsx")
def export_xlsx() -> Response:
    return download(cloths_xlsx(_asked_for()), "cloths.xlsx", XLSX)


@room.get("/export.json")
def export_json() -> Response:
    return download(cloths_json(_asked_for()), "cloths.json", "application/json")
