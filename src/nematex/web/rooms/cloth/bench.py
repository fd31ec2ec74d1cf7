"""The bench: one guided page per measurement, made for a phone at the cutting table."""

from __future__ import annotations

import secrets

from flask import Blueprint, Response, abort, redirect, render_template, request, session, url_for
from werkzeug.wrappers import Response as Reply

from nematex.core.cloth.estimates import Cloth
from nematex.core.errors import FieldFault
from nematex.devices.bench import FAULTS
from nematex.store.records import ClothRecord
from nematex.tables import properties
from nematex.usecases.cloth import acts
from nematex.usecases.cloth.bench.acts import work_out
from nematex.usecases.cloth.bench.measures import MEASURES, Measure, Method, measure_named
from nematex.usecases.cloth.bench.moves import moves
from nematex.usecases.cloth.bench.sheet import SIMULATED, Outcome
from nematex.usecases.cloth.bench.simulated import photographed, simulated_bench, taken
from nematex.usecases.cloth.browse import browse_cloths
from nematex.usecases.cloth.lacks.lacks import worth_first
from nematex.usecases.cloth.lacks.worth import MOST_TRIED, worth_measuring
from nematex.usecases.cloth.shelf_filter import ShelfFilter
from nematex.usecases.photo.at_the_bench import read_photos
from nematex.usecases.photo.swatch import photo_by_id
from nematex.web.guard.who import their_form
from nematex.web.rooms.cloth.aids import AIDS
from nematex.web.rooms.common import as_number, find_cloth, now, shop

room = Blueprint("bench", __name__, url_prefix="/bench")
WORTH_SHOWN = 8


@room.get("")
def overview() -> str:
    asked = request.args.get("q", "")[:200]
    hits = [record for record, _ in browse_cloths(now().shelf, ShelfFilter(q=asked)).rows] if asked else []
    first = worth_first(shop(), now(), WORTH_SHOWN)
    return render_template("cloth/bench/overview.html", measures=MEASURES.values(), first=first, aids=AIDS, q=asked, hits=hits)


@room.get("/<int:cloth_id>")
def cloth(cloth_id: int) -> str:
    record, facts = find_cloth(cloth_id)
    worth = worth_measuring(now().drawer, facts)
    return render_template(
        "cloth/bench/cloth.html",
        record=record,
        cloth=facts,
        measures=sorted(MEASURES.values(), key=lambda one: (-worth.get(one.name, 0), one.label)),
        held=acts.readings_in_force(shop(), cloth_id),
        properties=properties(),
        worth=worth,
        tried=min(MOST_TRIED, len(now().drawer.records)),
        patterns=len(now().drawer.records),
    )


def _page(
    record: ClothRecord,
    facts: Cloth,
    measure: Measure,
    method: Method,
    values: dict[str, str],
    outcome: Outcome | None = None,
    fault: FieldFault | None = None,
) -> str:
    counted = outcome.readings if outcome and (now().is_made_up or not values.get(SIMULATED)) else []
    found = moves(now().drawer, record, counted) if outcome else None
    return render_template(
        "cloth/bench/measure.html",
        record=record,
        cloth=facts,
        measure=measure,
        method=method,
        values=values,
        outcome=outcome,
        moves=found,
        patterns=len(now().drawer.records),
        fault=fault,
        faults=FAULTS,
        simulated=_can_be_simulated(record, facts, measure, method),
        properties=properties(),
        held=acts.readings_in_force(shop(), record.id),
        made_up=now().is_made_up,
        seen=acts.latest_reading(shop(), record.id),
        decides={name for name, prop in properties().items() if prop.check},
        hands={hand.word: hand for hand in now().tables.cloth_hands.values()}.values(),
    )


def _can_be_simulated(record: ClothRecord, facts: Cloth, measure: Measure, method: Method) -> bool:
    bench = simulated_bench(record, facts, "none", 0)
    return any(each.photo for each in method.fields) or bool(taken(bench, measure, method, {}))


@room.get("/<int:cloth_id>/<name>")
def measure(cloth_id: int, name: str) -> str:
    record, facts = find_cloth(cloth_id)
    found = measure_named(name)
    method = found.method(request.args.get("method", found.methods[0].name))
    return _page(record, facts, found, method, {"by": session.get("by", "")})


@room.post("/<int:cloth_id>/<name>")
def act(cloth_id: int, name: str) -> Reply | str | tuple[str, int]:
    """Look at what the boxes come to, fill them from the simulated instruments, or keep them."""
    record, facts = find_cloth(cloth_id)
    found = measure_named(name)
    method = found.method(request.form.get("method", ""))
    values = {key: text.strip() for key, text in their_form().items()}
    session["by"] = values.get("by", "")[:60]
    sent = {each.name: file.read() for each in method.fields if each.photo and (file := request.files.get(each.name))}
    try:
        if values.get("act") == "take":
            bench = simulated_bench(record, facts, values.get("fault", "none"), secrets.randbits(32))
            sent, scale = photographed(bench, found, method)
            values |= scale | taken(bench, found, method, values) | {SIMULATED: "1"}
        values |= read_photos(shop(), record, found, method, sent, values)
        outcome = work_out(found, method, values, facts, record, now().tables)
    except FieldFault as fault:
        return _page(record, facts, found, method, values, fault=fault), 400
    if values.get("act") != "keep":
        return _page(record, facts, found, method, values, outcome)
    try:
        acts.keep_measurement(shop(), record, outcome.readings, as_number(values.get("seen", "")))
    except FieldFault as fault:
        return _page(record, facts, found, method, values, outcome, fault), 400
    return redirect(url_for("bench.cloth", cloth_id=cloth_id, kept=found.name))


@room.get("/photo/<int:photo_id>.jpg")
def picture(photo_id: int) -> Response:
    found = photo_by_id(shop(), photo_id) or abort(404)
    return Response(found.content, content_type="image/jpeg", headers={"Cache-Control": "private, max-age=86400"})
