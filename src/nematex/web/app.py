"""Builds the Flask application: security headers, settings, error pages, and one blueprint per room of the shop."""

from __future__ import annotations

import hashlib
from datetime import date
from typing import Any

from flask import Flask, current_app, g, request
from flask_wtf.csrf import CSRFProtect

from nematex.core.cloth.measuring.bending import bias_bending_length_cm, flexural_rigidity_mg_cm
from nematex.core.people.rights import ROLES
from nematex.core.quantity.money import cost_of
from nematex.store.database import Database
from nematex.usecases.files.photo_file import MAX_BYTES as MAX_PHOTO
from nematex.usecases.held.shop import Shop
from nematex.usecases.jobs.asking import Enqueue
from nematex.usecases.judging.field_words import field_word, window_word
from nematex.usecases.programme.pattern_said import of_pattern
from nematex.usecases.quantity.saying import colour_word
from nematex.usecases.tasks.runners import at_once
from nematex.web import words
from nematex.web.again import Patient
from nematex.web.books import drawn_jobs
from nematex.web.drawing import overhang, swatch, tape
from nematex.web.drawing.widths import width_chart
from nematex.web.errors import answer_errors
from nematex.web.guard.check import guard
from nematex.web.guard.closed import closed_to
from nematex.web.guard.headers import OwnCookie, set_headers
from nematex.web.guard.limits import limit
from nematex.web.guard.who import here
from nematex.web.rooms import ROOMS
from nematex.web.rooms.common import now
from nematex.web.rooms.shown_at import shown_at
from nematex.web.watching import watch


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
        DEMO_ROLE="presenter",  # who tries the made-up shop; none: nobody does
        SET_UP_CODE="",  # what whoever makes the owner must know
        SHOWN_AT="",  # the address by which other devices reach the shop
        CERTIFICATE=b"",  # the shop's own, for phones to trust
        METRICS_TOKEN="",  # what a watcher from elsewhere must show
    )
    app.jinja_env.trim_blocks = app.jinja_env.lstrip_blocks = True
    app.extensions["shop"] = kept = Shop(database, enqueue)
    if enqueue is None:
        kept.enqueue = at_once(kept, drawn_jobs(app))
    for room in ROOMS:
        app.register_blueprint(room)
    watch(app)
    guard(app)
    CSRFProtect(app)  # after the guard: who is signed out is told so, not that a token is old
    limit(app)
    app.session_interface = OwnCookie()
    app.after_request(set_headers)
    app.context_processor(_context)
    app.jinja_env.globals.update(
        strip=tape.strip,
        swatch=swatch.swatch,
        tile=words.tile,
        dressed=words.dressed,
        drawing=words.drawing,
        cost_of=cost_of,
        width_chart=width_chart,
        hang=overhang.hang,
        rigidity=flexural_rigidity_mg_cm,
        bias=bias_bending_length_cm,
        query=words.query,
        remembered=words.remembered,
        as_read=words.as_read,
        text_as_read=words.text_as_read,
        spoken_pieces=words.spoken_pieces,
        this_day=date.today,
        shown_at=shown_at,
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
    answer_errors(app)
    return app


def _context() -> dict[str, Any]:
    if request.endpoint == "static" or request.blueprint == "wellness" or g.get("lost"):
        return {}
    state, found = now(), here()
    shown: dict[str, Any] = {"me": found, "roles": ROLES, "shown_rooms": found is not None}
    if found and (closed := closed_to(current_app, found.person.role)):
        shown["closed"] = closed
    return {"voice": state.voice, "shop_name": state.shop_name, "settings": state.settings, **shown}
