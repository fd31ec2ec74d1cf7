"""The notes: each text in its forms, written over by hand, looked over, published, and what has moved since."""

from __future__ import annotations

import csv
import io
import json
import re
from datetime import datetime
from typing import Any

from flask import Blueprint, Response, abort, redirect, render_template, request, url_for
from werkzeug.wrappers import Response as Reply

from nematex.core.errors import FieldFault
from nematex.store.records import Programme
from nematex.tables import note_kinds
from nematex.usecases.air.notes.checker import checked
from nematex.usecases.air.notes.forms import as_html, as_text
from nematex.usecases.air.notes.publishing import moved_since, publications, publish
from nematex.usecases.air.notes.texts import NoteText, bring_in, keep_template, keep_text, templates_of, texts_of, try_template
from nematex.usecases.air.notes.told import told_of
from nematex.usecases.air.notes.tutorials import keep_tutorials, tutorials_text
from nematex.usecases.files.cells import safe_cell
from nematex.usecases.forms.merging import SHOWN, Clashing, as_shown, merged
from nematex.usecases.stock.selling import feed_said
from nematex.web.rooms.common import as_number, download, now, shop
from nematex.web.rooms.programme.programmes import find_programme

room = Blueprint("notes", __name__, url_prefix="/programmes/<int:programme_id>/notes")

FORMS = {"md": "text/markdown; charset=utf-8", "html": "text/html; charset=utf-8", "txt": "text/plain; charset=utf-8"}


def _told(programme: Programme) -> dict[str, Any]:
    return told_of(shop(), now(), programme, datetime.now().date())


def _kind(name: str) -> str:
    return name if name in note_kinds() else abort(404)


def forms_of(note: NoteText) -> dict[str, str]:
    """A text in its forms: three of what is in Markdown, one of what is plain."""
    if not note.kind.markdown:
        return {"txt": note.body}
    return {"md": note.body, "html": as_html(note.body), "txt": as_text(note.body)}


def _below(html: str) -> str:
    """The same a heading lower: the page has its own title."""
    return re.sub(r"(?<=<)(/?)h([1-3])(?=>)", lambda found: f"{found[1]}h{int(found[2]) + 1}", html)


def _page(
    programme_id: int, kind: str, fault: FieldFault | None = None, typed: str | None = None, shown: str | None = None
) -> str:
    programme, moment = find_programme(programme_id), datetime.now()
    told = _told(programme)
    texts = texts_of(shop(), programme_id, told)
    found = checked(shop(), now(), programme, told, texts, moment)
    versions = publications(shop(), programme_id)
    note = texts[kind]
    return render_template(
        "air/notes.html", programme=programme, kinds=note_kinds(), note=note, forms=forms_of(note),
        preview=_below(forms_of(note).get("html", "")), fault=fault,
        typed=note.body if typed is None else typed, shown=note.body if shown is None else shown, found=found,
        versions=versions, moved=moved_since(versions[0], told) if versions else [], feed=feed_said(shop(), now(), moment),
        clashes=as_number(request.args.get("clashes", "")) or 0, others=sum(each.by_hand for each in texts.values()),
    )  # fmt: skip


@room.get("")
@room.get("/<kind>")
def page(programme_id: int, kind: str = "blog") -> str:
    return _page(programme_id, _kind(kind))


@room.post("/<kind>")
def keep(programme_id: int, kind: str) -> Reply | tuple[str, int]:
    """Keep a text as the presenter wrote it, bring in what has moved, or let their text go: `act`."""
    programme, given, clashes = find_programme(programme_id), request.form, None
    told, name = _told(programme), _kind(kind)
    try:
        if given.get("act") == "bring":
            clashes = bring_in(shop(), programme_id, told, name) or None
        else:
            body = "" if given.get("act") == "drop" else given.get("body", "")
            keep_text(shop(), programme_id, told, name, body, given.get("shown", ""))
    except FieldFault as fault:
        return _page(programme_id, name, fault, given.get("body", "")), 400
    return redirect(url_for("notes.page", programme_id=programme_id, kind=name, clashes=clashes))


@room.post("/publish")
def go_out(programme_id: int) -> Reply:
    """Freeze a version of all texts."""
    told = _told(find_programme(programme_id))
    publish(shop(), programme_id, told, texts_of(shop(), programme_id, told), datetime.now())
    return redirect(url_for("notes.page", programme_id=programme_id, _anchor="versions"))


@room.get("/version/<int:number>")
def version(programme_id: int, number: int) -> str:
    """What went out, as it went out."""
    programme = find_programme(programme_id)
    found = next((one for one in publications(shop(), programme_id) if one.number == number), None) or abort(404)
    return render_template("air/version.html", programme=programme, version=found, kinds=note_kinds())


@room.get("/<kind>.<any(md, html, txt):form>")
def as_file(programme_id: int, kind: str, form: str) -> Response:
    note = texts_of(shop(), programme_id, _told(find_programme(programme_id)))[_kind(kind)]
    text = forms_of(note).get(form) or abort(404)
    return download(text, f"{kind}-{programme_id}.{form}", FORMS[form])


@room.get("/notes.json")
def as_json(programme_id: int) -> Response:
    told = _told(find_programme(programme_id))
    text = json.dumps(told, ensure_ascii=False, indent=2)
    return download(text, f"notes-{programme_id}.json", "application/json; charset=utf-8")


@room.get("/links.csv")
def links(programme_id: int) -> Response:
    """All links in the order shown."""
    out = io.StringIO()
    rows = csv.writer(out)
    rows.writerow(["number", "what", "name", "region", "link", "price", "delivery"])
    for place in _told(find_programme(programme_id))["places"]:
        for one in place["shown"]:
            for row in _links_of(one["cloth"], one["pattern"]):
                rows.writerow([place["number"], *map(safe_cell, row)])
    return download("\ufeff" + out.getvalue(), f"links-{programme_id}.csv", "text/csv; charset=utf-8")


def _links_of(cloth: dict[str, Any], pattern: dict[str, str] | None) -> list[tuple[str, ...]]:
    """The rows of a pairing: its cloth, where else that is sold, its pattern."""
    rows: list[tuple[str, ...]] = [("cloth", cloth["name"], "", cloth["link"], cloth["price"], "")]
    rows += [("cloth", cloth["name"], each["region"], each["link"], "", each["delivery"]) for each in cloth["sources"]]
    return [*rows, *([("pattern", pattern["name"], "", pattern["link"], "", "")] if pattern else [])]


def _kept(kind: str) -> dict[str, str]:
    return {"template": templates_of(shop())[kind], "tutorials": tutorials_text(shop())}


def _template_page(
    programme_id: int, kind: str, fault: FieldFault | None = None, typed: dict[str, str] | None = None, shown: str = ""
) -> str:
    programme, kept = find_programme(programme_id), _kept(kind)
    return render_template(
        "air/template.html", programme=programme, kinds=note_kinds(), kind=note_kinds()[kind], values={**kept, **(typed or {})},
        shown=shown or as_shown(kept), fault=fault, told=_told(programme),
    )  # fmt: skip


@room.get("/templates/<kind>")
def template(programme_id: int, kind: str) -> str:
    return _template_page(programme_id, _kind(kind))


@room.post("/templates/<kind>")
def save_template(programme_id: int, kind: str) -> Reply | tuple[str, int]:
    """Keep the shop's own template, or go back to the one that ships; and the shop's tutorials."""
    told = _told(find_programme(programme_id))
    name, given = _kind(kind), request.form
    try:
        values = merged(given, _kept(name), ("template", "tutorials"), str)
        template = "" if given.get("act") == "drop" else values["template"]
        try_template(name, template, told)  # before either is kept
        keep_tutorials(shop(), values["tutorials"])
        keep_template(shop(), name, template)
    except Clashing as clash:
        return _template_page(programme_id, name, clash, clash.values), 400
    except FieldFault as fault:
        typed = {field: given.get(field, "") for field in ("template", "tutorials")}
        return _template_page(programme_id, name, fault, typed, given.get(SHOWN, "")), 400
    return redirect(url_for("notes.page", programme_id=programme_id, kind=name))
