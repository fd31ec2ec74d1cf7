"""For machines that watch: whether the process lives, whether it can serve, and what it has done."""

from __future__ import annotations

import secrets
from datetime import datetime

from flask import Blueprint, Response, abort, current_app, jsonify, request

from nematex.usecases.jobs.behind import lanes_now, said_of
from nematex.usecases.settings import is_well
from nematex.web.guard.who import from_here
from nematex.web.rooms.common import shop
from nematex.web.watching import metrics_text

room = Blueprint("wellness", __name__)


@room.get("/health")
def health() -> str:
    """The process lives and the database answers."""
    return "well" if is_well(shop()) else "ill"


@room.get("/health/live")
def live() -> str:
    """The process lives; the database is not asked."""
    return "live"


@room.get("/health/ready")
def ready() -> tuple[str, int]:
    """Requests can be served: the database answers, and its tables are this program's."""
    return ("ready", 200) if is_well(shop()) and shop().database.is_current() else ("not ready: run ./nematex doctor", 503)


@room.get("/health/lanes")
def lanes() -> Response:
    """How far the work in the background is, and a sentence where it is behind, which pages that wait show."""
    found = lanes_now(shop().database, datetime.now())
    held = {each.name: {"open": each.open, "oldest_s": each.oldest_s, "behind": each.is_behind} for each in found}
    return jsonify(behind=said_of(found), lanes=held)


@room.get("/metrics")
def metrics() -> Response:
    """For Prometheus: from this machine, or with the token of NEMATEX_METRICS_TOKEN."""
    token = current_app.config["METRICS_TOKEN"]
    given = request.headers.get("Authorization", "").removeprefix("Bearer ")
    if not from_here() and not (token and secrets.compare_digest(given.encode(), token.encode())):
        abort(404)
    return Response(metrics_text(), content_type="text/plain; version=0.0.4; charset=utf-8")
