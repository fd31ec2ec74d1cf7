"""The drawer of patterns, one pattern, and its form."""

from __future__ import annotations

from typing import Any

from flask import Blueprint, redirect, render_template, request, url_for
from werkzeug.wrappers import Response

from nematex.core.beneath.notions import read_notions
from nematex.core.codes import code_key
from nematex.core.errors import FieldFault
from nematex.core.judging.size_advice import is_off_list_knit, knit_in_woven
from nematex.core.pattern.facts import Wish
from nematex.core.pattern.paste import Draft
from nematex.store.records import PatternRecord
from nematex.usecases.cloth.browse import browse_patterns
from nematex.usecases.forms.merging import SHOWN, Clashing, as_shown
from nematex.usecases.judging.ranking import one_pairing, read_wish
from nematex.usecases.pattern.acts import save_pattern, take_out
from nematex.usecases.pattern.amounts import amount_tables
from nematex.usecases.pattern.exchange import patterns_csv, patterns_json, patterns_xlsx
from nematex.usecases.pattern.form import form_values
from nematex.usecases.pattern.importing import import_patterns
from nematex.usecases.pattern.pasted import DONE, HELD, others_of, paste_into, pieces_of, place_lines
from nematex.usecases.pattern.pasted import PLACES as LINE_PLACES
from nematex.usecases.pattern.sizes import PLACES, Figures, figures_of, others_reaching
from nematex.web.rooms.common import as_number, download, filters, find_pattern, now, shop, tell_binned
from nematex.web.rooms.made import EXPORT, by_worker

room = Blueprint("patterns", __name__, url_prefix="/patterns")


@room.get("")
def patterns() -> str:
    chosen = filters()
    return render_template("pattern/list.html", found=browse_patterns(now().drawer, chosen), filters=chosen)


@room.get("/<int:pattern_id>")
def pattern(pattern_id: int) -> str:
    record = find_pattern(pattern_id)
    asked = now().drawer.demand(record, read_wish({}))
    notions = read_notions(record.facts.notions)
    return render_template(
        "pattern/pattern.html", record=record, demand=asked, notions=notions, amounts=amount_tables(record.facts)
    )


@room.get("/<int:pattern_id>/sizes")
def sizes(pattern_id: int) -> str:
    """Which size for these measurements, and what each size asks."""
    record = find_pattern(pattern_id)
    state, given = now(), request.args
    found = figures_of(record.facts, given, state.tables)
    others = others_reaching(state.drawer.records, record, found.body, state.tables) if found.body else []
    return render_template(
        "pattern/sizes.html",
        record=record,
        found=found,
        others=others if found.out_of_reach else [],
        held=_held(record, found),
        same_body={name: given[name][:40] for name in (*PLACES, "unit", "over", "cloth") if given.get(name)},
        values=given,
        places=PLACES,
    )


def _held(record: PatternRecord, found: Figures) -> dict[str, Any] | None:
    """The cloth that was in hand when the size was asked for, and what it does to the size; None where there was none."""
    state, size = now(), next((choice.size for choice in found.choices if choice.size), None)
    cloth = state.cloth(as_number(request.args.get("cloth", "")) or 0)
    if cloth is None:
        return None
    pairing = one_pairing(shop(), state, record, cloth[1], Wish())
    off_list = is_off_list_knit(cloth[1], pairing.demand.structure, pairing.checks["stretch"].verdict)
    advice = knit_in_woven(cloth[1], record.facts, size, state.tables) if off_list else None
    return {"record": cloth[0], "off_list": off_list, "advice": advice, "size": size}


def _form(
    values: dict[str, str],
    record_id: int | None,
    shown: str = "",
    fault: FieldFault | None = None,
    draft: Draft | None = None,
    kept: tuple[int, str] | None = None,
) -> str:
    page = {"values": values, "fault": fault, "record_id": record_id, "draft": draft, "shown": shown}
    pieces = pieces_of(draft, now().tables) if draft else {}
    others = others_of(draft, values) if draft else []
    return render_template("pattern/form.html", line_places=LINE_PLACES, pieces=pieces, others=others, kept=kept, **page)


@room.get("/new")
def new() -> str:
    return _form({}, None)


@room.get("/<int:pattern_id>/edit")
def edit(pattern_id: int) -> str:
    values = form_values(find_pattern(pattern_id))
    return _form(values, pattern_id, as_shown(values))


@room.post("/new")
@room.post("/<int:pattern_id>/edit")
def save(pattern_id: int | None = None) -> Response | tuple[str, int]:
    values = {name: text.strip() for name, text in request.form.items()}
    shown = values.get(SHOWN, "")
    act, _, garment = values.get("act", "").partition(":")
    if act == "read":
        values, draft = paste_into(values, now().tables, _codes(), garment)
        return _form(place_lines(values, draft, now().tables), pattern_id, shown, None, draft), 200
    try:
        kept = save_pattern(shop(), now(), values, pattern_id)
    except Clashing as fault:
        return _form(fault.values, pattern_id, as_shown(fault.now), fault), 400
    except FieldFault as fault:
        return _form(values, pattern_id, shown, fault), 400
    if garment:  # the envelope's next garment is a form of its own
        held = {name: values.get(name, "") for name in ("envelope", HELD)}
        held[DONE] = ",".join(filter(None, (values.get(DONE), values.get(HELD))))
        name, taken = values.get("name", ""), _codes() | {code_key(values.get("code", ""))}
        values, draft = paste_into(held, now().tables, taken, garment)
        return _form(values, None, "", None, draft, (kept, name)), 200
    return redirect(url_for("patterns.pattern", pattern_id=kept))


def _codes() -> set[str]:
    return {code_key(each.code) for each in now().drawer.records}


@room.post("/<int:pattern_id>/remove")
def remove(pattern_id: int) -> Response:
    name = find_pattern(pattern_id).facts.name
    take_out(shop(), pattern_id)
    tell_binned("pattern", pattern_id, name)
    return redirect(url_for("patterns.patterns"))


@room.post("/import")
def bring_in() -> Response | tuple[str, int]:
    sent = request.files.get("file")
    if sent is None or not sent.filename:
        raise FieldFault("file", "", "is missing; choose a CSV, XLSX or JSON file of patterns, as the export writes it")
    saved, faults = import_patterns(shop(), sent.filename, sent.read())
    return render_template("pattern/imported.html", saved=saved, faults=faults), 200 if saved else 400


@room.get("/export.csv")
@by_worker(EXPORT)
def export_csv() -> Response:
    return download(patterns_csv(now().drawer.records), "patterns.csv", "text/csv; charset=utf-8")


@room.get("/export.json")
@by_worker(EXPORT)
def export_json() -> Response:
    return download(patterns_json(now().drawer.records), "patterns.json", "application/json")


@room.get("/export.xlsx")
@by_worker(EXPORT)
def export_xlsx() -> Response:
    kind = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"
    return download(patterns_xlsx(now().drawer.records), "patterns.xlsx", kind)
