"""How often one person, or one address, may ask for what takes the machine long, or try what is to be guessed.

Counted in the database, for all web processes and machines together; while it is away, in each process.
"""

from __future__ import annotations

from typing import Any

from flask import Flask, render_template, request
from flask.typing import ResponseReturnValue
from flask_limiter import Limiter
from flask_limiter.errors import RateLimitExceeded

from nematex.web.guard.counting import SCHEME
from nematex.web.guard.who import here

GUESSED, COMPUTED, SENT = "20 per minute; 100 per hour", "60 per minute", "30 per minute"
DRAGGED = "1200 per minute"  # asked with each move of the hand
# Address → how often; what stands here has a cost or a secret behind it.
LIMITS = {
    "door.come_in": GUESSED,
    "door.make_owner": GUESSED,
    "door.invited": GUESSED,
    "door.accept": GUESSED,
    "account.prove": GUESSED,
    "account.password": GUESSED,
    "account.code": GUESSED,
    "passkeys.come_in": GUESSED,
    "passkeys.options_in": COMPUTED,
    "remote.pair": GUESSED,
    "people.invite": SENT,
    "lay.ask": COMPUTED,
    "lay.try_moves": DRAGGED,
    "lay.sheets": COMPUTED,
    "lay.take": COMPUTED,
    "photo.receive": SENT,
    "imports.receive": SENT,
    "patterns.bring_in": SENT,
    "planning.propose": COMPUTED,
    "drawn.page": COMPUTED,
    "wall.as_png": COMPUTED,
    "wall.as_svg": COMPUTED,
    "aids.labels": SENT,
    "aids.sheet": SENT,
    "run.printed": COMPUTED,
    "along.printed": COMPUTED,
    "public.printed": SENT,
    "look.page": COMPUTED,
    "public.calendar": COMPUTED,
    "kits.printed": COMPUTED,
    "matrix.export": SENT,
    "shelf.export_xlsx": SENT,
    "shelf.export_csv": SENT,
    "shelf.export_json": SENT,
    "stock.ask": COMPUTED,
}
WRONG_CODES = "remote.page"  # a code that is right costs nothing, however often it is asked


def _asker() -> str:
    found = here()
    return f"person {found.person.id}" if found and found.token else f"address {request.remote_addr}"


def limit(app: Flask) -> None:
    """Put the limits before their addresses."""
    kept = {"database": app.extensions["shop"].database}
    limiter = Limiter(_asker, storage_uri=f"{SCHEME}://", storage_options=kept, in_memory_fallback_enabled=True)
    views: dict[str, Any] = app.view_functions
    limiter.init_app(app)
    for endpoint, often in LIMITS.items():
        views[endpoint] = limiter.limit(often)(views[endpoint])
    for endpoint in ("remote.page", "remote.shows", "remote.pressed"):
        wrong = limiter.shared_limit(GUESSED, scope="wrong codes", deduct_when=lambda answer: answer.status_code == 404)
        views[endpoint] = wrong(views[endpoint])
    app.register_error_handler(RateLimitExceeded, _too_often)


def _too_often(fault: RateLimitExceeded) -> ResponseReturnValue:
    text = (
        f"{request.path}: was asked too often from here; {fault.description} is the most. Wait a minute, then go on: "
        "nothing was lost, and what you typed is still there."
    )
    return render_template("error.html", title="A little slower", text=text), 429, {"Retry-After": "60"}
