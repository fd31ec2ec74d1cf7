"""Jobs whose result is drawn by the same templates as the pages: the look-book as a PDF."""

from __future__ import annotations

import json

from flask import Flask

from nematex.usecases.jobs.running import Handle, Runner, Stopped
from nematex.web.pdf import pdf
from nematex.web.rooms.programme.book import book_html


def drawn_jobs(app: Flask) -> dict[str, Runner]:
    """The kinds of job that this application draws."""

    def run_book(handle: Handle) -> str:
        asked = json.loads(handle.job.asked)
        with app.test_request_context():
            html = book_html(asked["programme"], asked["paper"])
        if html is None:
            raise Stopped("The programme is in the bin.")
        handle.keep(pdf(html))
        return ""

    return {"book": run_book}
