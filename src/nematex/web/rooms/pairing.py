"""The pairing pages: a pattern's cloths, a cloth's patterns, and one pairing in full."""

from __future__ import annotations

from datetime import date
from typing import Any

from flask import Blueprint, render_template, request, session

from nematex.core.errors import FieldFault
from nematex.store.programmes import all_programmes
from nematex.store.records import PatternRecord
from nematex.usecases.ranking import both_schools, fitting_wish, one_pairing, rank_cloths, rank_patterns, read_wish
from nematex.usecases.worth import MEASURE_OF
from nematex.web.rooms.common import filters, find_cloth, find_pattern, shop

room = Blueprint("pairing", __name__, url_prefix="/pairing")


@room.get("")
def choose() -> str:
    return render_template("pairing/choose.html", drawer=shop().drawer(), shelf=shop().shelf())


def _programmes() -> dict[str, Any]:
    with shop().database.work() as work:
        found = all_programmes(work)
    chosen = request.args.get("programme", session.get("programme"), int)
    if chosen:
        session["programme"] = chosen
    coming = [one for one in found if one.shown_on is None or one.shown_on >= date.today()]
    first = next(iter(coming or found), None)
    return {"programmes": found, "current": next((one for one in found if one.id == chosen), first)}


def _options(record: PatternRecord) -> dict[str, list[str]]:
    """What can be chosen for this pattern."""
    rows = record.facts.requirements
    return {
        "views": list(dict.fromkeys(row.view for row in rows)),
        "sizes": list(dict.fromkeys(size for row in rows for size in row.sizes)),
        "parts": [part.name for part in record.facts.parts],
    }


@room.get("/pattern/<int:pattern_id>")
def for_pattern(pattern_id: int) -> str:
    drawer, record = find_pattern(pattern_id)
    wish, chosen = fitting_wish(record, read_wish(request.args)), filters()
    ranking = rank_cloths(shop().shelf(), drawer, record, wish, chosen)
    return render_template(
        "pairing/cloths.html", record=record, wish=wish, filters=chosen, ranking=ranking, **_options(record), **_programmes()
    )


@room.get("/cloth/<int:cloth_id>")
def for_cloth(cloth_id: int) -> str:
    _, record, cloth = find_cloth(cloth_id)
    wish, chosen = read_wish(request.args), filters()
    ranking = rank_patterns(shop().drawer(), record, cloth, wish, chosen)
    return render_template(
        "pairing/patterns.html", record=record, cloth=cloth, wish=wish, filters=chosen, ranking=ranking, **_programmes()
    )


@room.get("/one/<int:pattern_id>/<int:cloth_id>")
def one(pattern_id: int, cloth_id: int) -> str:
    drawer, pattern = find_pattern(pattern_id)
    _, record, cloth = find_cloth(cloth_id)
    wish = fitting_wish(pattern, read_wish(request.args))
    try:
        pairing = one_pairing(drawer, pattern, cloth, wish)
    except FieldFault as fault:
        return render_template("error.html", title="Cannot be judged", text=str(fault))
    schools = both_schools(drawer, pattern, cloth, wish)
    return render_template(
        "pairing/one.html", record=record, pattern=pattern, pairing=pairing, wish=wish, schools=schools, measure_of=MEASURE_OF,
        **_options(pattern), **_programmes()
    )  # fmt: skip
