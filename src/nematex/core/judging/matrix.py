"""Many patterns against many cloths: a verdict and a score for every pairing.

Each pattern is one pass over the cloths' columns, by the same rules as a single pairing. Patterns × cloths; a verdict
takes one byte, a score four and the open checks one, so that ten thousand cloths and a thousand patterns need 60 MB.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from typing import Any

import numpy as np
import numpy.typing as npt

from nematex.core.cloth.columns import ClothColumns
from nematex.core.judging.demand import Demand
from nematex.core.judging.judge import NAMES, Judgement, judge
from nematex.core.judging.verdict import AGAINST, UNPROVEN, Verdict
from nematex.core.quantity.arrays import Codes
from nematex.core.quantity.elementwise import where
from nematex.core.tables import Tables

Scores = npt.NDArray[np.float32]
FEW = 5  # cloths that are judged sooner one by one, as plain numbers


@dataclass(frozen=True)
class Matrix:
    """Verdict codes and scores (0–100), patterns × cloths; `open_checks` has a bit for each check left unproven."""

    verdict: Codes
    score: Scores
    open_checks: npt.NDArray[np.uint8]

    @classmethod
    def empty(cls, patterns: int, cloths: int) -> Matrix:
        size = (patterns, cloths)
        return cls(np.zeros(size, np.int8), np.zeros(size, np.float32), np.zeros(size, np.uint8))

    @property
    def _parts(self) -> tuple[npt.NDArray[Any], ...]:
        return self.verdict, self.score, self.open_checks

    def unproven(self, check: str) -> npt.NDArray[np.int32]:
        """Per cloth, how many possible pairings this check leaves unproven."""
        bit = np.uint8(1 << NAMES.index(check))
        counted: npt.NDArray[np.int32] = np.count_nonzero(self.open_checks & bit, axis=0).astype(np.int32)
        return counted

    def taken(self, patterns: npt.NDArray[np.intp], cloths: npt.NDArray[np.intp]) -> Matrix:
        """A new matrix with these rows and columns of this one; what stands at -1 is to be put in."""
        made = self.reordered(patterns, cloths)
        return Matrix(*(part.copy() for part in self._parts)) if made is self else made

    def reordered(self, patterns: npt.NDArray[np.intp], cloths: npt.NDArray[np.intp]) -> Matrix:
        """The same, but this very one where each row and column keeps its place."""
        if not (self.verdict.size and len(patterns) and len(cloths)):
            return Matrix.empty(len(patterns), len(cloths))
        rows, columns = _filled(patterns, self.verdict.shape[0]), _filled(cloths, self.verdict.shape[1])
        if rows is None and columns is None:
            return self
        made = self._parts if rows is None else [part.take(rows, axis=0) for part in self._parts]
        return Matrix(*(made if columns is None else (part.take(columns, axis=1) for part in made)))

    def put(self, patterns: npt.NDArray[np.intp], cloths: npt.NDArray[np.intp] | None, found: Matrix) -> None:
        """Fill these rows and columns, or whole rows, of a matrix that nobody reads yet."""
        for mine, its in zip(self._parts, found._parts, strict=True):
            if cloths is None:
                mine[patterns] = its
            else:
                mine[np.ix_(patterns, cloths)] = its

    def best_cloths(self, pattern: int, count: int) -> npt.NDArray[np.intp]:
        """The cloths of one pattern that are not against, best first."""
        return _best(self.score[pattern], self.verdict[pattern], count)

    def best_patterns(self, cloth: int, count: int) -> npt.NDArray[np.intp]:
        """The patterns of one cloth that are not against, best first."""
        return _best(self.score[:, cloth], self.verdict[:, cloth], count)

    def suited_by_nothing(self, worst: Verdict = Verdict.WITH_CARE) -> npt.NDArray[np.intp]:
        """Cloths that no pattern suits, not even with care."""
        return np.flatnonzero((self.verdict > worst).all(axis=0))

    def without_cloth(self, enough: npt.NDArray[np.bool_], worst: Verdict = Verdict.WITH_CARE) -> npt.NDArray[np.intp]:
        """Patterns for which no cloth does of which there is enough; `enough` is patterns × cloths."""
        return np.flatnonzero(~((self.verdict <= worst) & enough).any(axis=1))


def _filled(places: npt.NDArray[np.intp], held: int) -> npt.NDArray[np.intp] | None:
    """Places to take from, for -1 whatever is near; None where that is all there is, in its order."""
    near = np.where(places < 0, np.minimum(np.arange(len(places)), held - 1), places)
    return None if len(near) == held and bool((near == np.arange(held)).all()) else near


def _best(score: Scores, verdict: Codes, count: int) -> npt.NDArray[np.intp]:
    order = np.argsort(-score, kind="stable")
    open_ones: npt.NDArray[np.intp] = order[verdict[order] < Verdict.AGAINST]
    return open_ones[:count]


def _open_checks(judged: Judgement) -> npt.NDArray[np.uint8]:
    """A bit for each check that leaves a possible pairing unproven."""
    possible: Any = judged.verdict != AGAINST
    bits: Any = np.uint8(0)
    for place, codes in enumerate(judged.checks.values()):
        bits = bits | where(possible & (codes == UNPROVEN), np.uint8(1 << place), np.uint8(0))
    found: npt.NDArray[np.uint8] = bits
    return found


def matrix(
    cloths: ClothColumns,
    demands: Sequence[Callable[[], Demand]],
    tables: Tables,
    threads: int = 2,
    progress: Callable[[int, int], None] | None = None,
) -> Matrix:
    """Every pairing; demands are made when their turn comes, so that a thousand are not held at once."""
    made = Matrix.empty(len(demands), len(cloths))
    few: list[tuple[int | slice, ClothColumns]] = []
    if len(cloths) <= FEW:
        few = [(place, cloths.single(place)) for place in range(len(cloths))]

    def row(place: int) -> None:
        asked = demands[place]()
        for at, part in few or [(slice(None), cloths)]:
            judged = judge(part, asked, tables)
            made.verdict[place, at], made.score[place, at] = judged.verdict, judged.score
            made.open_checks[place, at] = _open_checks(judged)

    def gather(rows: Iterable[None]) -> None:
        for done, _ in enumerate(rows, 1):
            if progress:
                progress(done, len(demands))

    if threads == 1 or few or len(demands) < 2:
        gather(map(row, range(len(demands))))
    else:
        with ThreadPoolExecutor(threads) as pool:
            gather(pool.map(row, range(len(demands))))
    return made
