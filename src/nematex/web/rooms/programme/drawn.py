"""What is drawn as a PDF in the background: the look-book, the leaflet, the cue cards of a programme."""

from __future__ import annotations

import hashlib
import json
from datetime import date

from flask import Blueprint, Response, jsonify, redirect, render_template, url_for
from werkzeug.wrappers import Response as Reply

from nematex.store.records import Programme
from nematex.usecases.air.notes.told import told_of
from nematex.usecases.jobs import asking
from nematex.web.rooms.common import now, shop
from nematex.web.rooms.paper import paper_asked
from nematex.web.rooms.programme.programmes import find_programme

room = Blueprint("drawn", __name__, url_prefix="/programmes/<int:programme_id>/<any(book, leaflet, cards):kind>")

PATIENCE_S = 3.0
NAMES = {"book": "look-book", "leaflet": "leaflet", "cards": "cue-cards"}


def _asked(shown: Programme, kind: str, paper: str) -> str:
    """Everything that it rests on, so that an unchanged one is not drawn again."""
    state = now()
    words = [state.settings.get(name, "") for name in ("units", "words", "price per", "shop", "speaking order")]
    rests_on = [state.shared_version, state.programmes_version, *words]
    if kind != "book":  # takes, templates and the day come in too
        told = json.dumps(told_of(shop(), state, shown, date.today()), sort_keys=True)
        rests_on.append(hashlib.sha256(told.encode()).hexdigest())
    return json.dumps({"programme": shown.id, "paper": paper, "rests_on": rests_on})


def _job(shown: Programme, kind: str, paper: str) -> int:
    return asking.ask(shop().database, shop().enqueue, kind, _asked(shown, kind, paper), {"programme": shown.id}, 0)


@room.get("")
def page(programme_id: int, kind: str) -> Response | Reply | str:
    """The PDF where it is drawn already or soon; else a page that waits for it."""
    shown, paper = find_programme(programme_id), paper_asked()
    job_id = _job(shown, kind, paper.name)
    asking.await_end(shop().database, job_id, PATIENCE_S)
    content = asking.content(shop().database, kind, _asked(shown, kind, paper.name))
    if content is None:
        found = asking.look(shop().database, job_id)
        waits = {"kind": kind, "name": NAMES[kind], "job": found[0] if found else None}
        return render_template("programme/wall/waiting.html", programme=shown, paper=paper, **waits)
    name = f"{NAMES[kind]}-{shown.id}.pdf"
    return Response(content, content_type="application/pdf", headers={"Content-Disposition": f'inline; filename="{name}"'})


@room.get("/now")
def how_far(programme_id: int, kind: str) -> Response:
    shown, paper = find_programme(programme_id), paper_asked()
    found = asking.look(shop().database, _job(shown, kind, paper.name))
    there = url_for("drawn.page", programme_id=programme_id, kind=kind, paper=paper.name)
    return jsonify(done=0, total=0, next=None if found and found[0].runs else there)


@room.post("/stop")
def stop(programme_id: int, kind: str) -> Reply:
    asking.stop(shop().database, _job(find_programme(programme_id), kind, paper_asked().name))
    return redirect(url_for("programmes.programme", programme_id=programme_id))
