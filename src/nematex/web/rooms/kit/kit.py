"""Kits on one page: ask, see which bolt is cut how, what it costs and leaves; reserve the stock and give it back."""

from __future__ import annotations

from typing import Any
from urllib.parse import urlencode

from flask import Blueprint, redirect, render_template, request, url_for
from werkzeug.wrappers import Response

from nematex.core.errors import FieldFault
from nematex.store.records import ClothRecord, PatternRecord
from nematex.usecases.cloth.browse import offered_cloths
from nematex.usecases.kit.kit import Answer, read_asked, read_question, reserve_kit, reserved, return_reserved, work_out
from nematex.web.rooms.common import as_number, now, shop

room = Blueprint("kit", __name__, url_prefix="/kit")
FIELDS = ("pattern", "view", "cloth", "rib", "bolts", "mix", "kits", "price", "other")


def _cloth(number: str) -> ClothRecord | None:
    found = now().cloth(as_number(number) or 0)
    return found[0] if found else None


def _asked(given: dict[str, str]) -> tuple[PatternRecord | None, ClothRecord | None, ClothRecord | None]:
    return now().pattern(as_number(given["pattern"]) or 0), _cloth(given["cloth"]), _cloth(given["rib"])


def _given() -> dict[str, str]:
    given = {name: request.values.get(name, "")[:2000] for name in FIELDS}
    if question := request.values.get("q", ""):
        given |= read_question(now(), question)
    return given


def _answer(given: dict[str, str]) -> tuple[Answer | None, FieldFault | None]:
    pattern, record, rib = _asked(given)
    if not (pattern and record and given["bolts"]):
        return None, None
    try:
        return work_out(now(), read_asked(now(), pattern, record, rib, given)), None
    except FieldFault as fault:
        return None, fault


def asked_answer() -> tuple[dict[str, str], Answer | None, FieldFault | None]:
    """What the page asks, and the kit worked out."""
    given = _given()
    return given, *_answer(given)


def kit_page(given: dict[str, str], answer: Answer | None, fault: FieldFault | None) -> str:
    pattern, record, rib = _asked(given)
    shown: dict[str, Any] = {"pattern": pattern, "record": record, "rib": rib}
    chosen = [each.id for each in (record, rib) if each]
    held = reserved(shop())
    of = {one.cloth_id for one in held}
    return render_template(
        "kit/kit.html", given=given, answer=answer, fault=fault, patterns=now().drawer.records, q=request.values.get("q", ""),
        offered=offered_cloths(now().shelf, request.values.get("find", "")[:200], chosen), reserved=held,
        names={each.id: each.facts.name for each in now().shelf.records if each.id in of},
        rule=now().tables.judging.kit, programmes=now().programmes, **shown,
    )  # fmt: skip


@room.get("")
def page() -> str:
    given = _given()
    return kit_page(given, *_answer(given))


@room.post("")
def hold() -> Response | tuple[str, int]:
    """Take the cloth and the ribbing of the kits out of the stock."""
    given = _given()
    answer, fault = _answer(given)
    try:
        if answer is None:
            raise fault or FieldFault("kit", "", "has nothing to reserve yet")
        reserve_kit(shop(), answer)
    except FieldFault as found:
        return kit_page(given, answer, found), 400
    return redirect(f"{url_for('kit.page')}?{urlencode({name: text for name, text in given.items() if text})}#reserved")


@room.post("/back/<int:reservation_id>")
def back(reservation_id: int) -> Response:
    return_reserved(shop(), reservation_id)
    return redirect(url_for("kit.page") + "#reserved")
