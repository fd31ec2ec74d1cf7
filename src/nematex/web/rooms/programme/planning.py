"""Planning a programme: its brief, the set proposed from it, and what becomes of each proposal."""

from __future__ import annotations

from datetime import datetime

from flask import Blueprint, abort, jsonify, redirect, render_template, request, url_for
from werkzeug.wrappers import Response

from nematex.core.errors import FieldFault
from nematex.core.set.brief import AUDIENCES, GROUNDS, SEASONS
from nematex.store.records import Pick
from nematex.usecases.forms.merging import SHOWN, Clashing, as_shown
from nematex.usecases.jobs import asking
from nematex.usecases.judging.ranking import fitting_wish, read_wish
from nematex.usecases.programme.proposing import planning
from nematex.usecases.programme.stocked.before_air import ask_again, looked_over
from nematex.usecases.stock.selling import feed_said
from nematex.web.rooms.common import as_number, find_cloth, find_pattern, now, shop
from nematex.web.rooms.programme.programmes import find_programme

room = Blueprint("planning", __name__, url_prefix="/programmes/<int:programme_id>")


def _brief_page(programme_id: int, values: dict[str, str], shown: str, fault: FieldFault | None = None) -> str:
    return render_template(
        "programme/brief.html",
        programme=find_programme(programme_id),
        values=values,
        shown=shown,
        fault=fault,
        kinds=now().tables.judging.proposal.kinds,
        seasons=SEASONS,
        audiences=AUDIENCES,
        grounds=GROUNDS,
        garments=sorted({record.facts.garment for record in now().drawer.records if record.facts.garment}),
    )


@room.get("/brief")
def brief(programme_id: int) -> str:
    kept = dict(find_programme(programme_id).brief)
    return _brief_page(programme_id, kept, as_shown(kept))


@room.post("/brief")
def save_brief(programme_id: int) -> Response | tuple[str, int]:
    """Keep the brief; and propose from it at once where that button was pressed."""
    find_programme(programme_id)
    given = request.form.to_dict()
    try:
        planning.save_brief(shop(), now(), programme_id, given)
        if "propose" in given:
            planning.ask_proposal(shop(), shop().now(), find_programme(programme_id))
    except FieldFault as fault:
        if isinstance(fault, Clashing):
            return _brief_page(programme_id, fault.values, as_shown(fault.now), fault), 400
        return _brief_page(programme_id, given, given.get(SHOWN, ""), fault), 400
    return redirect(url_for("programmes.programme", programme_id=programme_id))


@room.post("/propose")
def propose(programme_id: int) -> Response | tuple[str, int]:
    """Propose the places that nobody filled yet."""
    found = find_programme(programme_id)
    try:
        planning.ask_proposal(shop(), now(), found)
    except FieldFault as fault:
        kept = dict(found.brief)
        return _brief_page(programme_id, kept, as_shown(kept), fault), 400
    return redirect(url_for("programmes.programme", programme_id=programme_id))


@room.get("/proposing")
def proposing(programme_id: int) -> Response:
    """How far the proposal is: where to go when it is done."""
    job = planning.proposal_job(shop(), find_programme(programme_id))
    there = url_for("programmes.programme", programme_id=programme_id)
    return jsonify(done=0, total=0, next=None if job and job.runs else there)


@room.post("/proposing/stop")
def stop(programme_id: int) -> Response:
    job = planning.proposal_job(shop(), find_programme(programme_id))
    if job:
        asking.stop(shop().database, job.id)
    return redirect(url_for("programmes.programme", programme_id=programme_id))


@room.post("/proposed")
def proposed(programme_id: int) -> Response:
    """What becomes of what was proposed: `act` is "keep 12", "keep all", "refuse 12" or "forget"."""
    find_programme(programme_id)
    act, _, which = request.form.get("act", "").partition(" ")
    pick_id = as_number(which)
    if act == "keep" and (pick_id or which == "all"):
        planning.take_up(shop(), programme_id, pick_id)
    elif act == "refuse" and pick_id:
        planning.refuse(shop(), programme_id, pick_id)
    elif act == "forget":
        planning.forget_refused(shop(), programme_id)
    else:
        abort(400)
    anchor = f"pick-{pick_id}" if pick_id and act == "keep" else None
    return redirect(url_for("programmes.programme", programme_id=programme_id, _anchor=anchor))


@room.post("/waiting")
def let_wait(programme_id: int) -> Response:
    """Put a pairing behind a place."""
    given = request.form
    pattern = find_pattern(given.get("pattern", 0, int))
    record, _ = find_cloth(given.get("cloth", 0, int))
    wish = fitting_wish(pattern, read_wish(given))
    pick = Pick(0, record.id, pattern.id, "", wish.view, wish.size, wish.look, wish.school, wish.options, hacks=wish.hacks)
    leads = given.get("behind", 0, int)
    planning.let_wait(shop(), programme_id, pick, leads)
    return redirect(url_for("programmes.programme", programme_id=programme_id, _anchor=f"pick-{leads}"))


@room.post("/waiting/<int:pick_id>")
def bring_forward(programme_id: int, pick_id: int) -> Response:
    """Show a pairing that waits in the place of the one shown."""
    find_programme(programme_id)
    planning.bring_forward(shop(), programme_id, pick_id)
    return redirect(url_for("programmes.programme", programme_id=programme_id, _anchor=f"pick-{pick_id}"))


@room.get("/check")
def check(programme_id: int) -> str:
    """What is wrong before it is shown, as the shop knows it now."""
    programme = find_programme(programme_id)
    moment = datetime.now()
    return render_template(
        "programme/check.html", programme=programme, found=looked_over(shop(), now(), programme, moment),
        feed=feed_said(shop(), now(), moment), moment=moment,
    )  # fmt: skip


@room.post("/check")
def check_again(programme_id: int) -> Response:
    """Ask the stock feed, then look everything over again."""
    find_programme(programme_id)
    ask_again(shop(), now(), datetime.now())
    return redirect(url_for("planning.check", programme_id=programme_id))


@room.post("/beside")
def beside(programme_id: int) -> Response:
    """A lining, ribbing or accent that goes with a garment."""
    find_programme(programme_id)
    leads = request.form.get("leads", 0, int)
    given = {name: request.form.get(f"{name}-{leads}", "") for name in ("role", "beside")}
    planning.stand_beside(shop(), now(), programme_id, leads, given["role"], given["beside"])
    return redirect(url_for("programmes.programme", programme_id=programme_id, _anchor=f"pick-{leads}"))
