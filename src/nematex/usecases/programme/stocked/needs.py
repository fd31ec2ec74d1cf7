"""What a programme may sell of each cloth against what is left of it.

Makers expected × metres × 1.1, as the brief says how many (trade's rule of thumb, common practice, no source); a cloth that
several places need has to give for all of them.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date

from nematex.core.amount.length import amount
from nematex.core.errors import FieldFault
from nematex.store.records import Pick, Programme
from nematex.usecases.held.state import State
from nematex.usecases.judging.ranking import fitting_wish
from nematex.usecases.programme.by_cloth import taken_by_part, wish_of
from nematex.usecases.programme.companions import COMPANIONS, companion
from nematex.usecases.programme.proposing.propose import brief_of

EPSILON_M = 0.001


@dataclass(frozen=True)
class Need:
    """Of a pick: metres that one garment takes, metres that all its cloth's places may sell, metres left, how many makers."""

    one_m: float
    all_m: float
    left_m: float
    makers: int

    @property
    def is_short(self) -> bool:
        """Whether there is less than one garment takes."""
        return self.left_m < self.one_m - EPSILON_M

    @property
    def is_scarce(self) -> bool:
        """Whether there is less than may be sold."""
        return self.left_m < self.all_m - EPSILON_M


def needs(state: State, programme: Programme) -> dict[int, Need]:
    """Pick → its need; of cloths whose stock is counted, and pairings whose length is known."""
    key = ("needs", programme.id)
    found: dict[int, Need] | None = state.worked_out.get(key)
    if found is None:
        found = state.worked_out[key] = _needs(state, programme)
    return found


def _needs(state: State, programme: Programme) -> dict[int, Need]:
    makers, spare = max(1, _makers(state, programme)), state.tables.judging.proposal.spare
    one = _metres(state, programme)
    of_cloth: dict[int, float] = {}
    for pick in programme.picks:
        if pick.id in one and not _cut_with_another(state, programme, pick):
            of_cloth[pick.cloth_id] = of_cloth.get(pick.cloth_id, 0.0) + one[pick.id]
    times = makers * spare if makers > 1 else 1.0
    found = {}
    for pick in programme.picks:
        record = state.cloth(pick.cloth_id)
        if pick.id in one and record and record[0].stock_m is not None:
            found[pick.id] = Need(one[pick.id], of_cloth.get(pick.cloth_id, one[pick.id]) * times, record[0].stock_m, makers)
    return found


def _makers(state: State, programme: Programme) -> int:
    try:
        return brief_of(state, programme).makers
    except FieldFault:  # kept under other rules
        return 0


def _cut_with_another(state: State, programme: Programme, pick: Pick) -> bool:
    """Whether its metres are counted with an earlier part in the same cloth."""
    found = taken_by_part(state, programme).get(pick.id) if pick.part and pick.part not in COMPANIONS else None
    return found is not None and found.parts[0] != pick.part


def _metres(state: State, programme: Programme) -> dict[int, float]:
    """Pick → metres of its cloth that one garment takes."""
    by_part = taken_by_part(state, programme)
    found: dict[int, float] = {}
    outer = None
    for pick in programme.picks:
        record, pattern = state.cloth(pick.cloth_id), state.pattern(pick.pattern_id)
        if record is None or pattern is None:
            continue
        if pick.part in COMPANIONS:
            wish = fitting_wish(pattern, wish_of(pick))
            beside = companion(state, pick.part or "", outer or record, record, pattern, wish)
            found |= {pick.id: beside.length_m} if beside.length_m else {}
            continue
        outer = outer if pick.with_before else record
        if pick.id in by_part:
            takes = by_part[pick.id].amount
        else:
            try:
                takes = amount(record[1], pattern.facts, fitting_wish(pattern, wish_of(pick)), state.tables)
            except FieldFault:
                continue
        if takes:
            found[pick.id] = takes.length_m
    return found


@dataclass(frozen=True)
class Alarm:
    """A programme that is still to come, and its picks of which there is too little."""

    programme: Programme
    short: Mapping[int, Need]


def alarms(state: State, today: date) -> list[Alarm]:
    """The programmes of today and later (and those without a day) that lack cloth for a garment or for all that may be sold."""
    found = []
    for programme in state.programmes:
        if programme.shown_on is None or programme.shown_on >= today:
            short = {pick_id: need for pick_id, need in needs(state, programme).items() if need.is_scarce}
            if short:
                found.append(Alarm(programme, short))
    return found
