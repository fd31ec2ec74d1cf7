"""What the front page shows: how much is here, what is half-known or running out, and what comes next."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

import numpy as np

from nematex.store.records import ClothRecord, Programme
from nematex.usecases.held.state import State

RUNNING_OUT_M = 3.5
SHOWN = 6


@dataclass(frozen=True)
class Front:
    """The state of the shop in a glance."""

    cloths: int
    patterns: int
    half_known: list[ClothRecord]
    half_known_count: int
    running_out: list[ClothRecord]
    running_out_below_m: float
    coming: list[Programme]
    past: list[Programme]


def front(state: State, today: date) -> Front:
    shelf, drawer, programmes = state.shelf, state.drawer, state.programmes
    half = [shelf.records[at] for at in shelf.half_known]
    low = [shelf.records[at] for at in map(int, np.flatnonzero(shelf.may_have_m < RUNNING_OUT_M))]
    coming = [one for one in programmes if one.shown_on is None or one.shown_on >= today]
    past = [one for one in reversed(programmes) if one.shown_on and one.shown_on < today]
    return Front(len(shelf.records), len(drawer.records), half[:SHOWN], len(half), low[:SHOWN], RUNNING_OUT_M, coming, past)
