"""A programme's garments as they hang on its wall, for the page, for pictures and for the look-book."""

from __future__ import annotations

import base64
from dataclasses import dataclass
from datetime import date

from flask import url_for

from nematex.core.pattern.look import look_of
from nematex.store.records import ClothRecord, Programme
from nematex.usecases.programme import photos
from nematex.usecases.programme.notes import Entry, entries
from nematex.usecases.programme.stocked.needs import Need, needs
from nematex.web.drawing.garment import drawn_figure
from nematex.web.drawing.wall import Garment, Wall, wall
from nematex.web.pdf import PHOTO
from nematex.web.rooms.common import now, shop

PAGE_PX = (1240.0, 540.0)
PAGE_LETTER_PX = 14.0
ROWS_PAGE_PX = 460.0  # more for each row beyond the first, so that a long set does not shrink
SIZES = {"wide": (1920.0, 1080.0), "square": (1080.0, 1080.0), "portrait": (1080.0, 1350.0)}
TO_A_ROW = 7


@dataclass(frozen=True)
class Colours:
    """What a wall is drawn in."""

    ground: str
    ink: str
    soft: str
    line: str
    edge: str


GROUNDS = {
    "light": Colours("#f5f0e4", "#211f1b", "#5d574c", "#b9a57c", "#211f1b"),
    "dark": Colours("#1f1d1a", "#f5f0e4", "#c9c0ad", "#7d7058", "#9a8f79"),
}


def places(found: list[Entry]) -> list[list[Entry]]:
    """The entries by place: the one that opens it, then what stands with it."""
    made: list[list[Entry]] = []
    for entry in found:
        if entry.leads or not made:
            made.append([entry])
        else:
            made[-1].append(entry)
    return made


def _red(need: Need | None) -> str:
    """What is wrong with its stock, in few words."""
    if need is None or not need.is_scarce:
        return ""
    return "sold out" if not need.left_m else "too little left"


def garment(place: list[Entry], photo: str, need: Need | None) -> Garment:
    """What hangs at one place."""
    entry, voice, state = place[0], now().voice, now()
    seen = look_of(entry.pattern.facts, state.tables, entry.pick.view)
    bend = state.shelf.cloths[state.shelf.place[entry.cloth.id]].bending_length.best
    amount = entry.pairing.amount if entry.pairing else None
    price = voice.lead(voice.price(entry.cloth.price_on(date.today()), entry.cloth.currency))
    length = voice.lead(voice.length(amount.length_m)) if amount else ""
    return Garment(
        number=entry.number,
        pick_id=entry.pick.id,
        cloth=entry.cloth,
        pattern=entry.pattern,
        figure=drawn_figure(seen, bend),
        kind=seen.kind,
        facts=(" · ".join(each for each in (length, price) if each),),
        others=tuple(other.cloth for other in place[1:] if other.cloth.id != entry.cloth.id),
        photo=photo,
        verdict=entry.pairing.verdict.word if entry.pairing else "",
        red=_red(need),
    )


def garments(programme: Programme, as_data: bool = False) -> list[Garment]:
    """All that hangs, in running order; photos as addresses of the shop, or as data for what stands alone."""
    own = photos.photographed(shop(), programme)
    found = entries(shop(), now(), programme)

    def photo(pick_id: int) -> str:
        if pick_id not in own:
            return ""
        if not as_data:
            return url_for("wall.photo", programme_id=programme.id, pick_id=pick_id)
        return PHOTO + base64.b64encode(photos.photo_of(shop(), pick_id) or b"").decode()

    short = needs(now(), programme)
    return [garment(place, photo(place[0].pick.id), short.get(place[0].pick.id)) for place in places(found)]


def on_page(programme: Programme) -> Wall:
    """The wall of the page: as high as its rows need."""
    found = garments(programme)
    rows = max(1, -(-len(found) // TO_A_ROW))
    return wall(found, "", PAGE_PX[0], PAGE_PX[1] + (rows - 1) * ROWS_PAGE_PX, PAGE_LETTER_PX)


def in_size(programme: Programme, size: str) -> Wall:
    """The wall as a picture that stands alone."""
    return wall(garments(programme, as_data=True), programme.name, *SIZES[size])


def cloths_of(drawn: Wall) -> list[ClothRecord]:
    """Each cloth of the wall once: its print is defined once."""
    return list({one.garment.cloth.id: one.garment.cloth for one in drawn.hung}.values())
