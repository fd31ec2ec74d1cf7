"""The trail as it is read: who changed which field of which record, before and after."""

from __future__ import annotations

import re
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from nematex.core.paging import Page
from nematex.store.trail.reading import Step, forget_before, steps
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State

KEPT_DAYS = 730
LONGEST_VALUE = 400  # letters shown of a value
# What a record is called, and the fields of a pick that point at another record.
PLACES = {"cloth_id": "cloth", "pattern_id": "pattern", "programme_id": "programme"}


@dataclass(frozen=True)
class Told:
    """One step: when, who, what it was done to, and (field, before, after)."""

    at: datetime
    who: str
    act: str
    kind: str
    row_id: int
    name: str
    fields: tuple[tuple[str, str, str], ...]


def _named(state: State, kind: str, row_id: int) -> str:
    if kind == "cloth":
        found = state.cloth(row_id)
        return found[0].facts.name if found else f"number {row_id}"
    if kind == "pattern":
        pattern = state.pattern(row_id)
        return pattern.facts.name if pattern else f"number {row_id}"
    if kind == "programme":
        return next((one.name for one in state.programmes if one.id == row_id), f"number {row_id}")
    return "" if kind == "setting" else f"number {row_id}"


def _said(state: State, field: str, value: Any) -> str:
    if value is None or value == "":
        return "nothing"
    if field in PLACES and isinstance(value, int):
        return _named(state, PLACES[field], value)
    text = str(value)
    return text[:LONGEST_VALUE] + ("…" if len(text) > LONGEST_VALUE else "")


def _field(name: str) -> str:
    return re.sub(r"_(id|at)$", "", name).replace("_", " ")


def _told(state: State, step: Step) -> Told:
    binned = step.changes.get("binned_at")
    act = step.act if not binned else ("put into the bin" if binned[1] else "put back")
    seen = [(name, pair) for name, pair in step.changes.items() if name != "binned_at"]
    if step.act == "removed":
        seen = [(name, pair) for name, pair in seen if pair[0] not in (None, "", 0, "[]", "{}")]
    fields = tuple((_field(name), _said(state, name, before), _said(state, name, after)) for name, (before, after) in seen)
    return Told(step.at, step.who, act, step.kind, step.row_id, _named(state, step.kind, step.row_id), fields)


def trail(shop: Shop, state: State, kind: str, row_id: int | None, page: int) -> Page[Told]:
    """A page of it, the latest first."""
    with shop.database.work() as work:
        found = steps(work, kind, row_id, page)
    return Page([_told(state, step) for step in found.rows], found.total, found.page, found.pages)


def forget_old(shop: Shop, now: datetime) -> int:
    with shop.database.work() as work:
        return forget_before(work, KEPT_DAYS, now)
