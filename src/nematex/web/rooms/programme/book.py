"""The look-book: a programme as a PDF with its wall, then each garment with its cloth, price and notes."""

from __future__ import annotations

import json

from flask import Blueprint, Response, jsonify, redirect, render_template, url_for
from werkzeug.wrappers import Response as Reply

from nematex.store.records import Programme
from nematex.usecases.jobs import asking
from nematex.usecases.programme.acts import programme
from nematex.usecases.programme.notes import entries
from nematex.web.drawing.wall import wall
from nematex.web.pdf import fonts_by_name
from nematex.web.rooms.common import now, shop
from nematex.web.rooms.paper import PAPERS, paper_asked
from nematex.web.rooms.programme.hung import GROUNDS, cloths_of, garments, places
from nematex.web.rooms.programme.programmes import find_programme

room = Blueprint("book", __name__, url_prefix="/programmes/<int:programme_id>/book")

JOB = "book"
PATIENCE_S = 3.0
MM_TO_PX = 96 / 25.4
MARGIN_MM = 14.0


def _asked(shown: Programme, paper: str) -> str:
    """Everything that the book rests on, so that an unchanged one is not drawn again."""
    state = now()
    words = [state.settings.get(name, "") for name in ("units", "words", "price per", "shop")]
    rests_on = [state.shared_version, state.programmes_version, *words]
    return json.dumps({"programme": shown.id, "paper": paper, "rests_on": rests_on})


def book_html(programme_id: int, paper_name: str) -> str | None:
    """The pages of the book; None where the programme is gone."""
    shown = programme(shop(), programme_id)
    if shown is None:
        return None
    paper = PAPERS[paper_name]
    hung = garments(shown, as_data=True)
    size = (paper.width - 2 * MARGIN_MM) * MM_TO_PX, (paper.height - 2 * MARGIN_MM) * MM_TO_PX
    drawn = wall(hung, shown.name, *size)
    return render_template(
        "programme/wall/book.html", programme=shown, w=drawn, c=GROUNDS["light"], cloths=cloths_of(drawn), paper=paper,
        pages=list(zip(hung, places(entries(shop(), now(), shown, for_notes=True)), strict=True)), fonts=fonts_by_name(),
        margin=MARGIN_MM,
    )  # fmt: skip


def _job(shown: Programme, paper: str) -> int:
    return asking.ask(shop().database, shop().enqueue, JOB, _asked(shown, paper), {"programme": shown.id}, 0)


@room.get("")
def book(programme_id: int) -> Response | Reply | str:
    """The book where it is drawn already or soon; else a page that waits for it."""
    shown, paper = find_programme(programme_id), paper_asked()
    job_id = _job(shown, paper.name)
    asking.await_end(shop().database, job_id, PATIENCE_S)
    content = asking.content(shop().database, JOB, _asked(shown, paper.name))
    if content is None:
        found = asking.look(shop().database, job_id)
        return render_template("programme/wall/waiting.html", programme=shown, paper=paper, job=found[0] if found else None)
    name = f"look-book-{shown.id}.pdf"
    return Response(content, content_type="application/pdf", headers={"Content-Disposition": f'inline; filename="{name}"'})


@room.get("/now")
def how_far(programme_id: int) -> Response:
    shown, paper = find_programme(programme_id), paper_asked()
    found = asking.look(shop().database, _job(shown, paper.name))
    there = url_for("book.book", programme_id=programme_id, paper=paper.name)
    return jsonify(done=0, total=0, next=None if found and found[0].runs else there)


@room.post("/stop")
def stop(programme_id: int) -> Reply:
    asking.stop(shop().database, _job(find_programme(programme_id), paper_asked().name))
    return redirect(url_for("wall.page", programme_id=programme_id))
