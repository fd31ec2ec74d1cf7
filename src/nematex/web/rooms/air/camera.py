"""The camera view and the takes that it sends: dark, large, one part at a time, and working while the shop does not answer."""

from __future__ import annotations

from datetime import datetime
from pathlib import Path

from flask import Blueprint, Response, jsonify, render_template, request, url_for

from nematex.core.air.run_sheet import clock
from nematex.core.errors import FieldFault
from nematex.usecases.air.camera import shots
from nematex.usecases.air.remote import find_remote, new_remote, presses
from nematex.usecases.air.takes import keep_sent, read_take
from nematex.web.qr import qr_svg
from nematex.web.rooms.common import as_number, json_sent, now, shop
from nematex.web.rooms.programme.programmes import find_programme
from nematex.web.rooms.shown_at import shown_at

room = Blueprint("camera", __name__, url_prefix="/programmes/<int:programme_id>/air")
WORKER = Path(__file__).resolve().parents[2] / "static/camera-worker.js"
SHOWN = {"part": int, "title": str, "fact": str, "next": str, "clock": str, "state": str}  # what a remote is told
LONGEST_SHOWN = 300


@room.get("/")
def page(programme_id: int) -> str:
    programme = find_programme(programme_id)
    run, found = shots(shop(), now(), programme)
    plan = [
        {"title": one.timed.part.title, "kind": one.timed.part.kind, "seconds": one.base_s, "picks": one.timed.part.picks}
        for one in found
    ]
    return render_template("air/camera.html", programme=programme, run=run, shots=found, plan=plan, clock=clock)


@room.get("/worker.js")
def worker(programme_id: int) -> Response:
    """What lets the page be opened again while the shop does not answer; it may keep this programme's camera view alone."""
    find_programme(programme_id)
    return Response(WORKER.read_bytes(), content_type="text/javascript; charset=utf-8", headers={"Cache-Control": "no-cache"})


@room.post("/takes")
def takes(programme_id: int) -> Response | tuple[Response, int]:
    """Keep what is new of a take; answers with the keys that are kept."""
    try:
        return jsonify(kept=keep_sent(shop(), programme_id, read_take(request.get_data())))
    except FieldFault as fault:
        return jsonify(fault=str(fault)), 400


@room.post("/remote")
def remote(programme_id: int) -> Response:
    """A code for a phone, and the address that a phone reads from the picture."""
    find_programme(programme_id)
    code = new_remote(shop(), programme_id, datetime.now())
    address = shown_at(url_for("remote.page", code=code))
    return jsonify(code=code, address=address, picture=qr_svg(address))


@room.post("/remote/<code>")
def pressed(programme_id: int, code: str) -> Response | tuple[Response, int]:
    """Tell the remote what is shown; answers with what it pressed after the press of number `after`."""
    found = find_remote(shop(), code, datetime.now())
    if found is None or found.programme_id != programme_id:
        return jsonify(fault="This code is no longer good: ask for another."), 404
    sent = json_sent()
    shows = {name: kind(given) for name, kind in SHOWN.items() if isinstance(given := sent.get(name), kind)}
    shows = {name: value[:LONGEST_SHOWN] if isinstance(value, str) else value for name, value in shows.items()}
    after = as_number(request.args.get("after", "")) or 0
    told, now_s = presses(shop(), found.code, after, shows), datetime.now().timestamp()
    ages = [{"id": one.id, "kind": one.kind, "text": one.text, "age": max(0.0, now_s - one.pressed_at_s)} for one in told]
    return jsonify(presses=ages)
