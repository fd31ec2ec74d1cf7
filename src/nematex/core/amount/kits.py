"""Kits from bolts: which bolt is cut how, so that the most kits come out, or those wanted from the fewest bolts.

Whole numbers of pieces of each size from each stretch of cloth, no joins: a cutting stock problem, solved exactly by
integer programming (HiGHS through scipy). Lengths in m.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from scipy.optimize import Bounds, LinearConstraint, milp
from scipy.sparse import lil_array

from nematex.core.errors import FieldFault
from nematex.core.quantity.arrays import Floats

SECONDS, GAP = 1.5, 0.002  # somebody waits for the page
MOST_BOLTS, MOST_SIZES, MOST_KITS = 60, 30, 2000
CM = 1e-4  # m: less than a millimetre is rounding


@dataclass(frozen=True, slots=True)
class Stretch:
    """One length without a fault or a join: of a bolt the part from `start_m` on."""

    bolt: str
    start_m: float
    length_m: float


@dataclass(frozen=True, slots=True)
class SizeOfKit:
    """A size of the kit: the pieces of cloth it is, each cut in one, and how many are wanted or its share of all."""

    size: str
    pieces_m: tuple[float, ...]
    wanted: int

    @property
    def length_m(self) -> float:
        return sum(self.pieces_m)


@dataclass(frozen=True, slots=True)
class Cut:
    """From one stretch so many pieces of one length for one size."""

    stretch: Stretch
    size: str
    length_m: float
    count: int


@dataclass(frozen=True)
class Kits:
    """How many kits of each size, the cuts, what is left of each stretch, and how far from the best it may be (share)."""

    counts: dict[str, int]
    cuts: tuple[Cut, ...]
    left: tuple[tuple[Stretch, float], ...]
    gap: float

    @property
    def total(self) -> int:
        return sum(self.counts.values())

    @property
    def used_m(self) -> float:
        return sum(cut.length_m * cut.count for cut in self.cuts)


def stretches(bolt: str, length_m: float, faults_m: Sequence[float] = (), loses_m: float = 0.1) -> list[Stretch]:
    """A bolt without its faults: at each mark so much is lost."""
    found, start = [], 0.0
    for mark in [*sorted(faults_m), None]:
        end = length_m if mark is None else min(max(mark - loses_m / 2, 0.0), length_m)
        if end - start > CM:
            found.append(Stretch(bolt, round(start, 3), round(end - start, 3)))
        start = max(start, length_m if mark is None else mark + loses_m / 2)
    return found


def _checked(cloth: Sequence[Stretch], sizes: Sequence[SizeOfKit]) -> None:
    if not cloth or len(cloth) > MOST_BOLTS:
        raise FieldFault("bolts", len(cloth), f"must be from 1 to {MOST_BOLTS} lengths without a fault")
    if not sizes or len(sizes) > MOST_SIZES:
        raise FieldFault("sizes", len(sizes), f"must be from 1 to {MOST_SIZES}")
    if sum(size.wanted for size in sizes) > MOST_KITS or any(size.wanted < 0 for size in sizes):
        raise FieldFault("kits", sum(size.wanted for size in sizes), f"must be from 0 to {MOST_KITS}")
    if any(not size.pieces_m or min(size.pieces_m) <= 0 for size in sizes):
        raise FieldFault("pieces", "none", "must be a length for each size")


class _Programme:
    """Variables: pieces x[stretch, piece], used[stretch] (0 or 1), kits n[size], all kits N."""

    def __init__(self, cloth: Sequence[Stretch], sizes: Sequence[SizeOfKit]) -> None:
        self.cloth, self.sizes = cloth, sizes
        self.pieces = [(at, length) for at, size in enumerate(sizes) for length in dict.fromkeys(size.pieces_m)]
        self.xs = len(cloth) * len(self.pieces)
        self.columns = self.xs + len(cloth) + len(sizes) + 1
        self.rows: list[tuple[dict[int, float], float, float]] = []

    def x(self, stretch: int, piece: int) -> int:
        return stretch * len(self.pieces) + piece

    def used(self, stretch: int) -> int:
        return self.xs + stretch

    def kits(self, size: int) -> int:
        return self.xs + len(self.cloth) + size

    @property
    def total(self) -> int:
        return self.columns - 1

    def build(self, by_share: bool) -> None:
        for at, stretch in enumerate(self.cloth):
            row = {self.x(at, piece): length for piece, (_, length) in enumerate(self.pieces)}
            self.rows.append((row | {self.used(at): -stretch.length_m - CM}, -np.inf, 0.0))
        for piece, (size, length) in enumerate(self.pieces):
            needs = self.sizes[size].pieces_m.count(length)
            self.rows.append(
                ({self.x(at, piece): 1.0 for at in range(len(self.cloth))} | {self.kits(size): -needs}, 0.0, np.inf)
            )
        self.rows.append(({self.kits(at): 1.0 for at in range(len(self.sizes))} | {self.total: -1.0}, 0.0, 0.0))
        every = sum(size.wanted for size in self.sizes)
        for at, kit in enumerate(self.sizes):
            if by_share:  # each size has its share of all kits, to less than one kit
                self.rows.append(({self.kits(at): 1.0, self.total: -kit.wanted / every}, -0.9999, 0.9999))
            else:
                self.rows.append(({self.kits(at): 1.0}, 0.0, float(kit.wanted)))

    def solve(self, seconds: float) -> tuple[Floats, float] | None:
        matrix = lil_array((len(self.rows), self.columns))
        for at, (row, _, _) in enumerate(self.rows):
            for column, value in row.items():
                matrix[at, column] = value
        cost = np.zeros(self.columns)
        cost[self.total] = -1.0
        for at, stretch in enumerate(self.cloth):  # of equals the fewest bolts, the shortest first
            cost[self.used(at)] = 0.001 + 1e-5 * stretch.length_m
        upper = np.full(self.columns, np.inf)
        upper[self.xs : self.xs + len(self.cloth)] = 1.0
        bounds = ([low for _, low, _ in self.rows], [high for _, _, high in self.rows])
        found = milp(
            cost, constraints=LinearConstraint(matrix.tocsr(), *bounds), integrality=np.ones(self.columns),
            bounds=Bounds(0, upper), options={"time_limit": seconds, "mip_rel_gap": GAP},
        )  # fmt: skip
        if found.x is None:
            return None
        return np.round(found.x), float(found.mip_gap or 0.0)


def kits(cloth: Sequence[Stretch], sizes: Sequence[SizeOfKit], by_share: bool = False, seconds: float = SECONDS) -> Kits:
    """The most kits up to those wanted; with `by_share` as many as there are, `wanted` telling how sizes share them."""
    _checked(cloth, sizes)
    asked = [size for size in sizes if size.wanted]
    if not asked:
        raise FieldFault("kits", 0, "must be wanted in one size at least")
    programme = _Programme(cloth, asked)
    programme.build(by_share)
    solved = programme.solve(seconds)
    if solved is None:
        raise FieldFault("kits", len(cloth), f"lengths could not be shared out in {seconds:.0f} seconds; try with fewer bolts")
    values, gap = solved
    cuts, left = [], []
    spare = [int(values[[programme.x(at, piece) for at in range(len(cloth))]].sum()) for piece in range(len(programme.pieces))]
    for piece, (size, _) in enumerate(programme.pieces):  # pieces beyond what the kits need are not cut
        needs = asked[size].pieces_m.count(programme.pieces[piece][1])
        spare[piece] -= needs * int(values[programme.kits(size)])
    for at, stretch in enumerate(cloth):
        taken = 0.0
        for piece, (size, length) in enumerate(programme.pieces):
            count = int(values[programme.x(at, piece)])
            uncut = min(count, spare[piece])
            spare[piece] -= uncut
            if count - uncut:
                cuts.append(Cut(stretch, asked[size].size, length, count - uncut))
                taken += length * (count - uncut)
        left.append((stretch, round(stretch.length_m - taken, 3)))
    counts = {size.size: int(values[programme.kits(at)]) for at, size in enumerate(asked)}
    return Kits(counts, tuple(cuts), tuple(left), gap)


def shared(total: int, shares: Sequence[float]) -> list[int]:
    """So many kits by the expected mix of sizes, whole ones: the largest remainders are rounded up."""
    every = sum(shares)
    if every <= 0:
        raise FieldFault("size mix", every, "must hold a share above 0")
    exact = [total * share / every for share in shares]
    found = [int(each) for each in exact]
    for at in sorted(range(len(exact)), key=lambda place: found[place] - exact[place])[: total - sum(found)]:
        found[at] += 1
    return found
