"""The front of the shop: what is here, what next; the settings; the health check."""

from __future__ import annotations

from datetime import date

from flask import Blueprint, redirect, render_template, request
from werkzeug.wrappers import Response

from nematex.core.errors import UnknownChoice
from nematex.store.settings import put
from nematex.usecases.frontdesk import front
from nematex.web.rooms.common import shop

room = Blueprint("home", __name__)
SETTINGS = {"units": ("metric", "imperial"), "words": ("viscose", "rayon")}


@room.get("/")
def home() -> str:
    return render_template("home.html", front=front(shop(), date.today()))


@room.post("/settings")
def save_settings() -> Response:
    """Which unit system and which vocabulary lead."""
    for name, choices in SETTINGS.items():
        value = request.form.get(name)
        if value is None:
            continue
        if value not in choices:
            raise UnknownChoice(name, value, choices, "setting")
        with shop().database.work() as work:
            put(work, name, value)
    back = request.form.get("back", "/")
    return redirect(back if back.startswith("/") and not back.startswith(("//", "/\\")) else "/")


@room.get("/health")
def health() -> str:
    return "well" if shop().database.answers() else "ill"
