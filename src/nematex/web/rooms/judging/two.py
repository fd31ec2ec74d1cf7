"""The same pattern in two cloths on one sheet: verdicts, hang, amounts, sewing, care, cost, and what the shop made of it."""

from __future__ import annotations

from dataclasses import dataclass

from flask import Blueprint, render_template, request

from nematex.core.errors import FieldFault
from nematex.core.judging.pairing import Pairing
from nematex.core.pattern.facts import Wish
from nematex.store.records import ClothRecord, Override, PatternRecord
from nematex.usecases.beneath.cost import SETTING, GarmentCost, garment_cost, read_notion_prices, read_off
from nematex.usecases.beneath.view import beneath
from nematex.usecases.cloth.browse import offered_cloths
from nematex.usecases.judging.overrides import of_pairing
from nematex.usecases.judging.ranking import Filters, fitting_wish, one_pairing, rank_cloths, read_wish
from nematex.web.rooms.common import as_number, find_pattern, now, shop

room = Blueprint("two", __name__, url_prefix="/pairing/two")

CARED = ("fray", "crease", "press", "care")


@dataclass(frozen=True)
class Side:
    """One of the two: its pairing, what its garment costs (None: not known), what hands said, how it sews and is cared for."""

    record: ClothRecord
    pairing: Pairing
    cost: GarmentCost | None
    hands: list[Override]
    sews: list[tuple[str, str]]


def _side(pattern: PatternRecord, cloth_id: int, wish: Wish) -> Side | None:
    found = now().cloth(cloth_id)
    if found is None:
        return None
    record, cloth = found
    pairing = one_pairing(shop(), now(), pattern, cloth, wish)
    try:
        below = beneath(now(), pattern, record, cloth, wish)
        cost = garment_cost(record, below, read_notion_prices(now().settings.get(SETTING, "")), read_off({}))
    except FieldFault:
        cost = None
    sews = [(name, said) for name in CARED if (said := str(getattr(record, name) or ""))]
    return Side(record, pairing, cost, of_pairing(shop(), record.id, pattern.id), sews)


@room.get("/<int:pattern_id>")
def page(pattern_id: int) -> str:
    """Two cloths of the address, else the two that rank first."""
    pattern = find_pattern(pattern_id)
    wish = fitting_wish(pattern, read_wish(request.args))
    asked = [as_number(request.args.get(name, "")) for name in ("a", "b")]
    best = [row.cloth_record.id for row in rank_cloths(shop(), now(), pattern, wish, Filters(in_stock=True)).rows[:3]]
    rest = [each for each in best if each not in asked]
    chosen = [each or rest.pop(0) for each in asked if each or rest]
    sides = [side for each in chosen if (side := _side(pattern, each, wish))]
    offered = offered_cloths(now().shelf, "", [side.record.id for side in sides])
    return render_template("judging/pairing/two.html", pattern=pattern, wish=wish, sides=sides, offered=offered)
