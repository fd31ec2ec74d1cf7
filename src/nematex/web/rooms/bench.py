"""The bench: one guided page per measurement, made for a phone at the cutting table."""

from __future__ import annotations

import secrets

from flask import Blueprint, Response, abort, redirect, render_template, request, session, url_for
from werkzeug.wrappers import Response as Reply

from nematex.core.cloth import Cloth
from nematex.core.errors import FieldFault
from nematex.core.readings import in_force
from nematex.devices.bench import FAULTS
from nematex.store.readings import photo, readings_of
from nematex.store.records import ClothRecord, ReadingRecord
from nematex.tables import properties, trade_tables
from nematex.usecases.bench import Outcome, work_out
from nematex.usecases.bench_measures import MEASURES, Measure, Method, measure_named
from nematex.usecases.bench_moves import moves
from nematex.usecases.bench_photos import read_photos
from nematex.usecases.browsing import browse_cloths
from nematex.usecases.hanging import CHECK_OF
from nematex.usecases.quality import worth_first
from nematex.usecases.readings import keep_readings
from nematex.usecases.shelf_filter import ShelfFilter
from nematex.usecases.simulated import photographed, simulated_bench, taken
from nematex.usecases.worth import worth_measuring
from nematex.web.rooms.aids import AIDS
from nematex.web.rooms.common import find_cloth, shop

room = Blueprint("bench", __name__, url_prefix="/bench")
WORTH_SHOWN = 8


@room.get("")
def overview() -> str:
    asked = request.args.get("q", "")[:200]
    hits = [record for record, _ in browse_cloths(shop().shelf(), ShelfFilter(q=asked)).rows] if asked else []
    first = worth_first(shop(), WORTH_SHOWN)
    return render_template("bench/overview.html", measures=MEASURES.values(), first=first, aids=AIDS, q=asked, hits=hits)


def _in_force(cloth_id: int) -> dict[str, tuple[ReadingRecord, int]]:
    """Property → the reading in force and how many there are."""
    with shop().database.work() as work:
        found = readings_of(work, cloth_id)
    by_property: dict[str, list[ReadingRecord]] = {}
    for each in found:
        by_property.setdefault(each.property, []).append(each)
    return {name: (best, len(all_)) for name, all_ in by_property.items() if (best := in_force(all_))}


@room.get("/<int:cloth_id>")
def cloth(cloth_id: int) -> str:
    _, record, facts = find_cloth(cloth_id)
    return render_template(
        "bench/cloth.html",
        record=record,
        cloth=facts,
        measures=MEASURES.values(),
        held=_in_force(cloth_id),
        properties=properties(),
        worth=worth_measuring(shop().drawer(), facts),
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
    found = moves(shop().drawer(), record, outcome.readings) if outcome else None
    return render_template(
        "bench/measure.html",
        record=record,
        cloth=facts,
        measure=measure,
        method=method,
        values=values,
        outcome=outcome,
        moves=found,
        fault=fault,
        faults=FAULTS,
        simulated=_can_be_simulated(record, facts, measure, method),
        properties=properties(),
        held=_in_force(record.id),
        decides=CHECK_OF,
        hands={hand.word: hand for hand in trade_tables().cloth_hands.values()}.values(),
    )


def _can_be_simulated(record: ClothRecord, facts: Cloth, measure: Measure, method: Method) -> bool:
    bench = simulated_bench(record, facts, "none", 0)
    return any(each.photo for each in method.fields) or bool(taken(bench, measure, method, {}))


@room.get("/<int:cloth_id>/<name>")
def measure(cloth_id: int, name: str) -> str:
    _, record, facts = find_cloth(cloth_id)
    found = measure_named(name)
    method = found.method(request.args.get("method", found.methods[0].name))
    return _page(record, facts, found, method, {"by": session.get("by", "")})


@room.post("/<int:cloth_id>/<name>")
def act(cloth_id: int, name: str) -> Reply | str | tuple[str, int]:
    """Look at what the boxes come to, fill them from the simulated instruments, or keep them."""
    _, record, facts = find_cloth(cloth_id)
    found = measure_named(name)
    method = found.method(request.form.get("method", ""))
    values = {key: text.strip() for key, text in request.form.items()}
    session["by"] = values.get("by", "")[:60]
    sent = {each.name: file.read() for each in method.fields if each.photo and (file := request.files.get(each.name))}
    try:
        if values.get("act") == "take":
            bench = simulated_bench(record, facts, values.get("fault", "none"), secrets.randbits(32))
            sent, scale = photographed(bench, found, method)
            values |= scale | taken(bench, found, method, values)
        values |= read_photos(shop(), record, found, method, sent, values)
        outcome = work_out(found, method, values, facts, record)
    except FieldFault as fault:
        return _page(record, facts, found, method, values, fault=fault), 400
    if values.get("act") != "keep":
        return _page(record, facts, found, method, values, outcome)
    with shop().database.work() as work:
        keep_readings(work, record, outcome.readings)
    return redirect(url_for("bench.cloth", cloth_id=cloth_id, kept=found.name))


@room.get("/photo/<int:photo_id>.jpg")
def picture(photo_id: int) -> Response:
    with shop().database.work() as work:
        found = photo(work, photo_id) or abort(404)
    return Response(found.content, content_type="image/jpeg", headers={"Cache-Control": "private, max-age=86400"})
