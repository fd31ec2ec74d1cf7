"""Bringing in a price list: send, look, correct the columns, apply, and take it back."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from flask import Blueprint, abort, jsonify, redirect, render_template, request, url_for
from werkzeug.wrappers import Response

from nematex.core.errors import FieldFault
from nematex.store.records import Upload
from nematex.tables import colour_words, properties
from nematex.usecases.cloth.lists.choosing import choose_columns, choose_sheet, mend_row
from nematex.usecases.cloth.lists.headings import HELPERS
from nematex.usecases.cloth.lists.importing import is_unread, preview, send, told_here
from nematex.usecases.cloth.lists.job import (
    APPLYING,
    UNDOING,
    WORKING,
    job_state,
    latest_lists,
    rows_not_read,
    start_applying,
    start_reading,
    start_undoing,
    stop_job,
    undone_by,
)
from nematex.usecases.cloth.lists.reread import change_and_read
from nematex.usecases.cloth.lists.told import CLOTH, COLOUR, FIBRE, checked_word, forget_told, has_word, keep_told
from nematex.web.rooms.common import as_number, download, now, shop

room = Blueprint("imports", __name__, url_prefix="/import")
SHOWN, MENDED_HERE = 200, 40
CORRECTIONS = ("imports.columns", "imports.sheet", "imports.word", "imports.forget", "imports.row")


@dataclass(frozen=True, slots=True)
class Helper:
    """A column that is no property, as the choice of columns shows it."""

    label: str


def _form(fault: FieldFault | None = None, supplier: str = "") -> str:
    recent = latest_lists(shop())
    suppliers = sorted({record.supplier for record in now().shelf.records if record.supplier})
    return render_template("cloth/lists/send.html", fault=fault, supplier=supplier, recent=recent, suppliers=suppliers)


@room.get("")
def form() -> str:
    return _form()


@room.post("")
def receive() -> Response | tuple[str, int]:
    sent, supplier = request.files.get("file"), request.form.get("supplier", "")
    try:
        if sent is None or not sent.filename:
            raise FieldFault("file", "", "is missing; choose a CSV, XLSX or ODS price list")
        kept = send(shop(), sent.filename, sent.read(), supplier)
    except FieldFault as fault:
        return _form(fault, supplier), 400
    start_reading(shop(), kept)
    return redirect(_place(kept))


def _how_far(upload_id: int) -> tuple[Upload, tuple[int, int]]:
    return job_state(shop(), upload_id) or abort(404)


def _state(upload_id: int) -> Upload:
    return _how_far(upload_id)[0]


def _place(upload_id: int) -> str:
    """The page that fits the state of an import."""
    kept = _state(upload_id)
    if kept.state in WORKING:
        return url_for("imports.progress", upload_id=upload_id)
    is_done = kept.state == "applying done" or undone_by(shop(), kept)
    return url_for("imports.done" if is_done else "imports.look", upload_id=upload_id)


@room.before_request
def not_while_at_work() -> Response | None:
    """A list that is put on the shelf or taken back is not corrected meanwhile: what is made is what was shown."""
    if request.endpoint not in CORRECTIONS:
        return None
    upload_id = (request.view_args or {})["upload_id"]
    return redirect(_place(upload_id)) if _state(upload_id).state in (APPLYING, UNDOING) else None


@room.get("/<int:upload_id>/progress")
def progress(upload_id: int) -> str | Response:
    kept = _state(upload_id)
    if kept.state not in WORKING:
        return redirect(_place(upload_id))
    return render_template("cloth/lists/progress.html", upload=kept)


@room.get("/<int:upload_id>/state")
def state(upload_id: int) -> Response:
    kept, (done, total) = _how_far(upload_id)
    running = kept.state in WORKING
    return jsonify(running=running, done=done, total=total, next=None if running else _place(upload_id))


@room.post("/<int:upload_id>/stop")
def stop(upload_id: int) -> Response:
    stop_job(shop(), upload_id)
    return redirect(_place(upload_id))


def _look(upload_id: int, fault: FieldFault | None = None) -> str:
    kept = _state(upload_id)
    if kept.state == "failed":
        return _form(FieldFault("file", kept.filename, kept.message), kept.supplier)
    found = preview(shop(), upload_id) or abort(404)
    tables = now().tables
    return render_template(
        "cloth/lists/preview.html",
        found=found,
        fields=properties() | {name: Helper(label) for name, label in HELPERS.items()},
        fault=fault,
        shown=SHOWN,
        mended_here=MENDED_HERE,
        strange=found.strange(tables),
        known_words={
            FIBRE: list(tables.fibres.by_alias),
            COLOUR: list(colour_words().by_word),
            CLOTH: [each.name for each in tables.lexicon.types],
        },
        told=told_here(shop(), found),
    )


@room.get("/<int:upload_id>")
def look(upload_id: int) -> str | Response:
    kept = _state(upload_id)
    if kept.state in WORKING or (is_unread(shop(), kept) and not start_reading(shop(), upload_id)):
        return redirect(_place(upload_id))
    return _look(upload_id)


@room.post("/<int:upload_id>/columns")
def columns(upload_id: int) -> Response | tuple[str, int]:
    chosen = {
        place: field
        for name, field in request.form.items()
        if field and name.startswith("column-") and (place := as_number(name.removeprefix("column-"))) is not None
    }
    try:
        choose_columns(shop(), upload_id, chosen)
    except FieldFault as fault:
        return _refused(upload_id, fault)
    return _again(upload_id)


def _refused(upload_id: int, fault: FieldFault) -> Response | tuple[str, int]:
    """The list with what is wrong; a long one that is not read yet is read first."""
    return _again(upload_id) if is_unread(shop(), _state(upload_id)) else (_look(upload_id, fault), 400)


def _again(upload_id: int) -> Response:
    """Read the list once more, and look at it."""
    start_reading(shop(), upload_id)
    return redirect(_place(upload_id))


@room.post("/<int:upload_id>/sheet")
def sheet(upload_id: int) -> Response:
    _state(upload_id)
    choose_sheet(shop(), upload_id, request.form.get("sheet", ""))
    return _again(upload_id)


@room.post("/<int:upload_id>/word")
def word(upload_id: int) -> Response | tuple[str, int]:
    """What a word means, in this list and in every later one."""
    _state(upload_id)
    kind, said = request.form.get("kind", ""), request.form.get("said", "")
    meant = "" if "name_only" in request.form else request.form.get("meant", "").strip()
    try:
        if not meant and "name_only" not in request.form:
            raise FieldFault("word", said[:40], "needs what it means; or say that it is only a name")
        checked_word(kind, said, meant, now().tables)
    except FieldFault as fault:
        return _refused(upload_id, fault)
    return _reread(upload_id, lambda: keep_told(shop(), kind, said, meant), kind, said)


@room.post("/<int:upload_id>/forget")
def forget(upload_id: int) -> Response:
    """Ask about a word again."""
    _state(upload_id)
    kind, said = request.form.get("kind", ""), request.form.get("said", "")
    return _reread(upload_id, lambda: forget_told(shop(), kind, said), kind, said)


def _reread(upload_id: int, change: Callable[[], object], kind: str, said: str) -> Response:
    change_and_read(shop(), upload_id, change, lambda row: has_word(row.cells, kind, said))
    return _again(upload_id)


@room.post("/<int:upload_id>/row")
def row(upload_id: int) -> Response:
    """The mended cells of one row."""
    _state(upload_id)
    number = as_number(request.form.get("row", "")) or abort(404)
    cells = {
        place: text
        for name, text in request.form.items()
        if name.startswith("cell-") and (place := as_number(name.removeprefix("cell-"))) is not None
    }
    change_and_read(shop(), upload_id, lambda: mend_row(shop(), upload_id, number, cells), lambda each: each.row == number)
    return _again(upload_id)


@room.post("/<int:upload_id>/apply")
def put_on_shelf(upload_id: int) -> Response:
    _state(upload_id)
    start_applying(shop(), upload_id, "sold_out" in request.form)
    return redirect(_place(upload_id))


@room.get("/<int:upload_id>/done")
def done(upload_id: int) -> str:
    kept = _state(upload_id)
    return render_template(
        "cloth/lists/done.html", upload=kept, bad=rows_not_read(shop(), kept), undone=undone_by(shop(), kept)
    )


@room.post("/<int:upload_id>/undo")
def take_back(upload_id: int) -> Response:
    kept = _state(upload_id)
    if not kept.applied:
        abort(404)
    if kept.state not in WORKING:  # somebody else may be at it already
        start_undoing(shop(), upload_id)
    return redirect(_place(upload_id))


@room.get("/<int:upload_id>/bad-rows.csv")
def bad(upload_id: int) -> Response:
    text = rows_not_read(shop(), _state(upload_id))
    return download(text if text is not None else abort(404), "bad-rows.csv", "text/csv; charset=utf-8")
