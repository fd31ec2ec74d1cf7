"""What is said where a request cannot be served. Each such page has a number, which stands in the log beside the reason."""

from __future__ import annotations

import re

from flask import Flask, current_app, g, render_template, request
from flask_wtf.csrf import CSRFError

from nematex.core.errors import FieldFault
from nematex.store.database import DatabaseGone, DatabaseRefused, was_refused
from nematex.usecases.files.csv_text import MAX_BYTES as MAX_LIST
from nematex.usecases.files.photo_file import MAX_BYTES as MAX_PHOTO
from nematex.web.again import why_lost
from nematex.web.watching import place, request_number

Answer = tuple[str, int]
TOO_LARGE = (
    f"file: what was sent is too large. A list may have {MAX_LIST // 2**20} MB, a photo {MAX_PHOTO // 2**20} MB: "
    "split the list, or save the photo smaller."
)
TOO_LATE = "The page was open too long to be trusted. Go back, reload it and send it again."
NOT_HERE = "There is no such page, or what it showed is gone."
AGAIN_S = 5
OURS = "This is a fault of Nematex, not yours. Nothing of this request was saved; what was saved before is safe."


def answer_errors(app: Flask) -> None:
    """A page in the shop's own words for each kind of error."""
    app.register_error_handler(404, lambda _: _page(404, "Not here", NOT_HERE))
    app.register_error_handler(413, lambda _: _page(413, "Too large", TOO_LARGE))
    app.register_error_handler(CSRFError, lambda _: _page(400, "Send it again", TOO_LATE))
    app.register_error_handler(FieldFault, lambda fault: _page(400, "That cannot be used", str(fault)))
    app.register_error_handler(DatabaseGone, _lost)
    app.register_error_handler(DatabaseRefused, _refused)
    app.register_error_handler(500, _ours)


def _page(code: int, title: str, text: str) -> Answer:
    return render_template("error.html", title=title, text=text, number=request_number() if code >= 500 else ""), code


def _lost(fault: DatabaseGone) -> Answer:
    if was_refused(fault):
        return _refused(fault)
    g.lost = True  # so that this page asks the database nothing
    current_app.logger.error("error %s: %s %s: %s", request_number(), request.method, place(), fault.orig)
    title, text = why_lost(fault)
    looked = request.method == "GET"  # a page that was only looked at looks again by itself
    return render_template("lost.html", title=title, text=text, number=request_number(), again_s=AGAIN_S if looked else 0), 503


def _refused(fault: DatabaseRefused | DatabaseGone) -> Answer:
    """A value that slipped past its field's own check; the server says which column."""
    column = re.search(r"column '(?:[^']*`\.`)?([^'`]+)'", str(fault.orig))
    current_app.logger.error("error %s: %s %s: %s", request_number(), request.method, place(), fault.orig)
    name = column[1].replace("_", " ") if column else "one of the fields"
    return _page(
        400, "That cannot be kept", f"{name}: is too long, too large, or holds a sign that cannot be kept. Nothing was saved."
    )


def _ours(_fault: object) -> Answer:
    """A fault of the program; its trace stands in the log under the same number."""
    g.lost = True
    current_app.logger.error("error %s: %s %s", request_number(), request.method, place())
    return render_template("lost.html", title="Something went wrong here", text=OURS, number=request_number()), 500
