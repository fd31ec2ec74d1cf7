"""Kinds of cloth: all of them, those that serve a pattern, one kind, one fibre."""

from __future__ import annotations

from flask import Blueprint, abort, render_template, request

from nematex.usecases.judging.kinds import every_kind, fibre_page, kind_page, kinds_for
from nematex.usecases.judging.ranking import fitting_wish, read_wish
from nematex.web.rooms.common import find_pattern, now

room = Blueprint("kinds", __name__, url_prefix="/kinds")
LONGEST = 100


@room.get("")
def every() -> str:
    asked = request.args.get("q", "")[:LONGEST]
    return render_template("judging/kinds/every.html", q=asked, found=every_kind(now(), asked))


@room.get("/for/<int:pattern_id>")
def serving(pattern_id: int) -> str:
    """The kinds that serve a pattern in a look, best first."""
    record = find_pattern(pattern_id)
    wish = fitting_wish(record, read_wish(request.args))
    return render_template(
        "judging/kinds/serving.html", record=record, wish=wish, rows=kinds_for(now(), record, wish), views=record.facts.views
    )


@room.get("/<name>")
def kind(name: str) -> str:
    found = kind_page(now(), name[:LONGEST]) or abort(404)
    return render_template("judging/kinds/kind.html", found=found)


@room.get("/fibre/<name>")
def fibre(name: str) -> str:
    found = fibre_page(now(), name[:LONGEST]) or abort(404)
    return render_template("judging/kinds/fibre.html", found=found)
