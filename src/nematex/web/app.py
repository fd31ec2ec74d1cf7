"""Builds the Flask application: security headers, settings, error pages, and one blueprint per room of the shop."""

from __future__ import annotations

import hashlib
import re
from datetime import date
from typing import Any

from flask import Flask, Response, current_app, g, render_template, request
from flask_wtf.csrf import CSRFError, CSRFProtect

from nematex.core.cloth.measuring.bending import bias_bending_length_cm, flexural_rigidity_mg_cm
from nematex.core.errors import FieldFault
from nematex.core.quantity.money import cost_of
from nematex.store.database import Database, DatabaseGone, DatabaseRefused
from nematex.usecases.files.csv_text import MAX_BYTES as MAX_LIST
from nematex.usecases.files.photo_file import MAX_BYTES as MAX_PHOTO
from nematex.usecases.held.shop import Shop
from nematex.usecases.jobs.asking import Enqueue
from nematex.usecases.judging.field_words import field_word, window_word
from nematex.usecases.programme.pattern_said import of_pattern
from nematex.usecases.quantity.saying import colour_word
from nematex.usecases.tasks.runners import at_once
from nematex.web import words
from nematex.web.again import Patient, why_lost
from nematex.web.books import drawn_jobs
from nematex.web.drawing import overhang, swatch, tape
from nematex.web.drawing.widths import width_chart
from nematex.web.rooms import ROOMS
from nematex.web.rooms.common import now

POLICY = (
    "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self' data:; font-src 'self'; "
    "connect-src 'self'; form-action 'self'; base-uri 'none'; frame-ancestors 'none'"
)


def create_app(database: Database, key: str, enqueue: Enqueue | None = None) -> Flask:
    """The application on one database; `key` signs sessions; `enqueue` hands a job to the worker (else it is done at once)."""
    app = Patient(__name__)
    app.config.update(
        SECRET_KEY=key,
        MAX_CONTENT_LENGTH=2 * MAX_PHOTO + 2**20,  # the two photos of a see-through reading
        SESSION_COOKIE_NAME=f"nematex-{hashlib.sha256(key.encode()).hexdigest()[:8]}",  # two shops may share a browser
        SESSION_COOKIE_HTTPONLY=True,
        SESSION_COOKIE_SAMESITE="Lax",
        WTF_CSRF_TIME_LIMIT=None,  # a page left open over lunch must still be able to save
        TRUSTED_HOSTS=["127.0.0.1", "localhost"],
        SEND_FILE_MAX_AGE_DEFAULT=3600,
    )
    app.jinja_env.trim_blocks = app.jinja_env.lstrip_blocks = True
    app.extensions["shop"] = kept = Shop(database, enqueue)
    if enqueue is None:
        kept.enqueue = at_once(kept, drawn_jobs(app))
    CSRFProtect(app)
    for room in ROOMS:
        app.register_blueprint(room)
    app.after_request(_headers)
    app.context_processor(_context)
    app.jinja_env.globals.update(
        strip=tape.strip,
        swatch=swatch.swatch,
        tile=swatch.tile,
        dressed=words.dressed,
        drawing=words.drawing,
        cost_of=cost_of,
        width_chart=width_chart,
        hang=overhang.hang,
        rigidity=flexural_rigidity_mg_cm,
        bias=bias_bending_length_cm,
        query=words.query,
        remembered=words.remembered,
        spoken_pieces=words.spoken_pieces,
        this_day=date.today,
        of_pattern=of_pattern,
    )
    app.jinja_env.filters.update(
        hand_word=words.hand_word,
        figure=words.figure,
        colour_word=colour_word,
        scale_word=words.scale_word,
        field_word=field_word,
        window_word=window_word,
        pairs=words.pairs,
    )
    _errors(app)
    return app


def _headers(response: Response) -> Response:
    response.headers["Content-Security-Policy"] = POLICY
    response.headers["X-Content-Type-Options"] = "nosniff"
    response.headers["Referrer-Policy"] = "same-origin"
    return response


def _context() -> dict[str, Any]:
    if request.endpoint in ("static", "home.health") or g.get("lost"):
        return {}
    state = now()
    return {"voice": state.voice, "shop_name": state.shop_name, "settings": state.settings}


def _page(code: int, title: str, text: str) -> tuple[str, int]:
    return render_template("error.html", title=title, text=text), code


def _errors(app: Flask) -> None:
    app.register_error_handler(404, lambda _: _page(404, "Not here", "There is no such page, or what it showed is gone."))
    app.register_error_handler(
        413,
        lambda _: _page(
            413,
            "Too large",
            f"file: what was sent is too large. A list may have {MAX_LIST // 2**20} MB, a photo {MAX_PHOTO // 2**20} MB: "
            "split the list, or save the photo smaller.",
        ),
    )
    app.register_error_handler(
        CSRFError,
        lambda _: _page(
            400, "Send it again", "The page was open too long to be trusted. Go back, reload it and send it again."
        ),
    )
    app.register_error_handler(FieldFault, lambda fault: _page(400, "That cannot be used", str(fault)))
    app.register_error_handler(DatabaseGone, _lost)
    app.register_error_handler(DatabaseRefused, _refused)


def _lost(fault: DatabaseGone) -> tuple[str, int]:
    g.lost = True  # so that this page asks the database nothing
    current_app.logger.error("%s %s: %s", request.method, request.path, fault.orig)
    title, text = why_lost(fault)
    return render_template("lost.html", title=title, text=text), 503


def _refused(fault: DatabaseRefused) -> tuple[str, int]:
    """A value that slipped past its field's own check; the server says which column."""
    column = re.search(r"column '(?:[^']*`\.`)?([^'`]+)'", str(fault.orig))
    current_app.logger.error("%s %s: %s", request.method, request.path, fault.orig)
    name = column[1].replace("_", " ") if column else "one of the fields"
    return _page(
        400, "That cannot be kept", f"{name}: is too long, too large, or holds a sign that cannot be kept. Nothing was saved."
    )
