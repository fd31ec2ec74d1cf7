"""The notes on paper: a leaflet for the parcel, and cue cards for the presenter."""

from __future__ import annotations

from datetime import date

from flask import render_template

from nematex.core.air.run_sheet import clock
from nematex.usecases.air.camera import shots
from nematex.usecases.air.notes.told import told_of
from nematex.usecases.programme.acts import programme
from nematex.web.pdf import fonts_by_name
from nematex.web.rooms.common import now, shop
from nematex.web.rooms.paper import PAPERS


def leaflet_html(programme_id: int, paper_name: str) -> str | None:
    """The leaflet; None where the programme is gone."""
    shown = programme(shop(), programme_id)
    if shown is None:
        return None
    told = told_of(shop(), now(), shown, date.today())
    return render_template("air/leaflet.html", told=told, paper=PAPERS[paper_name], fonts=fonts_by_name())


def cards_html(programme_id: int, paper_name: str) -> str | None:
    """Two cue cards to a sheet, to be cut; None where the programme is gone."""
    shown = programme(shop(), programme_id)
    if shown is None:
        return None
    _, found = shots(shop(), now(), shown)
    return render_template(
        "air/cards.html", programme=shown, shots=found, paper=PAPERS[paper_name], fonts=fonts_by_name(), clock=clock
    )
