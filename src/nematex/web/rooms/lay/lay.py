"""Laying a pairing out: ask for it, watch it, stop it, move pieces by hand, take it away as a file."""

from __future__ import annotations

from typing import Any

from flask import Blueprint, abort, jsonify, redirect, render_template, request, url_for
from werkzeug.wrappers import Response

from nematex.core.amount.lay.pieces import Piece
from nematex.core.amount.lay.solve import task
from nematex.core.cloth.estimates import Cloth
from nematex.core.errors import FieldFault
from nematex.core.pattern.facts import Wish
from nematex.store.records import ClothRecord, Job, PatternRecord
from nematex.usecases.jobs import asking
from nematex.usecases.judging.ranking import fitting_wish, read_wish
from nematex.usecases.lay.of_pairing import SECONDS, asked_lay, compared, drawn, moved, pieces_of, print_repeats
from nematex.usecases.lay.pieces_file import pieces_dxf, pieces_svg, read_pieces
from nematex.usecases.lay.text import LayIn, LayOut, as_json, read_task
from nematex.usecases.lay.tiles import OVERLAP_CM, tiled, touches
from nematex.web.rooms.common import download, find_cloth, find_pattern, now, shop
from nematex.web.rooms.made import SHEET, by_worker
from nematex.web.rooms.paper import as_pdf, paper_asked

room = Blueprint("lay", __name__, url_prefix="/lay")
TYPES = {"svg": "image/svg+xml", "dxf": "image/vnd.dxf", "json": "application/json"}


def _wish(pattern: PatternRecord) -> Wish:
    return fitting_wish(pattern, read_wish(request.values))


def _form(pattern_id: int, cloth_id: int, fault: FieldFault | None = None) -> str:
    pattern, (record, cloth) = find_pattern(pattern_id), find_cloth(cloth_id)
    wish = _wish(pattern)
    return render_template(
        "lay/ask.html", pattern=pattern, record=record, cloth=cloth, wish=wish, fault=fault, seconds=SECONDS,
        pieces=_drafted(pattern, cloth, wish), repeats=print_repeats(cloth, now().tables), given=request.values,
        sizes=list(dict.fromkeys(size for row in pattern.facts.requirements for size in row.sizes)),
    )  # fmt: skip


@room.get("/<int:pattern_id>/<int:cloth_id>")
def form(pattern_id: int, cloth_id: int) -> str:
    return _form(pattern_id, cloth_id)


def _drafted(pattern: PatternRecord, cloth: Cloth, wish: Wish) -> list[Piece]:
    across = cloth.width.best / (2 if request.values.get("folded") else 1)
    return pieces_of(pattern.facts, wish, now().tables, across)


def _pieces(pattern: PatternRecord, cloth: Cloth, wish: Wish) -> tuple[list[Piece], str]:
    """What is laid and where it is from: the pieces of a file that was sent, else drafted ones."""
    sent = request.files.get("file")
    if sent is not None and sent.filename:
        return read_pieces(sent.read(), sent.filename), sent.filename[:120]
    return _drafted(pattern, cloth, wish), ""


@room.post("/<int:pattern_id>/<int:cloth_id>")
def ask(pattern_id: int, cloth_id: int) -> Response | tuple[str, int]:
    pattern, (record, cloth) = find_pattern(pattern_id), find_cloth(cloth_id)
    wish = _wish(pattern)
    try:
        pieces, source = _pieces(pattern, cloth, wish)
        asked = asked_lay(pieces, cloth, request.form, now().tables)
        task([each.piece() for each in asked.pieces], asked.strip())  # what cannot lie is said here and not by the worker
    except FieldFault as fault:
        return _form(pattern_id, cloth_id, fault), 400
    about = {"pattern": pattern.id, "cloth": record.id, "view": wish.view, "size": wish.size, "file": source}
    job_id = asking.ask(shop().database, shop().enqueue, "lay", asked.model_dump_json(), about, round(asked.seconds))
    return redirect(url_for("lay.watch", job_id=job_id))


def _job(job_id: int) -> tuple[Job, int]:
    found = asking.look(shop().database, job_id)
    return found if found and found[0].kind == "lay" else abort(404)


def _of(kept: Job) -> tuple[PatternRecord, ClothRecord, Cloth, Wish]:
    pattern, (record, cloth) = find_pattern(kept.about["pattern"]), find_cloth(kept.about["cloth"])
    wish = fitting_wish(pattern, Wish(view=kept.about.get("view"), size=kept.about.get("size")))
    return pattern, record, cloth, wish


def _shown(kept: Job, waiting: int) -> dict[str, Any]:
    """What the page and its renewed part show of a lay."""
    pattern, record, cloth, wish = _of(kept)
    asked = read_task(kept.asked)
    answer = LayOut.model_validate_json(kept.found) if kept.found else None
    found = compared(answer.length_cm, cloth, pattern.facts, wish, now().tables, now().voice.units) if answer else None
    return {
        "job": kept, "waiting": waiting, "pattern": pattern, "record": record, "cloth": cloth, "wish": wish, "asked": asked,
        "answer": answer, "pieces": drawn(asked, answer) if answer else [], "compared": found,
    }  # fmt: skip


@room.get("/job/<int:job_id>")
def watch(job_id: int) -> str:
    return render_template("lay/lay.html", **_shown(*_job(job_id)))


@room.get("/job/<int:job_id>/now")
def renewed(job_id: int) -> Response:
    """How far it is, and the best lay so far as a drawing."""
    kept, waiting = _job(job_id)
    page = render_template("lay/drawing.html", **_shown(kept, waiting))
    return jsonify(runs=kept.runs, done=kept.done, total=kept.total, waiting=waiting, state=kept.state, page=page)


@room.post("/job/<int:job_id>/stop")
def stop(job_id: int) -> Response:
    _job(job_id)
    asking.stop(shop().database, job_id)
    return redirect(url_for("lay.watch", job_id=job_id))


def _moved(kept: Job) -> tuple[LayIn, LayOut, list[str]]:
    if not kept.found:
        abort(404)
    asked = read_task(kept.asked)
    answer, faults = moved(asked, LayOut.model_validate_json(kept.found), request.form.get("moves", "[]")[:100_000])
    return asked, answer, faults


@room.post("/job/<int:job_id>/try")
def try_moves(job_id: int) -> Response:
    """Pieces moved by hand: the length now, and what geometry finds wrong."""
    kept, _ = _job(job_id)
    try:
        _, answer, faults = _moved(kept)
    except FieldFault as fault:
        return jsonify(faults=[str(fault)], length="")
    return jsonify(faults=faults, length=now().voice.length(answer.length_cm / 100))


@room.post("/job/<int:job_id>/keep")
def keep_moves(job_id: int) -> Response | tuple[str, int]:
    """Keep what was moved by hand, as a lay of its own beside the one it began from."""
    kept, waiting = _job(job_id)
    asked, answer, faults = _moved(kept)
    if faults or kept.runs:
        return render_template("lay/lay.html", faults=faults, **_shown(kept, waiting)), 400
    made = asking.keep(shop().database, "lay", asked.model_dump_json(), kept.about, as_json(answer))
    return redirect(url_for("lay.watch", job_id=made))


@room.get("/job/<int:job_id>/sheets.pdf")
@by_worker(SHEET)
def sheets(job_id: int) -> Response:
    """The lay in its true size on sheets to be stuck together, after one sheet that shows all of it."""
    shown, paper = _shown(*_job(job_id)), paper_asked()
    if not shown["answer"]:
        abort(404)
    asked: LayIn = shown["asked"]
    height = asked.width_cm / (2 if asked.folded else 1)
    found = tiled(shown["answer"].length_cm, height, (paper.width - 20) // 10, (paper.height - 24) // 10)
    title = f"{shown['pattern'].facts.name} on {shown['record'].facts.name}"
    inside = [(tile, [one for one in shown["pieces"] if touches(found, tile, one.box)]) for tile in found.tiles]
    html = render_template("lay/print.html", paper=paper, title=title, tiling=found, sheets=inside, overlap=OVERLAP_CM, **shown)
    return as_pdf(html, f"lay-{job_id}")


@room.get("/job/<int:job_id>.<kind>")
def take(job_id: int, kind: str) -> Response:
    """The lay as JSON or as a drawing, or the pieces as SVG or DXF."""
    kept, _ = _job(job_id)
    name = f"lay-{job_id}"
    pieces = [each.piece() for each in read_task(kept.asked).pieces]
    if kind == "json":
        return download(kept.found or "{}", f"{name}.json", TYPES["json"])
    if kind == "svg":
        return download(pieces_svg(pieces), f"{name}-pieces.svg", TYPES["svg"])
    if kind == "dxf":
        return download(pieces_dxf(pieces), f"{name}-pieces.dxf", TYPES["dxf"])
    return abort(404)
