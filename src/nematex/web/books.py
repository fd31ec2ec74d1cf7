"""Jobs that end in a file: look-book, leaflet and cue cards, and what a page's own address answers with."""

from __future__ import annotations

import inspect
import json
from collections.abc import Callable

from flask import Flask, request
from werkzeug.exceptions import HTTPException

from nematex.core.errors import NematexError
from nematex.usecases.jobs.running import Handle, Runner, Stopped
from nematex.web.pdf import pdf
from nematex.web.rooms.air.printed import cards_html, leaflet_html
from nematex.web.rooms.made import EXPORT, PAIRINGS, REFUSED, SHEET
from nematex.web.rooms.programme.book import book_html

# Kind → how its pages are written, and what the file is called.
PAGES: dict[str, tuple[Callable[[int, str], str | None], str]] = {
    "book": (book_html, "look-book"),
    "leaflet": (leaflet_html, "leaflet"),
    "cards": (cards_html, "cue-cards"),
}
ANSWERED = (SHEET, EXPORT, PAIRINGS)
DRAWN = frozenset((*PAGES, *ANSWERED))


def drawn_jobs(app: Flask) -> dict[str, Runner]:
    """The kinds of job that this application makes files for."""

    def answered(handle: Handle) -> str:
        asked = json.loads(handle.job.asked)
        with app.test_request_context(asked["address"], base_url=asked["at"]):
            view = inspect.unwrap(app.view_functions[str(request.endpoint)])
            try:
                answer = app.make_response(view(**request.view_args or {}))
            except (NematexError, HTTPException):
                return REFUSED
            if answer.status_code != 200:  # it says something else than a file: that is said to who asks
                return REFUSED
            handle.keep(answer.get_data())
            return json.dumps({name: answer.headers[name] for name in ("Content-Type", "Content-Disposition")})

    def written(html_of: Callable[[int, str], str | None], name: str) -> Runner:
        def run(handle: Handle) -> str:
            asked = json.loads(handle.job.asked)
            with app.test_request_context():
                html = html_of(asked["programme"], asked["paper"])
            if html is None:
                raise Stopped("The programme is in the bin.")
            handle.keep(pdf(html))
            return json.dumps({"Content-Disposition": f'inline; filename="{name}-{asked["programme"]}.pdf"'})

        return run

    return {**dict.fromkeys(ANSWERED, answered), **{kind: written(*each) for kind, each in PAGES.items()}}
