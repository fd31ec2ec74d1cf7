"""What hands decided against the rules: kept on the pairing, gathered on a page of their own."""

from __future__ import annotations

from flask import Blueprint, redirect, render_template, request, url_for
from werkzeug.wrappers import Response

from nematex.core.errors import FieldFault
from nematex.core.paging import page_of
from nematex.demo.judged import agreement
from nematex.usecases.judging.overrides import counted, decide, disagreements, forget
from nematex.usecases.judging.ranking import fitting_wish, one_pairing, read_wish
from nematex.usecases.judging.why_view import drop_rule, rules_set
from nematex.web.guard.who import their_form
from nematex.web.rooms.common import find_cloth, find_pattern, inside, now, shop, tell_binned, whole_number
from nematex.web.rooms.judging.pairing import pairing_page

room = Blueprint("hands", __name__, url_prefix="/hands")
TO_A_PAGE = 10  # each with all its cases


@room.get("")
def page() -> str:
    found = page_of(disagreements(shop(), now()), whole_number("page"), TO_A_PAGE)
    shared = agreement(now().tables)
    counts, rules = counted(shop()), rules_set(shop())
    return render_template("judging/overrides/page.html", found=found, counts=counts, rules=rules, shared=shared)


@room.post("/<int:pattern_id>/<int:cloth_id>")
def keep(pattern_id: int, cloth_id: int) -> Response | tuple[str, int]:
    """Keep what somebody decided of a pairing."""
    pattern, (record, cloth) = find_pattern(pattern_id), find_cloth(cloth_id)
    wish = fitting_wish(pattern, read_wish(request.form))
    try:
        decide(shop(), pattern, record, one_pairing(shop(), now(), pattern, cloth, wish), their_form())
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
    forget(shop(), verdict_id)
    tell_binned("hand verdict", verdict_id, "the verdict by hand")
    return redirect(inside(request.form.get("back", ""), url_for("hands.page")))


@room.post("/rules/<int:fix_id>/drop")
def drop(fix_id: int) -> Response:
    """A rule's number goes back to what it shipped as."""
    drop_rule(shop(), fix_id)
    return redirect(url_for("hands.page", _anchor="rules"))
