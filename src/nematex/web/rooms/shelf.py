"""The shelf of cloths, one cloth, and its form."""

from __future__ import annotations

from flask import Blueprint, redirect, render_template, request, url_for
from werkzeug.wrappers import Response

from nematex.core.errors import FieldFault
from nematex.store.cloths import remove_cloth
from nematex.usecases.browsing import browse_cloths
from nematex.usecases.cloth_form import CHOICES, FIELDS, cloth_names, form_values, record_from_form
from nematex.usecases.exchange import cloths_csv, cloths_json
from nematex.usecases.ranking import Filters, rank_patterns, read_wish
from nematex.usecases.readings import keep_cloths
from nematex.web.rooms.common import download, filters, find_cloth, shop

room = Blueprint("shelf", __name__, url_prefix="/shelf")


@room.get("")
def cloths() -> str:
    chosen = filters()
    return render_template("shelf/list.html", found=browse_cloths(shop().shelf(), chosen), filters=chosen)


@room.get("/<int:cloth_id>")
def cloth(cloth_id: int) -> str:
    _, record, facts = find_cloth(cloth_id)
    best = rank_patterns(shop().drawer(), record, facts, read_wish({}), Filters())
    return render_template("shelf/cloth.html", record=record, cloth=facts, best=best)


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
        remove_cloth(work, cloth_id)
    return redirect(url_for("shelf.cloths"))


@room.get("/export.csv")
def export_csv() -> Response:
    return download(cloths_csv(shop().shelf().records), "cloths.csv", "text/csv; charset=utf-8")


@room.get("/export.json")
def export_json() -> Response:
    return download(cloths_json(shop().shelf().records), "cloths.json", "application/json")
