"""The front of the shop: what is here, what next; the settings."""

from __future__ import annotations

from datetime import date, datetime

from flask import Blueprint, redirect, render_template, request
from werkzeug.wrappers import Response

from nematex.usecases.front import front
from nematex.usecases.programme.stocked.before_air import looked_over
from nematex.usecases.programme.stocked.needs import alarms
from nematex.usecases.settings import SETTINGS, choose_setting
from nematex.usecases.stock.selling import feed_said
from nematex.web.rooms.common import inside, now, shop

room = Blueprint("home", __name__)


@room.get("/")
def home() -> str:
    cut = now().settings.get("cut", SETTINGS["cut"][0])
    per = now().settings.get("price per", SETTINGS["price per"][0])
    ways = {"cuts": SETTINGS["cut"], "cut": cut, "prices_per": SETTINGS["price per"], "price_per": per}
    feed, today = feed_said(shop(), now(), datetime.now()), date.today()
    on_air = [(one, looked_over(shop(), now(), one, datetime.now())) for one in now().programmes if one.shown_on == today]
    return render_template(
        "home.html", front=front(now(), today), feed=feed, alarms=alarms(now(), today), on_air=on_air, **ways
    )


@room.post("/settings")
def save_settings() -> Response:
    """Which unit system and which vocabulary lead."""
    for name in SETTINGS:
        if name in request.form:
            choose_setting(shop(), name, request.form[name])
    return redirect(inside(request.form.get("back", "/"), "/"))
