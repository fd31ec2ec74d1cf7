"""What is written and drawn as a PDF in the background: the look-book, the leaflet, the cue cards of a programme."""

from __future__ import annotations

import hashlib
import json
from datetime import date

from flask import Blueprint, Response

from nematex.store.records import Programme
from nematex.usecases.air.notes.told import told_of
from nematex.web.rooms.common import now, shop
from nematex.web.rooms.made import ask, made_or_wait
from nematex.web.rooms.paper import paper_asked
from nematex.web.rooms.programme.programmes import find_programme

room = Blueprint("drawn", __name__, url_prefix="/programmes/<int:programme_id>/<any(book, leaflet, cards):kind>")


def _asked(shown: Programme, kind: str, paper: str) -> str:
    """Everything that it rests on, so that an unchanged one is not drawn again."""
    state = now()
    words = [state.settings.get(name, "") for name in ("units", "words", "price per", "shop", "speaking order")]
    rests_on = [state.shared_version, state.programmes_version, *words]
    if kind != "book":  # takes, templates and the day come in too
        told = json.dumps(told_of(shop(), state, shown, date.today()), sort_keys=True)
        rests_on.append(hashlib.sha256(told.encode()).hexdigest())
    return json.dumps({"programme": shown.id, "paper": paper, "rests_on": rests_on})


@room.get("")
def page(programme_id: int, kind: str) -> Response:
    shown = find_programme(programme_id)
    asked = _asked(shown, kind, paper_asked().name)
    return made_or_wait(ask(kind, asked, programme=shown.id))
