"""What was shown when, with what, and how it sold: of the shop, of a cloth, of a pattern."""

from __future__ import annotations

from datetime import date

from flask import Blueprint, render_template, request

from nematex.usecases.programme.history import SOLD_DAYS, appearances, seasons
from nematex.web.rooms.common import as_number, find_cloth, find_pattern, now, shop, whole_number

room = Blueprint("history", __name__, url_prefix="/history")


@room.get("")
def page() -> str:
    cloth_id, pattern_id = (as_number(request.args.get(name, "")) for name in ("cloth", "pattern"))
    cloth = find_cloth(cloth_id)[0] if cloth_id else None
    pattern = find_pattern(pattern_id) if pattern_id else None
    found = appearances(shop(), now(), date.today(), whole_number("page"), cloth_id or None, pattern_id or None)
    whole = cloth is None and pattern is None
    return render_template(
        "programme/history.html", cloth=cloth, pattern=pattern, found=found, days=SOLD_DAYS,
        seasons=seasons(now()) if whole else [], today=date.today(),
    )  # fmt: skip
