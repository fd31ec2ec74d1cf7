"""A phone as the remote of a camera view: paired by a code that is typed or photographed, good for a day."""

from __future__ import annotations

import secrets
from collections.abc import Mapping
from datetime import datetime, timedelta
from typing import Any

from nematex.core.errors import FieldFault, UnknownChoice
from nematex.core.signs import without_controls
from nematex.store.air import remotes as store
from nematex.store.air.remotes import Press, Remote
from nematex.usecases.held.shop import Shop

SIGNS = "23456789ABCDEFGHJKMNPQRSTUVWXYZ"  # none that is read for another
LENGTH = 6
GOOD_FOR = timedelta(hours=24)
PRESSES = ("next", "back", "said", "slip", "note", "pause", "again")
OLDEST_S = 600.0  # a press that waited longer for the shop is no press any more
MOST_LETTERS = 2000


def new_remote(shop: Shop, programme_id: int, now: datetime) -> str:
    """A new code for a programme's camera view."""
    while True:
        code = "".join(secrets.choice(SIGNS) for _ in range(LENGTH))
        with shop.database.work() as work:
            if store.make_remote(work, code, programme_id, now, now - GOOD_FOR):
                return code


def read_code(text: str) -> str:
    """A code as typed: blanks and small letters do not matter."""
    return "".join(text.split()).upper()[:12]


def find_remote(shop: Shop, code: str, now: datetime) -> Remote | None:
    with shop.database.work() as work:
        return store.remote(work, read_code(code), now - GOOD_FOR)


def press(shop: Shop, remote: Remote, own_key: str, kind: str, text: str, age_s: float, now: datetime) -> None:
    """Press a key, `age_s` after it was pressed; raises FieldFault."""
    if kind not in PRESSES:
        raise UnknownChoice("key", kind[:40], PRESSES, "key")
    if not (own_key.isalnum() and own_key.isascii() and 8 <= len(own_key) <= 40):
        raise FieldFault("press", own_key[:40], "must have a key of 8 to 40 letters and digits")
    if not 0 <= age_s <= OLDEST_S:
        raise FieldFault("age", f"{age_s}", f"must be 0 to {OLDEST_S:.0f} seconds")
    said = without_controls(text).strip()[:MOST_LETTERS]
    with shop.database.work() as work:
        store.press(work, remote.code, own_key, kind, said, now.timestamp() - age_s)


def presses(shop: Shop, code: str, after: int, shows: Mapping[str, Any]) -> list[Press]:
    """What a camera view's remote pressed since, while it is told what the view shows."""
    with shop.database.work() as work:
        store.show(work, code, shows)
        return store.presses(work, code, after)
