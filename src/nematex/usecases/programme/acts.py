"""Programmes: what can be done with them."""

from __future__ import annotations

import secrets
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from nematex.core.errors import FieldFault, UnknownChoice
from nematex.core.signs import without_controls
from nematex.store.database import Work
from nematex.store.programme import programmes as store
from nematex.store.records import PatternRecord, Pick, Programme
from nematex.usecases.forms.days import read_day
from nematex.usecases.forms.merging import SHOWN, as_shown, clean, merged
from nematex.usecases.held import stored_choices
from nematex.usecases.held.shop import Shop

NAME_LETTERS, LINE_LETTERS = 120, 2000
SIZE_LETTERS = 40
KEY_BYTES = 18  # of the public address: nobody guesses it
MOVES = {"up": -1, "down": 1}
TOGETHER = {"join": True, "part": False}


def programme(shop: Shop, programme_id: int) -> Programme | None:
    """As it can be shown: what was chosen and is gone falls back, and is said in `lost`."""
    with shop.database.work() as work:
        return _shown(shop, store.programme(work, programme_id))


def _shown(shop: Shop, kept: Programme | None) -> Programme | None:
    state = shop.now()
    return stored_choices.as_shown(kept, state.drawer, state.tables) if kept else None


def checked_text(field: str, text: str, limit: int = LINE_LETTERS) -> str:
    """The text without blanks at its ends; raises FieldFault where it is longer than is kept."""
    kept = without_controls(text).strip()
    if len(kept) > limit:
        raise FieldFault(field, f"{kept[:40]}…", f"is {len(kept)} letters long; at most {limit} are kept")
    return kept


@dataclass(frozen=True, slots=True)
class Line:
    """The presenter's own line of a pick: as typed, and as the page showed it."""

    typed: str
    shown: str


ABOUT = {"name": "name", "shown_on": "date", "intro": "what it is about"}
BINNED = "is in the bin: put it back first, then do this again"


def about(programme: Programme) -> dict[str, str]:
    """What is said of a programme, as the texts of its form."""
    day = programme.shown_on.isoformat() if programme.shown_on else ""
    return {"name": programme.name, "shown_on": day, "intro": programme.intro}


def found_programme(work: Work, programme_id: int) -> Programme:
    """The programme as it is, while nobody else changes one; raises FieldFault."""
    store.announce_change(work)
    found = store.programme(work, programme_id)
    if found is None:
        raise FieldFault("programme", str(programme_id), BINNED)
    return found


def save_programme(shop: Shop, programme_id: int | None, given: Mapping[str, str]) -> int:
    """Make a programme or change what is said of it; returns its number. Raises FieldFault, Clashing."""
    with shop.database.work() as work:
        values = dict(given)
        if programme_id is not None:
            values = merged(given, about(found_programme(work, programme_id)), ABOUT, ABOUT.__getitem__)
        title = checked_text("name", values.get("name", ""), NAME_LETTERS)
        if not title:
            raise FieldFault("name", "", "is missing; a programme needs one")
        day, words = read_day(values.get("shown_on", "")), checked_text("intro", values.get("intro", ""))
        return store.save_programme(work, title, day, words, programme_id)


def of_key(shop: Shop, key: str) -> Programme | None:
    """The programme whose look-book is shown at a public address."""
    with shop.database.work() as work:
        return _shown(shop, store.programme_of_key(work, key))


def open_to_all(shop: Shop, programme_id: int, is_open: bool) -> None:
    """Show its look-book at a public address, or take it back: the old address is dead for good. Raises FieldFault."""
    with shop.database.work() as work:
        found_programme(work, programme_id)
        store.set_public_key(work, programme_id, secrets.token_urlsafe(KEY_BYTES) if is_open else None)


def remove_programme(shop: Shop, programme_id: int) -> None:
    """Take a programme off the list, into the bin, with its picks."""
    with shop.database.work() as work:
        store.bin_programme(work, programme_id)


def add_picks(shop: Shop, programme_id: int, picks: Sequence[Pick]) -> None:
    """Append pairings at the end of the running order, as one place where they are several; raises FieldFault."""
    with shop.database.work() as work:
        found_programme(work, programme_id)
        for number, pick in enumerate(picks):
            store.add_pick(work, programme_id, replace(pick, with_before=number > 0))


def add_picks_apart(shop: Shop, programme_id: int, picks: Sequence[Pick]) -> None:
    """Append pairings, each as a place of its own; raises FieldFault."""
    with shop.database.work() as work:
        found_programme(work, programme_id)
        for pick in picks:
            store.add_pick(work, programme_id, pick)
            work.flush()


def change_picks(shop: Shop, programme_id: int, lines: Mapping[int, Line], act: str = "keep", pick_id: int = 0) -> None:
    """Keep the lines as typed; and move one pick (`up`, `down`), take it out (`remove`), let it stand as one with the pick
    before it (`join`) or by itself (`part`). Raises FieldFault, Clashing.
    """
    checked = {number: replace(line, typed=checked_text("line", line.typed)) for number, line in lines.items()}
    with shop.database.work() as work:
        found_programme(work, programme_id)
        for number, line in checked.items():
            if clean(line.typed) != clean(line.shown):
                _keep_line(work, programme_id, number, line)
        if act in MOVES:
            store.move_pick(work, programme_id, pick_id, MOVES[act])
        elif act in TOGETHER:
            store.stand_together(work, programme_id, pick_id, TOGETHER[act])
        elif act == "remove":
            store.bin_pick(work, programme_id, pick_id)


def hold_sizes(shop: Shop, programme_id: int, sizes: Mapping[int, str], shown: Mapping[int, str]) -> None:
    """The second size held of each pick, "" for none, where another was chosen than was shown; raises FieldFault."""
    drawer = shop.now().drawer
    with shop.database.work() as work:
        for pick in found_programme(work, programme_id).picks:
            chosen = checked_text("second size", sizes.get(pick.id, shown.get(pick.id, "")), SIZE_LETTERS)
            if pick.id in sizes and chosen != shown.get(pick.id, ""):
                _must_be_a_size(drawer.by_id.get(pick.pattern_id), chosen)
                store.hold_size(work, programme_id, pick.id, chosen or None)


def _must_be_a_size(pattern: PatternRecord | None, chosen: str) -> None:
    sizes = pattern.facts.table_sizes if pattern else ()
    if chosen and chosen not in sizes:
        raise UnknownChoice("second size", chosen, sizes, "size of this pattern's table")


def settle(shop: Shop, programme_id: int, pick_id: int) -> None:
    """Keep a pick as it is shown: what was chosen for it and is gone is not asked for any more. Raises FieldFault."""
    shown = programme(shop, programme_id)
    with shop.database.work() as work:
        found_programme(work, programme_id)
        for pick in shown.picks if shown else ():
            if pick.id == pick_id:
                store.settle_pick(work, programme_id, pick)


def _keep_line(work: Work, programme_id: int, pick_id: int, line: Line) -> None:
    kept = store.line_of(work, programme_id, pick_id)
    if kept is None:
        rule = "cannot be kept: somebody took this pick out meanwhile; put it back from the bin"
        raise FieldFault("line", line.typed[:60], rule)
    name = f"line-{pick_id}"
    given = {name: line.typed, SHOWN: as_shown({name: line.shown})}
    store.write_line(work, programme_id, pick_id, merged(given, {name: kept}, (name,), lambda _: "your own line")[name])
