"""Programmes: what can be done with them."""

from __future__ import annotations

from datetime import date

from nematex.core.errors import FieldFault
from nematex.store.programme import programmes as store
from nematex.store.records import Pick, Programme
from nematex.usecases.held.shop import Shop

NAME_LETTERS, LINE_LETTERS = 120, 2000


def programme(shop: Shop, programme_id: int) -> Programme | None:
    with shop.database.work() as work:
        return store.programme(work, programme_id)


def checked_text(field: str, text: str, limit: int = LINE_LETTERS) -> str:
    """The text without blanks at its ends; raises FieldFault where it is longer than is kept."""
    clean = text.strip()
    if len(clean) > limit:
        raise FieldFault(field, f"{clean[:40]}…", f"is {len(clean)} letters long; at most {limit} are kept")
    return clean


def _day(text: str) -> date | None:
    try:
        return date.fromisoformat(text.strip()) if text.strip() else None
    except ValueError:
        raise FieldFault("date", text.strip(), "is not a date; write it like 2026-10-24") from None


def save_programme(shop: Shop, programme_id: int | None, name: str, shown_on: str, intro: str) -> int:
    """Make a programme or change what is said of it; returns its number. Raises FieldFault."""
    title, day, words = checked_text("name", name, NAME_LETTERS), _day(shown_on), checked_text("intro", intro)
    if not title:
        raise FieldFault("name", "", "is missing; a programme needs one")
    with shop.database.work() as work:
        return store.save_programme(work, title, day, words, programme_id)


def remove_programme(shop: Shop, programme_id: int) -> None:
    with shop.database.work() as work:
        store.remove_programme(work, programme_id)


def add_pick(shop: Shop, programme_id: int, pick: Pick) -> None:
    """Append a pairing at the end of the running order."""
    with shop.database.work() as work:
        store.add_pick(work, programme_id, pick)


def move_pick(shop: Shop, programme_id: int, pick_id: int, step: int) -> None:
    with shop.database.work() as work:
        store.move_pick(work, programme_id, pick_id, step)


def remove_pick(shop: Shop, programme_id: int, pick_id: int) -> None:
    with shop.database.work() as work:
        store.remove_pick(work, programme_id, pick_id)


def write_line(shop: Shop, programme_id: int, pick_id: int, line: str) -> None:
    """Keep the presenter's own line; raises FieldFault where it is too long."""
    words = checked_text("line", line)
    with shop.database.work() as work:
        store.write_line(work, programme_id, pick_id, words)
