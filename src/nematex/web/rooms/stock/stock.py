"""The stock feed: how it stands, what it said that was not believed, what sells and how long it lasts."""

from __future__ import annotations

from datetime import datetime

from flask import Blueprint, redirect, render_template, request, url_for
from werkzeug.wrappers import Response

from nematex.core.errors import FieldFault
from nematex.usecases.stock.address import choose_feed
from nematex.usecases.stock.polling import feed_of, poll
from nematex.usecases.stock.selling import feed_said, sellers
from nematex.usecases.stock.till import has_till, tell_till
from nematex.web.rooms.common import inside, now, shop

room = Blueprint("stock", __name__, url_prefix="/stock")

SHOWN = 20
MODES = {
    "usual": "as usual",
    "down": "closed: it answers with an error",
    "slow": "slow: it answers after 20 seconds",
    "stale": "late: its figures are five hours old",
    "nonsense": "nonsense: a third of its lines is no stock",
}


def _page(fault: FieldFault | None = None) -> str:
    state, moment = now(), datetime.now()
    return render_template(
        "stock/stock.html", feed=feed_said(shop(), state, moment), sellers=sellers(shop(), state, moment)[:SHOWN], fault=fault,
        days=state.tables.judging.feed.popular_days, till=has_till(state), modes=MODES, cloths=state.shelf.records[:400],
        shown=state.settings.get("stock feed", ""),
        address=request.form.get("address", state.settings.get("stock feed", "")),
    )  # fmt: skip


@room.get("")
def page() -> str:
    return _page()


@room.post("")
def choose() -> Response | tuple[str, int]:
    """Where the stock is counted."""
    try:
        choose_feed(shop(), request.form.get("address", ""), request.form.get("shown"))
    except FieldFault as fault:
        return _page(fault), 400
    return redirect(url_for("stock.page"))


@room.post("/ask")
def ask() -> Response:
    """Ask the feed now and not in a while."""
    feed = feed_of(now())
    if feed:
        poll(shop(), feed, datetime.now())
    return redirect(inside(request.form.get("back", ""), url_for("stock.page")))


@room.post("/till")
def till() -> Response | tuple[str, int]:
    """Tell the simulated till what to do, then ask it."""
    if not has_till(now()):
        return _page(FieldFault("till", "", "is not simulated here: only the made-up shop has one")), 400
    given = request.form
    acts: dict[str, object] = {name: given[name] for name in ("mode", "sell") if given.get(name)}
    if given.get("days", "").isdecimal():
        acts["days"] = int(given["days"][:3])
    try:
        tell_till(now(), acts)
    except FieldFault as fault:
        return _page(fault), 400
    return ask()
