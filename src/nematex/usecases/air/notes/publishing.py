"""Publishing: a version of the notes is frozen, and what is different later is said with a correction."""

from __future__ import annotations

from collections.abc import Mapping
from datetime import datetime
from typing import Any

from nematex.core.air.notes.changes import Change, changes, facts_told
from nematex.store.air import notes as store
from nematex.store.air.notes import Publication
from nematex.usecases.air.notes.texts import NoteText
from nematex.usecases.held.shop import Shop
from nematex.usecases.programme.acts import found_programme

FACTS = ("told", "price", "care", "amount", "inside", "notions", "link")


def publish(shop: Shop, programme_id: int, told: Mapping[str, Any], texts: Mapping[str, NoteText], now: datetime) -> int:
    """Freeze what stands; the number of the version. Raises FieldFault where the programme is gone."""
    with shop.database.work() as work:
        found_programme(work, programme_id)
        bodies = {name: text.body for name, text in texts.items()}
        return store.publish(work, programme_id, now.replace(microsecond=0), told, bodies)


def publications(shop: Shop, programme_id: int) -> list[Publication]:
    """The versions that went out, the last first."""
    with shop.database.work() as work:
        return store.publications(work, programme_id)[::-1]


def moved_since(was: Publication, told: Mapping[str, Any]) -> list[Change]:
    """The facts that differ from those published."""
    return changes(facts_told(was.told, FACTS), facts_told(told, FACTS))
