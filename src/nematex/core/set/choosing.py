"""Choosing a set: the pairings that are worth most together, under what is wanted of the whole and what is too much of it.

A mixed integer program, solved by HiGHS through scipy: x says which of n pairings are chosen, one slack for each want and
each limit says by how much it is missed, and a miss costs. HiGHS also proves a bound: no other choice can be worth more.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt
from scipy import sparse
from scipy.optimize import Bounds, LinearConstraint, milp

from nematex.core.quantity.arrays import Floats, Mask

Ids = npt.NDArray[np.intp]


@dataclass(frozen=True, eq=False)
class Want:
    """So many of the members are wanted, (n,); each one that is missing costs as much as this many best pairings."""

    name: str
    members: Mask
    at_least: int
    costs: float


@dataclass(frozen=True, eq=False)
class Limit:
    """No more than so many of the members, (n,); each one more costs."""

    name: str
    members: Mask
    at_most: int
    costs: float


@dataclass(frozen=True, eq=False)
class Question:
    """n pairings, each worth 0 to 1; no two are chosen that share a number in one of `once`, such as their cloth."""

    worth: Floats
    once: tuple[Ids, ...]
    wants: tuple[Want, ...]
    limits: tuple[Limit, ...]
    slots: int


@dataclass(frozen=True)
class Choice:
    """The places chosen; what the choice is worth, and what no choice can be worth more than."""

    places: tuple[int, ...]
    value: float
    bound: float

    @property
    def gap(self) -> float:
        """By what share of its value the choice may fall short of the best."""
        return max(0.0, self.bound - self.value) / max(abs(self.value), 1e-9)


def value_of(asked: Question, places: Sequence[int]) -> float:
    """What a choice is worth: its pairings less what is missed and what is too much."""
    chosen = list(places)
    missed = sum(want.costs * missing(want, chosen) for want in asked.wants)
    over = sum(limit.costs * beyond(limit, chosen) for limit in asked.limits)
    return float(asked.worth[chosen].sum()) - missed - over


def missing(want: Want, chosen: Sequence[int]) -> int:
    """How many are missing."""
    return max(0, want.at_least - int(np.count_nonzero(want.members[list(chosen)])))


def beyond(limit: Limit, chosen: Sequence[int]) -> int:
    """How many are too many."""
    return max(0, int(np.count_nonzero(limit.members[list(chosen)])) - limit.at_most)


def choose(asked: Question, gap: float, seconds: float) -> Choice:
    """The best choice, proved to lie within this share of the best there is, or the best found in this time."""
    count, misses, overs = len(asked.worth), len(asked.wants), len(asked.limits)
    if not count or asked.slots < 1:
        empty = value_of(asked, ())
        return Choice((), empty, empty)
    costs = np.concatenate([-asked.worth, [want.costs for want in asked.wants], [limit.costs for limit in asked.limits]])
    most = np.concatenate([np.ones(count), [want.at_least for want in asked.wants], np.full(overs, float(asked.slots))])
    rows, low, high = _rows(asked)
    found = milp(
        costs,
        integrality=np.concatenate([np.ones(count), np.zeros(misses + overs)]),
        bounds=Bounds(0, most),
        constraints=LinearConstraint(rows, low, high),
        options={"mip_rel_gap": gap, "time_limit": seconds},
    )
    if found.x is None:  # no time even for a first choice
        empty = value_of(asked, ())
        return Choice((), empty, float(asked.worth.sum()))
    places = tuple(int(at) for at in np.flatnonzero(found.x[:count] > 0.5))
    return Choice(places, value_of(asked, places), -float(found.mip_dual_bound))


def _rows(asked: Question) -> tuple[sparse.csr_array, Floats, Floats]:
    """The constraints: pairings, then a slack for each want and each limit; with their lower and upper ends."""
    misses, overs = len(asked.wants), len(asked.limits)
    once = [_groups(ids) for ids in asked.once]
    alone = sparse.vstack([*once, np.ones((1, len(asked.worth)))], format="csr")
    parts = [sparse.hstack([alone, sparse.csr_array((alone.shape[0], misses + overs))])]
    low, high = [np.full(alone.shape[0], -np.inf)], [np.append(np.ones(alone.shape[0] - 1), asked.slots)]
    if misses:
        held = sparse.csr_array(np.array([want.members for want in asked.wants], dtype=np.float64))
        parts.append(sparse.hstack([held, sparse.eye_array(misses), sparse.csr_array((misses, overs))]))
        low.append(np.array([want.at_least for want in asked.wants], dtype=np.float64))
        high.append(np.full(misses, np.inf))
    if overs:
        held = sparse.csr_array(np.array([limit.members for limit in asked.limits], dtype=np.float64))
        parts.append(sparse.hstack([held, sparse.csr_array((overs, misses)), -sparse.eye_array(overs)]))
        low.append(np.full(overs, -np.inf))
        high.append(np.array([limit.at_most for limit in asked.limits], dtype=np.float64))
    return sparse.vstack(parts, format="csr"), np.concatenate(low), np.concatenate(high)


def _groups(ids: Ids) -> sparse.csr_array:
    """A row for each number, with a one where a pairing has it."""
    _, which = np.unique(ids, return_inverse=True)
    return sparse.csr_array((np.ones(len(ids)), (which, np.arange(len(ids)))))
