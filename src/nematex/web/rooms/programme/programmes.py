"""Programmes: dated lists of picks, their order, the presenter's lines, and the notes."""

from __future__ import annotations

from typing import Any

from flask import Blueprint, abort, redirect, render_template, request, session, url_for
from werkzeug.wrappers import Response

from nematex.core.errors import FieldFault
from nematex.store.records import Pick, Programme
from nematex.usecases.judging.ranking import read_wish
from nematex.usecases.programme import acts
from nematex.usecases.programme.notes import DISCLOSURE, entries
from nematex.web.rooms.common import download, find_cloth, find_pattern, now, shop

room = Blueprint("programmes", __name__, url_prefix="/programmes")
KINDS = {"md": "text/markdown; charset=utf-8", "txt": "text/plain; charset=utf-8", "html": "text/html; charset=utf-8"}


def _find(programme_id: int) -> Programme:
    return acts.programme(shop(), programme_id) or abort(404)


@room.get("")
def programmes() -> str:
    return render_template("programme/list.html", programmes=now().programmes, values={}, fault=None)


@room.post("")
@room.post("/<int:programme_id>/about")
def save(programme_id: int | None = None) -> Response | tuple[str, int]:
    given = request.form
    try:
        kept = acts.save_programme(
            shop(), programme_id, given.get("name", ""), given.get("shown_on", ""), given.get("intro", "")
        )
    except FieldFault as fault:
        every = now().programmes
        return render_template("programme/list.html", programmes=every, values=given, fault=fault, record_id=programme_id), 400
    session["programme"] = kept
    return redirect(url_for("programmes.programme", programme_id=kept))


@room.get("/<int:programme_id>")
def programme(programme_id: int) -> str:
    shown = _find(programme_id)
    session["programme"] = programme_id
    return render_template("programme/programme.html", programme=shown, entries=entries(shop(), now(), shown))


@room.post("/picks")
def add() -> Response:
    """Add a pairing to the programme chosen in the form."""
    programme_id = request.form.get("programme", type=int) or abort(404)
    cloth_id, pattern_id = request.form.get("cloth", 0, int), request.form.get("pattern", 0, int)
    find_cloth(cloth_id), find_pattern(pattern_id), _find(programme_id)
    wish = read_wish(request.form)
    line = acts.checked_text("line", request.form.get("line", ""))
    pick = Pick(0, cloth_id, pattern_id, line, wish.view, wish.size, wish.look, wish.school, wish.options)
    acts.add_pick(shop(), programme_id, pick)
    session["programme"] = programme_id
    return redirect(url_for("programmes.programme", programme_id=programme_id, _anchor="last"))


@room.post("/<int:programme_id>/picks/<int:pick_id>")
def change(programme_id: int, pick_id: int) -> Response:
    """Move a pick up or down, take it out, or keep its line."""
    act = request.form.get("act", "line")
    if act in ("up", "down"):
        acts.move_pick(shop(), programme_id, pick_id, -1 if act == "up" else 1)
    elif act == "remove":
        acts.remove_pick(shop(), programme_id, pick_id)
    else:
        acts.write_line(shop(), programme_id, pick_id, request.form.get("line", ""))
    return redirect(url_for("programmes.programme", programme_id=programme_id, _anchor=f"pick-{pick_id}"))


@room.post("/<int:programme_id>/remove")
def remove(programme_id: int) -> Response:
    acts.remove_programme(shop(), programme_id)
    return redirect(url_for("programmes.programmes"))


def _notes(shown: Programme, kinds: tuple[str, ...]) -> dict[str, str]:
    """The notes in each of these kinds, from one judging."""
    given: dict[str, Any] = {"programme": shown, "entries": entries(shop(), now(), shown), "disclosure": DISCLOSURE}
    return {kind: render_template(f"programme/notes/notes.{kind}", **given) for kind in kinds}


@room.get("/<int:programme_id>/notes")
def notes(programme_id: int) -> str:
    shown = _find(programme_id)
    return render_template("programme/notes.html", programme=shown, texts=_notes(shown, tuple(KINDS)))


@room.get("/<int:programme_id>/notes.<kind>")
def notes_file(programme_id: int, kind: str) -> Response:
    if kind not in KINDS:
        abort(404)
    return download(_notes(_find(programme_id), (kind,))[kind], f"notes-{programme_id}.{kind}", KINDS[kind])
