"""Jobs whose result is drawn by the same templates as the pages: look-book, leaflet and cue cards as PDF."""

from __future__ import annotations

import json
from collections.abc import Callable

from flask import Flask

from nematex.usecases.jobs.running import Handle, Runner, Stopped
from nematex.web.pdf import pdf
from nematex.web.rooms.air.printed import cards_html, leaflet_html
from nematex.web.rooms.programme.book import book_html

PAGES: dict[str, Callable[[int, str], str | None]] = {"book": book_html, "leaflet": leaflet_html, "cards": cards_html}


def drawn_jobs(app: Flask) -> dict[str, Runner]:
    """The kinds of job that this application draws."""

    def drawn_by(html_of: Callable[[int, str], str | None]) -> Runner:
        def run(handle: Handle) -> str:
            asked = json.loads(handle.job.asked)
            with app.test_request_context():
                html = html_of(asked["programme"], asked["paper"])
            if html is None:
                raise Stopped("The programme is in the bin.")
            handle.keep(pdf(html))
            return ""

        return run

    return {kind: drawn_by(html_of) for kind, html_of in PAGES.items()}
