"""Colour and outfits: whether the set hangs together."""

from __future__ import annotations

from flask import Blueprint, render_template

from nematex.core.pattern.look import look_of
from nematex.usecases.programme.whole.capsule import Capsule, capsule
from nematex.usecases.programme.whole.colours import colours
from nematex.usecases.programme.whole.worn import Worn
from nematex.web.drawing.garment import drawn_figure
from nematex.web.drawing.outfit import OutfitDrawing, outfit_drawing
from nematex.web.rooms.common import now, shop
from nematex.web.rooms.programme.programmes import find_programme

room = Blueprint("together", __name__, url_prefix="/programmes/<int:programme_id>/together")

DRAWN = 24  # outfits; more are counted


def _drawing(outfit: list[Worn]) -> OutfitDrawing:
    tables = now().tables
    return outfit_drawing(
        [
            (
                drawn_figure(look_of(each.pattern.facts, tables, each.pick.view), each.cloth.bending_length.best),
                each.record,
                each.kind,
                each.layer,
            )
            for each in outfit
        ]
    )


def _cloths(found: Capsule) -> list[object]:
    return list({each.garment.record.id: each.garment.record for each in found.garments}.values())


@room.get("")
def page(programme_id: int) -> str:
    programme = find_programme(programme_id)
    found = capsule(shop(), now(), programme)
    drawings = [(_drawing(outfit), outfit) for outfit in found.outfits[:DRAWN]]
    return render_template(
        "programme/together.html", programme=programme, found=found, drawings=drawings, cloths=_cloths(found),
        colours=colours(shop(), now(), programme),
    )  # fmt: skip
