"""Files that take long to make: the worker makes them, and a page waits for one that is not there at once.

A file has an address that cannot be guessed, which only the page is told that was let ask for it. It is given out as long as
the address that it was made for would answer whoever asks: a stranger's goes with its public link, everybody else's asks for
the right that it asked for, and none outlives a change of hands.
"""

from __future__ import annotations

import json
import secrets
from collections.abc import Callable
from functools import wraps
from typing import Any
from urllib.parse import urlsplit

from flask import Blueprint, Response, abort, current_app, jsonify, redirect, render_template, request, url_for
from itsdangerous import BadData, URLSafeSerializer
from werkzeug.exceptions import HTTPException
from werkzeug.wrappers import Response as Reply

from nematex.store.records import Job
from nematex.usecases.jobs import asking
from nematex.usecases.people.clean_cut import FILES_SINCE
from nematex.web.guard.table import OPEN, right_of
from nematex.web.guard.who import here
from nematex.web.rooms.common import came_from, inside, now, shop
from nematex.web.rooms.public_links import is_public
from nematex.web.rooms.shown_at import shown_at

room = Blueprint("made", __name__, url_prefix="/made")

SHEET, EXPORT = "sheet", "export"
PAIRINGS = "pairings"  # as many as ten million: its file waits with the lists, and no label waits for it
REFUSED = "refused"  # what is found where the view would not make it
View = Callable[..., Reply]


def by_worker(kind: str) -> Callable[[View], View]:
    """A view that looks only: the worker answers its address in its place; what it refuses is said at once."""

    def wrap(view: View) -> View:
        @wraps(view)
        def asks(**args: Any) -> Reply:
            asked = {"address": request.full_path, "at": shown_at("/"), "once": secrets.token_hex(8)}
            job_id = ask(kind, json.dumps(asked))
            kept = _job(job_id)
            return view(**args) if kept.found == REFUSED else _answer(kept)

        return asks

    return wrap


def ask(kind: str, asked: str, **about: Any) -> int:
    """The job of a file, when it is made or a moment has gone by."""
    about |= {"address": request.full_path}
    job_id = asking.ask(shop().database, shop().enqueue, kind, asked, about, 0)
    asking.await_end(shop().database, job_id)
    return job_id


def made_or_wait(job_id: int) -> Response:
    """The file of this job; 202 and a page that comes back for it while it is not made."""
    return _answer(_job(job_id))


def _answer(kept: Job) -> Response:
    content = asking.content_of_job(shop().database, kept.id) if kept.state == "done" else None
    if content is None:
        return Response(_waiting(kept), 202 if kept.runs else 410)
    return Response(content, headers={"Content-Type": "application/pdf", **json.loads(kept.found or "{}")})


def _waiting(kept: Job) -> str:
    back = inside(came_from(), "/")
    key = _keys().dumps([kept.id, here() is None, _since()])
    found = {"job": kept, "key": key, "stranger": here() is None, "came_from": back}
    return render_template("waiting.html", **found)


def _keys() -> URLSafeSerializer:
    return URLSafeSerializer(str(current_app.secret_key), salt="made")


def _job(job_id: int) -> Job:
    found = asking.look(shop().database, job_id)
    return found[0] if found else abort(404)


def _since() -> str:
    """What addresses of files are signed under: another one when the shop changes hands."""
    return now().settings.get(FILES_SINCE, "")


def _of(key: str) -> Job:
    try:
        job_id, for_strangers, since = _keys().loads(key)
    except (BadData, TypeError, ValueError):
        abort(404)
    kept = _job(job_id) if since == _since() and (for_strangers or here()) else abort(404)
    return kept if _still_answers(str(kept.about.get("address", ""))) else abort(404)


def _still_answers(address: str) -> bool:
    """Whether the address that a file was made for would still be answered to who asks now."""
    try:
        endpoint, given = current_app.url_map.bind("").match(urlsplit(address).path, method="GET")
    except HTTPException:
        return False
    right = right_of(endpoint, "GET")
    if right == OPEN:
        return is_public(shop(), endpoint.split(".", maxsplit=1)[0], str(given.get("key", "")))
    found = here()
    return found is not None and found.may(right)


@room.get("/<key>")
def file(key: str) -> Response:
    return _answer(_of(key))


@room.get("/<key>/now")
def how_far(key: str) -> Response:
    """Where the file is when it is made, or why it will not be; a stranger is not told why."""
    kept = _of(key)
    there = url_for("made.file", key=key) if kept.state == "done" else None
    why = kept.message if here() else ""
    return jsonify(done=0, total=0, next=there, failed=not kept.runs and there is None, why=why)


@room.post("/<key>/stop")
def stop(key: str) -> Reply:
    asking.stop(shop().database, _of(key).id)
    return redirect(inside(request.form.get("back", ""), "/"))
