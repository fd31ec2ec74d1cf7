"""What hands decided against the rules: kept on the pairing, gathered on a page of their own."""

from __future__ import annotations

from flask import Blueprint, redirect, render_template, request, url_for
from werkzeug.wrappers import Response

from nematex.core.errors import FieldFault
from nematex.store.hand_verdicts import remove_hand_verdict
from nematex.usecases.hands import counted, decide, disagreements
from nematex.usecases.ranking import fitting_wish, one_pairing, read_wish
from nematex.usecases.why_view import drop_rule, rules_set
from nematex.web.rooms.common import find_cloth, find_pattern, shop
from nematex.web.rooms.pairing import pairing_page

room = Blueprint("hands", __name__, url_prefix="/hands")


@room.get("")
def page() -> str:
    return render_template("hands/page.html", found=disagreements(shop()), counts=counted(shop()), rules=rules_set(shop()))


@room.post("/<int:pattern_id>/<int:cloth_id>")
def keep(pattern_id: int, cloth_id: int) -> Response | tuple[str, int]:
    """Keep what somebody decided of a pairing."""
    drawer, pattern = find_pattern(pattern_id)
    _, record, cloth = find_cloth(cloth_id)
    wish = fitting_wish(pattern, read_wish(request.form))
    try:
        decide(shop(), pattern, record, one_pairing(drawer, pattern, cloth, wish), request.form)
    except FieldFault as fault:
        return pairing_page(pattern_id, cloth_id, wish, request.form, fault), 400
    return redirect(
        url_for(
            "pairing.one",
            pattern_id=pattern_id,
            cloth_id=cloth_id,
            part=wish.part,
            view=wish.view,
            size=wish.size,
            look=wish.look,
            school=wish.school,
            options=None if wish.options is None else "|".join(wish.options),
            _anchor="hands",
        )
    )


@room.post("/<int:verdict_id>/remove")
def remove(verdict_id: int) -> Response:
    with shop().database.work() as work:
        remove_hand_verdict(work, verdict_id)
    back = request.form.get("back", "")
    return redirect(back if back.startswith("/") and not back.startswith("//") else url_for("hands.page"))


@room.post("/rules/<int:fix_id>/drop")
def drop(fix_id: int) -> Response:
    """A rule's number goes back to what it shipped as."""
    drop_rule(shop(), fix_id)
    return redirect(url_for("hands.page", _anchor="rules"))
