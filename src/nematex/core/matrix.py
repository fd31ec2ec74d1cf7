"""Many patterns against many cloths: a verdict and a score for every pairing.

Each pattern is one pass over the cloths' columns, by the same rules as a single pairing. Patterns × cloths; a verdict
takes one byte and a score four, so that ten thousand cloths and a thousand patterns need 50 MB.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from nematex.core.columns import ClothColumns
from nematex.core.demand import Demand
from nematex.core.judge import NAMES, Judgement, judge
from nematex.core.tables import Tables
from nematex.core.verdict import Codes, Verdict

Scores = npt.NDArray[np.float32]


@dataclass(frozen=True)
class Matrix:
    """Verdict codes and scores (0–100), patterns × cloths, and per check how many pairings it leaves unproven."""

    verdict: Codes
    score: Scores
    unproven: dict[str, npt.NDArray[np.int32]]

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


def _best(score: Scores, verdict: Codes, count: int) -> npt.NDArray[np.intp]:
    order = np.argsort(-score, kind="stable")
    open_ones: npt.NDArray[np.intp] = order[verdict[order] < Verdict.AGAINST]
    return open_ones[:count]


def _passes(judged: Judgement) -> dict[str, npt.NDArray[np.bool_]]:
    """Per check, where it leaves a possible pairing unproven."""
    possible = judged.verdict != Verdict.AGAINST
    return {name: possible & (codes == Verdict.UNPROVEN) for name, codes in judged.checks.items()}


def matrix(
    cloths: ClothColumns,
    demands: Sequence[Callable[[], Demand]],
    tables: Tables,
    threads: int = 2,
    progress: Callable[[int, int], None] | None = None,
) -> Matrix:
    """Every pairing; demands are made when their turn comes, so that a thousand are not held at once."""
    size = (len(demands), len(cloths))
    verdict, score = np.zeros(size, np.int8), np.zeros(size, np.float32)
    unproven = {name: np.zeros(size[1], np.int32) for name in NAMES}

    def row(at: int) -> dict[str, npt.NDArray[np.bool_]]:
        judged = judge(cloths, demands[at](), tables)
        verdict[at], score[at] = judged.verdict, judged.score
        return _passes(judged)

    def gather(rows: Iterable[dict[str, npt.NDArray[np.bool_]]]) -> None:
        for done, found in enumerate(rows, 1):
            for name, open_ones in found.items():
                unproven[name] += open_ones
            if progress:
                progress(done, size[0])

    if threads == 1:
        gather(map(row, range(size[0])))
    else:
        with ThreadPoolExecutor(threads) as pool:
            gather(pool.map(row, range(size[0])))
    return Matrix(verdict, score, unproven)
