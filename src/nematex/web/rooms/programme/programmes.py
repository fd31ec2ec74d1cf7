"""Programmes: dated lists of picks, their order, and the presenter's lines."""

from __future__ import annotations

from dataclasses import replace
from datetime import datetime

from flask import Blueprint, abort, redirect, render_template, request, session, url_for
from werkzeug.wrappers import Response

from nematex.core.errors import FieldFault
from nematex.core.paging import page_of
from nematex.store.records import Pick, Programme
from nematex.usecases.forms.merging import SHOWN, Clashing, as_shown
from nematex.usecases.judging.ranking import fitting_wish, read_wish
from nematex.usecases.programme import acts
from nematex.usecases.programme.absent import absent
from nematex.usecases.programme.acts import Line
from nematex.usecases.programme.companions import COMPANIONS
from nematex.usecases.programme.notes import entries
from nematex.usecases.programme.proposing.planning import ask_open, proposal_job, said_of_proposal
from nematex.usecases.programme.stocked.needs import needs
from nematex.usecases.programme.stocked.short import need_said, offers
from nematex.usecases.programme.stocked.stand_ins import replace_cloth
from nematex.usecases.programme.waiting import waiting
from nematex.usecases.programme.whole.serves import whole_set
from nematex.usecases.stock.selling import feed_said
from nematex.web.rooms.common import as_number, find_cloth, find_pattern, inside, now, shop, tell_binned, whole_number

room = Blueprint("programmes", __name__, url_prefix="/programmes")
NAMES = 400  # of cloths, offered while one types


def find_programme(programme_id: int) -> Programme:
    return acts.programme(shop(), programme_id) or abort(404)


@room.get("")
def programmes() -> str:
    return _list({}, "")


def _list(values: dict[str, str], shown: str, fault: FieldFault | None = None, record_id: int | None = None) -> str:
    found = page_of(now().programmes, whole_number("page"))
    return render_template("programme/list.html", found=found, values=values, shown=shown, fault=fault, record_id=record_id)


@room.post("")
@room.post("/<int:programme_id>/about")
def save(programme_id: int | None = None) -> Response | tuple[str, int]:
    given = request.form
    try:
        kept = acts.save_programme(shop(), programme_id, given)
    except FieldFault as fault:
        values, shown = given.to_dict(), given.get(SHOWN, "")
        if isinstance(fault, Clashing):  # what a colleague changed in other fields stands in the form as well
            values, shown = fault.values, as_shown(fault.now)
        return _list(values, shown, fault, programme_id), 400
    session["programme"] = kept
    return redirect(url_for("programmes.programme", programme_id=kept))


@room.get("/<int:programme_id>")
def programme(programme_id: int) -> str:
    shown = find_programme(programme_id)
    if "picks" in request.args:
        session["programme"] = programme_id  # only where it is asked for: looking at a programme moves nothing
    return _page(shown)


def _page(shown: Programme, typed: dict[int, Line] | None = None, fault: FieldFault | None = None) -> str:
    """`typed` are own lines that were not kept, by pick."""
    clash, found = isinstance(fault, Clashing), entries(shop(), now(), shown)
    return render_template(
        "programme/programme.html",
        programme=shown,
        entries=found,
        offers=offers(shop(), now(), shown),
        needs=needs(now(), shown),
        need_said=need_said,
        feed=feed_said(shop(), now(), datetime.now()),
        absent=absent(shop(), now(), shown),
        about=as_shown(acts.about(shown)),
        proposing=proposal_job(shop(), shown),
        said=said_of_proposal(shown),
        waiting=waiting(shop(), now(), shown),
        companions=COMPANIONS,
        cloth_names=[record.facts.name for record in now().shelf.records[:NAMES]],
        typed={number: line.typed for number, line in (typed or {}).items()},
        bases={number: line.shown for number, line in (typed or {}).items() if not clash},
        fault=fault,
        here=session.get("programme") == shown.id,
    )


@room.post("/picks")
def add() -> Response:
    """Add a pairing to the programme chosen in the form."""
    programme_id = request.form.get("programme", type=int) or abort(404)
    cloth_id, pattern_id = request.form.get("cloth", 0, int), request.form.get("pattern", 0, int)
    ticked = [number for text in request.form.getlist("patterns") if (number := as_number(text))]
    pattern_id = pattern_id or next(iter(ticked), 0)
    find_cloth(cloth_id), find_programme(programme_id)
    wish = fitting_wish(find_pattern(pattern_id), read_wish(request.form))
    line = acts.checked_text("line", request.form.get("line", ""))
    pick = Pick(0, cloth_id, pattern_id, line, wish.view, wish.size, wish.look, wish.school, wish.options)
    pick = replace(pick, hacks=wish.hacks, part=request.form.get("part", "")[:80] or None)
    acts.add_picks(shop(), programme_id, [pick, *_more_of_one(pick)])
    session["programme"] = programme_id
    there = url_for("programmes.programme", programme_id=programme_id, _anchor="last")
    return redirect(inside(request.form.get("back", ""), there))


@room.get("/<int:programme_id>/set")
def seen_whole(programme_id: int) -> str:
    """Who the programme serves and leaves out, and what else it shows."""
    shown = find_programme(programme_id)
    return render_template("programme/set.html", programme=shown, found=whole_set(shop(), now(), shown))


def _more_of_one(pick: Pick) -> list[Pick]:
    """What is added with a pick as one place: `patterns` for the same cloth, or `cloth.sleeve` for the same pattern."""
    given = request.form
    patterns = [number for text in given.getlist("patterns") if (number := as_number(text)) and number != pick.pattern_id]
    found = [
        replace(pick, pattern_id=find_pattern(number).id, line="", view=None, size=None, options=None) for number in patterns
    ]
    for name, text in given.items():
        cloth_id = as_number(text) if name.startswith("cloth.") else None
        if cloth_id:
            found.append(replace(pick, cloth_id=find_cloth(cloth_id)[0].id, part=name.removeprefix("cloth.")[:80], line=""))
    return found


def _lines() -> dict[int, Line]:
    """The own lines on the page, by pick."""
    given = request.form
    return {
        number: Line(text, given.get(f"{SHOWN}-{number}", ""))
        for name, text in given.items()
        if name.startswith("line-") and (number := as_number(name.removeprefix("line-"))) is not None
    }


def _by_pick(prefix: str) -> dict[int, str]:
    """What stands on the page in the fields of this name, by pick."""
    return {
        number: text
        for name, text in request.form.items()
        if name.startswith(f"{prefix}-") and (number := as_number(name.removeprefix(f"{prefix}-"))) is not None
    }


def _keep_questions(programme_id: int) -> None:
    """Keep what is still open of each pick, where it was changed; raises FieldFault."""
    shown = _by_pick("shown-question")
    for pick_id, text in _by_pick("question").items():
        if text.strip() != shown.get(pick_id, "").strip():
            ask_open(shop(), programme_id, pick_id, text)


@room.post("/<int:programme_id>/picks")
def change(programme_id: int) -> Response | tuple[str, int]:
    """Keep all lines of the page; and move a pick up or down, or take it out: `act` is "up 12"."""
    act, _, number = request.form.get("act", "keep").partition(" ")
    lines, pick_id = _lines(), as_number(number) or 0
    try:
        acts.hold_sizes(shop(), programme_id, _by_pick("size"), _by_pick("shown-size"))
        _keep_questions(programme_id)
        acts.change_picks(shop(), programme_id, lines, act, pick_id)
        if act == "settle":
            acts.settle(shop(), programme_id, pick_id)
    except FieldFault as fault:
        return _page(find_programme(programme_id), lines, fault), 400
    if act == "remove":
        tell_binned("pick", pick_id, "the pick")
    return redirect(url_for("programmes.programme", programme_id=programme_id, _anchor=f"pick-{pick_id}" if pick_id else None))


@room.post("/<int:programme_id>/picks/<int:pick_id>/cloth/<int:cloth_id>")
def stand_in(programme_id: int, pick_id: int, cloth_id: int) -> Response | tuple[str, int]:
    """Show another cloth in a pick's place; what is typed on the page is kept as well."""
    find_cloth(cloth_id)
    lines = _lines()
    try:
        acts.change_picks(shop(), programme_id, lines)
        replace_cloth(shop(), programme_id, pick_id, cloth_id)
    except FieldFault as fault:
        return _page(find_programme(programme_id), lines, fault), 400
    return redirect(url_for("programmes.programme", programme_id=programme_id, _anchor=f"pick-{pick_id}"))


@room.post("/<int:programme_id>/remove")
def remove(programme_id: int) -> Response:
    name = find_programme(programme_id).name
    acts.remove_programme(shop(), programme_id)
    tell_binned("programme", programme_id, name)
    return redirect(url_for("programmes.programmes"))
