"""A set proposed from a brief: chosen, put in order, with why each was chosen and what was given up."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date
from typing import Any

import numpy as np

from nematex.core.quantity.arrays import Floats
from nematex.core.set.brief import Brief, read_brief, with_usual
from nematex.core.set.choosing import Choice, Question, choose
from nematex.store.records import Programme
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State
from nematex.usecases.judging.whole_matrix import whole
from nematex.usecases.programme.history import shown_within
from nematex.usecases.programme.proposing.candidates import Candidates, gather, liking, new_since
from nematex.usecases.programme.proposing.saying import given_up, why_chosen
from nematex.usecases.programme.proposing.wanted import Wanted, wanted, without_own


@dataclass(frozen=True)
class Proposed:
    """One pairing of a proposal: ids, and why it was chosen."""

    cloth_id: int
    pattern_id: int
    why: tuple[str, ...]


FEW_NAMED = 3


@dataclass(frozen=True)
class Proposal:
    """A set in running order; what was given up; how many pairings were weighed; by how much it may fall short, in %."""

    picks: tuple[Proposed, ...]
    given_up: tuple[str, ...]
    weighed: int
    gap_pct: float

    def as_json(self) -> dict[str, Any]:
        """What is kept beside the picks."""
        return {"given_up": list(self.given_up), "weighed": self.weighed, "gap_pct": round(self.gap_pct, 2)}


def brief_of(state: State, programme: Programme) -> Brief:
    """A programme's brief, with what its kind usually asks; raises FieldFault where it was kept under other rules."""
    rule = state.tables.judging.proposal
    return with_usual(read_brief(programme.brief, rule.kinds), rule.kinds, rule.usual_slots)


def propose(shop: Shop, state: State, programme: Programme, today: date) -> Proposal:
    """The best set for a programme's brief around what stands in it; raises FieldFault for a brief that cannot be read."""
    brief = brief_of(state, programme)
    shown = shown_within(state, programme, brief.not_again_months, today)
    new_from = new_since(programme, state, today)
    found = gather(state, whole(shop, state), brief, programme, new_from, shown)
    everything = wanted(found, brief, new_from)
    asked, choice = _choose(found, brief, everything)
    chosen = [found.own + at for at in choice.places]
    stands = [*range(found.own), *chosen]
    why = {at: why_chosen(found, everything, stands, at, brief) for at in chosen}
    lost = given_up(found, everything, stands, [at + found.own for at in _passed_over(asked, choice)], brief)
    lost += _left_out(state)
    order = in_order(found, chosen)
    picks = tuple(Proposed(found.cloth(at).id, found.pattern(at).id, tuple(why[at])) for at in order)
    return Proposal(picks, tuple(lost), len(found) - found.own, 100 * choice.gap)


def _left_out(state: State) -> list[str]:
    """The cloths in stock of which nothing is proposed because what is said of them does not fit together."""
    odd = np.flatnonzero(~state.shelf.settled & (state.shelf.may_have_m > 0))
    if not len(odd):
        return []
    named = ", ".join(state.shelf.records[at].facts.name for at in odd[:FEW_NAMED])
    more = f" and {len(odd) - FEW_NAMED} more" if len(odd) > FEW_NAMED else ""
    return [f"Left out until what is said of them is settled: {named}{more}."]


def worth(found: Candidates, brief: Brief) -> Floats:
    """What each pairing is worth by itself, (n,): its score, colour and theme, less what it costs."""
    rule = found.state.tables.judging.proposal
    most = brief.budget or (float(np.nanmax(found.cost)) if np.any(~np.isnan(found.cost)) else 1.0)
    return np.asarray(found.score + liking(found, brief) - rule.price * np.nan_to_num(found.cost / most, nan=0.5))


def _choose(found: Candidates, brief: Brief, everything: Wanted) -> tuple[Question, Choice]:
    rule, left = found.state.tables.judging.proposal, without_own(everything, found.own)
    own = found.own
    once = (found.patterns[own:], found.cloths[own:])
    slots = max(0, brief.slots - own)
    asked = Question(worth(found, brief)[own:], once, left.wants, left.limits, slots)
    return asked, choose(asked, rule.gap, rule.seconds)


def _passed_over(asked: Question, choice: Choice) -> list[int]:
    """The places of those that are worth most by themselves and were not chosen."""
    order = np.argsort(-asked.worth, kind="stable")
    return [int(at) for at in order[: len(choice.places) + 12] if int(at) not in choice.places]


def in_order(found: Candidates, chosen: Sequence[int]) -> list[int]:
    """Strongest first, like with like, the dearest last (common practice, no source)."""
    if len(chosen) < 3:
        return sorted(chosen, key=lambda at: -found.score[at])
    first = max(chosen, key=lambda at: found.score[at])
    rest = [at for at in chosen if at != first]
    last = max(rest, key=lambda at: np.nan_to_num(found.cost[at]))
    between = [at for at in rest if at != last]
    between.sort(key=lambda at: (found.kind(at), -found.score[at]))
    return [first, *between, last]
