"""A brief as the filter of every ranking that is opened from its programme."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from nematex.core.amount.many import lengths_m
from nematex.core.pattern.facts import Wish
from nematex.core.quantity.arrays import Mask
from nematex.core.set.brief import Brief
from nematex.store.records import ClothRecord, PatternRecord, Programme
from nematex.usecases.held.state import State
from nematex.usecases.programme.proposing.candidates import allowed_cloths, allowed_patterns, prices
from nematex.usecases.programme.proposing.propose import brief_of

ROUNDING = 1e-6


@dataclass(frozen=True)
class Narrowed:
    """A programme's brief, and what it asks in words."""

    programme: Programme
    brief: Brief
    said: tuple[str, ...]


def narrowed_by(state: State, programme: Programme) -> Narrowed | None:
    """The brief of a programme as a filter; None where it narrows nothing. Raises FieldFault."""
    brief = brief_of(state, programme)
    said = [
        f"for {brief.audience}" if brief.audience else "",
        brief.season,
        f"on {brief.grounds} grounds" if brief.grounds else "",
        f"up to {brief.budget:g} a garment" if brief.budget is not None else "",
    ]
    words = tuple(each for each in said if each)
    return Narrowed(programme, brief, words) if words else None


def cloths_within(state: State, found: Narrowed, pattern: PatternRecord, wish: Wish) -> Mask:
    """The cloths of the brief of which one garment costs no more than the budget."""
    keep = allowed_cloths(state, found.brief)
    if found.brief.budget is not None:
        takes = lengths_m(state.shelf.columns, pattern.facts, wish, state.tables)
        if takes is not None:
            keep &= np.nan_to_num(takes * prices(state), nan=np.inf) <= found.brief.budget + ROUNDING
    return keep


def patterns_within(state: State, found: Narrowed, record: ClothRecord) -> frozenset[int]:
    """The patterns of the brief for which enough of this cloth costs no more than the budget."""
    place = state.shelf.place[record.id]
    column, price = state.shelf.columns.take(np.array([place])), prices(state)[place]
    keep = []
    for pattern, allowed in zip(state.drawer.records, allowed_patterns(state, found.brief), strict=True):
        takes = lengths_m(column, pattern.facts, Wish(), state.tables) if allowed else None
        cost = float(takes[0] * price) if takes is not None else 0.0
        if allowed and (found.brief.budget is None or cost <= found.brief.budget + ROUNDING):
            keep.append(pattern.id)
    return frozenset(keep)


def offered(state: State, found: Narrowed) -> tuple[frozenset[int], Mask]:
    """The patterns, by id, and the cloths that the brief allows at all; what one garment costs is seen in a ranking."""
    allowed = zip(state.drawer.records, allowed_patterns(state, found.brief), strict=True)
    return frozenset(record.id for record, fits in allowed if fits), allowed_cloths(state, found.brief)
