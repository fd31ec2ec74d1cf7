"""A matrix carried over from an earlier state of the shop: what has moved since is due, and is judged when it is asked for."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from nematex.core.judging.matrix import Matrix, matrix
from nematex.core.pattern.facts import Wish
from nematex.core.quantity.arrays import Mask
from nematex.usecases.held.state import State

Places = npt.NDArray[np.intp]
Progress = Callable[[int, int], None]


@dataclass(frozen=True)
class Carried:
    """The matrix of a state, patterns × cloths; rows and columns that are due hold nothing yet."""

    state: State
    matrix: Matrix
    patterns_due: Mask
    cloths_due: Mask

    @classmethod
    def nothing(cls, state: State) -> Carried:
        """All of it is due."""
        patterns, cloths = len(state.drawer.records), len(state.shelf.records)
        return cls(state, Matrix.empty(patterns, cloths), np.ones(patterns, np.bool_), np.zeros(cloths, np.bool_))

    @property
    def due(self) -> int:
        """How many pairings are not judged."""
        patterns, cloths = int(self.patterns_due.sum()), int(self.cloths_due.sum())
        return patterns * len(self.cloths_due) + cloths * (len(self.patterns_due) - patterns)

    def to(self, state: State) -> Carried | None:
        """What of it holds for another state; None where the rules are others."""
        if state.version == self.state.version:
            return self
        if state.tables is not self.state.tables:
            return None
        before = self.state
        patterns = [
            place if (place := before.drawer.place.get(record.id, -1)) >= 0 and before.drawer.records[place] is record else -1
            for record in state.drawer.records
        ]
        cloths = [
            place if (place := before.shelf.place.get(record.id, -1)) >= 0 and before.shelf.cloths[place] is cloth else -1
            for record, cloth in zip(state.shelf.records, state.shelf.cloths, strict=True)
        ]
        return carried(self.matrix, state, patterns, cloths, self.patterns_due, self.cloths_due)

    def part(self, patterns: Places, cloths: Places, threads: int = 1, progress: Progress | None = None) -> Matrix:
        """These patterns against these cloths, by their places in the state; what is due is judged now."""
        state, made = self.state, self.matrix.taken(patterns, cloths)
        records = state.drawer.records
        rows, owed = self.patterns_due[patterns], np.flatnonzero(self.cloths_due[cloths])
        due, judged = np.flatnonzero(rows), np.flatnonzero(~rows)
        if len(due):
            asked = state.drawer.demands(Wish(), [records[place] for place in patterns[due]])
            made.put(due, None, matrix(state.shelf.columns.take(cloths), asked, state.tables, threads, progress))
        if len(owed) and len(judged):
            asked = state.drawer.demands(Wish(), [records[place] for place in patterns[judged]])
            made.put(judged, owed, matrix(state.shelf.columns.take(cloths[owed]), asked, state.tables, threads, progress))
        return made

    def completed(self, progress: Progress | None = None) -> Carried:
        """With nothing due."""
        if not self.due:
            return self
        patterns, cloths = np.arange(len(self.patterns_due)), np.arange(len(self.cloths_due))
        whole = self.part(patterns, cloths, threads=2, progress=progress)
        return Carried(self.state, whole, np.zeros_like(self.patterns_due), np.zeros_like(self.cloths_due))


def carried(
    found: Matrix,
    state: State,
    patterns: Sequence[int],
    cloths: Sequence[int],
    patterns_due: Mask | None = None,
    cloths_due: Mask | None = None,
) -> Carried:
    """A matrix for a state, by the place that each pattern and cloth had in it (-1: none) and what was due in it already."""
    rows, columns = np.array(patterns, dtype=np.intp), np.array(cloths, dtype=np.intp)
    return Carried(state, found.reordered(rows, columns), _due(rows, patterns_due), _due(columns, cloths_due))


def _due(places: Places, before: Mask | None) -> Mask:
    found: Mask = places < 0
    if before is not None and before.any():
        found[~found] = before[places[~found]]
    return found
