"""Programmes: dated lists of picks, their order, the presenter's lines, and the notes."""

from __future__ import annotations

from datetime import date
from typing import Any

from flask import Blueprint, abort, redirect, render_template, request, session, url_for
from werkzeug.wrappers import Response

from nematex.core.errors import FieldFault
from nematex.store import programmes as programme_store
from nematex.store.records import Pick, Programme
from nematex.usecases.notes import DISCLOSURE, entries
from nematex.usecases.ranking import read_wish
from nematex.usecases.saying import Voice
from nematex.web.rooms.common import download, find_cloth, find_pattern, shop

room = Blueprint("programmes", __name__, url_prefix="/programmes")
KINDS = {"md": "text/markdown; charset=utf-8", "txt": "text/plain; charset=utf-8", "html": "text/html; charset=utf-8"}
LINE_LETTERS = 2000


def _find(programme_id: int) -> Programme:
    with shop().database.work() as work:
        found = programme_store.programme(work, programme_id)
    if found is None:
        abort(404)
    return found


def _text(name: str, limit: int) -> str:
    text = request.form.get(name, "").strip()
    if len(text) > limit:
        raise FieldFault(name, f"{text[:40]}…", f"is {len(text)} letters long; at most {limit} are kept")
    return text


def _day() -> date | None:
    text = request.form.get("shown_on", "").strip()
    try:
        return date.fromisoformat(text) if text else None
    except ValueError:
        raise FieldFault("date", text, "is not a date; write it like 2026-10-24") from None


@room.get("")
def programmes() -> str:
    with shop().database.work() as work:
        found = programme_store.all_programmes(work)
    return render_template("programmes/list.html", programmes=found, values={}, fault=None)


@room.post("")
@room.post("/<int:programme_id>/about")
def save(programme_id: int | None = None) -> Response | tuple[str, int]:
    try:
        name, shown_on, intro = _text("name", 120), _day(), _text("intro", LINE_LETTERS)
        if not name:
            raise FieldFault("name", "", "is missing; a programme needs one")
    except FieldFault as fault:
        with shop().database.work() as work:
            found = programme_store.all_programmes(work)
        return render_template(
            "programmes/list.html", programmes=found, values=request.form, fault=fault, record_id=programme_id
        ), 400
    with shop().database.work() as work:
        kept = programme_store.save_programme(work, name, shown_on, intro, programme_id)
    session["programme"] = kept
    return redirect(url_for("programmes.programme", programme_id=kept))


def _show(programme_id: int, **more: Any) -> str:
    found = _find(programme_id)
    session["programme"] = programme_id
    voice = Voice.of(shop().settings())
    listed = entries(found, shop().shelf(), shop().drawer(), voice)
    return render_template("programmes/programme.html", programme=found, entries=listed, **more)


@room.get("/<int:programme_id>")
def programme(programme_id: int) -> str:
    return _show(programme_id)


@room.post("/picks")
def add() -> Response:
    """Add a pairing to the programme chosen in the form."""
    programme_id = request.form.get("programme", type=int) or abort(404)
    cloth_id, pattern_id = request.form.get("cloth", 0, int), request.form.get("pattern", 0, int)
    find_cloth(cloth_id), find_pattern(pattern_id), _find(programme_id)
    wish = read_wish(request.form)
    line = _text("line", LINE_LETTERS)
    pick = Pick(0, cloth_id, pattern_id, line, wish.view, wish.size, wish.look, wish.school, wish.options)
    with shop().database.work() as work:
        programme_store.add_pick(work, programme_id, pick)
    session["programme"] = programme_id
    return redirect(url_for("programmes.programme", programme_id=programme_id, _anchor="last"))


@room.post("/<int:programme_id>/picks/<int:pick_id>")
def change(programme_id: int, pick_id: int) -> Response | tuple[str, int]:
    """Move a pick up or down, take it out, or keep its line."""
    act = request.form.get("act", "line")
    line = _text("line", LINE_LETTERS) if act == "line" else ""
    with shop().database.work() as work:
        if act in ("up", "down"):
            programme_store.move_pick(work, programme_id, pick_id, -1 if act == "up" else 1)
        elif act == "remove":
            programme_store.remove_pick(work, programme_id, pick_id)
        else:
            programme_store.write_line(work, programme_id, pick_id, line)
    return redirect(url_for("programmes.programme", programme_id=programme_id, _anchor=f"pick-{pick_id}"))


@room.post("/<int:programme_id>/remove")
def remove(programme_id: int) -> Response:
    with shop().database.work() as work:
        programme_store.remove_programme(work, programme_id)
    return redirect(url_for("programmes.programmes"))


def _notes(programme_id: int, kind: str) -> str:
    found = _find(programme_id)
    voice = Voice.of(shop().settings())
    listed = entries(found, shop().shelf(), shop().drawer(), voice)
    return render_template(f"notes/notes.{kind}", programme=found, entries=listed, disclosure=DISCLOSURE)


@room.get("/<int:programme_id>/notes")
def notes(programme_id: int) -> str:
    texts = {kind: _notes(programme_id, kind) for kind in KINDS}
    return render_template("programmes/notes.html", programme=_find(programme_id), texts=texts)


@room.get("/<int:programme_id>/notes.<kind>")
def notes_file(programme_id: int, kind: str) -> Response:
    if kind not in KINDS:
        abort(404)
    return download(_notes(programme_id, kind), f"notes-{programme_id}.{kind}", KINDS[kind])
