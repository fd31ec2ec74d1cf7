"""The run sheet: parts with their times, props, who does what; on the page and printed."""

from __future__ import annotations

from flask import Blueprint, Response, redirect, render_template, request, url_for
from werkzeug.wrappers import Response as Reply

from nematex.core.air.run_sheet import clock
from nematex.core.errors import FieldFault
from nematex.usecases.air.run_sheet import FIELDS, run_of, save_run
from nematex.usecases.air.speaking import keep_order, keep_words, order_of, words_text
from nematex.usecases.forms.merging import SHOWN, Clashing, as_shown, merged
from nematex.web.pdf import fonts_by_name
from nematex.web.rooms.common import now, shop
from nematex.web.rooms.made import SHEET, by_worker
from nematex.web.rooms.paper import as_pdf, paper_asked
from nematex.web.rooms.programme.programmes import find_programme

room = Blueprint("run", __name__, url_prefix="/programmes/<int:programme_id>/run")


OURS = {"order": "order of speaking", "spoken": "how words are said"}  # the shop's own, whatever the programme


def _ours() -> dict[str, str]:
    return {"order": ", ".join(order_of(now())), "spoken": words_text(shop())}


def _page(programme_id: int, typed: dict[str, str] | None = None, shown: str = "", fault: FieldFault | None = None) -> str:
    programme = find_programme(programme_id)
    ours = _ours()
    run = run_of(shop(), now(), programme)
    return render_template(
        "air/run.html", programme=programme, run=run, values={**ours, **run.typed, **(typed or {})},
        shown=shown or as_shown({**ours, **run.typed}), fault=fault, clock=clock,
    )  # fmt: skip


@room.get("")
def page(programme_id: int) -> str:
    return _page(programme_id)


@room.post("")
def save(programme_id: int) -> Reply | tuple[str, int]:
    """Keep what is typed for the run sheet, the shop's order of speaking and how it says its words."""
    find_programme(programme_id)
    given = request.form.to_dict()
    try:
        ours = merged(given, _ours(), OURS, OURS.__getitem__)
        keep_order(shop(), ours["order"])
        keep_words(shop(), ours["spoken"])
        save_run(shop(), programme_id, given)
    except FieldFault as fault:
        typed = {name: given.get(name, "") for name in (*FIELDS, "order", "spoken")}
        if isinstance(fault, Clashing):
            return _page(programme_id, {**typed, **fault.values}, fault=fault), 400
        return _page(programme_id, typed, given.get(SHOWN, ""), fault), 400
    return redirect(url_for("run.page", programme_id=programme_id))


@room.get("/sheet.pdf")
@by_worker(SHEET)
def printed(programme_id: int) -> Response:
    programme, paper = find_programme(programme_id), paper_asked()
    run = run_of(shop(), now(), programme)
    html = render_template("air/print.html", programme=programme, run=run, paper=paper, clock=clock, fonts=fonts_by_name())
    return as_pdf(html, f"run-sheet-{programme_id}")
