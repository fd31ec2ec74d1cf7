"""First answer: each piece in turn goes to the foremost free place on a fine grid, lowest of equals.

A piece stands on the grid as every cell it touches (safe), or as the cells that lie wholly within it (tight: neighbours
may overlap by a cell, which `compact` mends or gives up). Free places are found for all of the grid at once by
correlation (FFT). Cells divide the cloth's width and the print's repeats, so that edge and repeat are met exactly.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
import numpy.typing as npt
import scipy
from shapely import Polygon, box, contains_properly, intersects, prepare
from shapely.affinity import translate

from nematex.core.amount.lay.items import Item, Pose
from nematex.core.amount.lay.pieces import Strip
from nematex.core.amount.lay.placed import Placement
from nematex.core.quantity.arrays import Mask

CELL_CM = 0.5
BLOCK = 96  # columns: the grid grows by so many, so that a piece's spectrum serves several times
SPECTRA = 96  # that are kept, each up to a megabyte

Cells = npt.NDArray[np.float32]  # 1 where cloth lies; single precision is enough to tell it from none


@dataclass(frozen=True)
class Grid:
    """Cells of so many cm along and across; a shift keeps to every `step` cells where the print is matched."""

    cell_x: float
    cell_y: float
    rows: int
    step_x: int
    step_y: int


def grid_for(strip: Strip, cell_cm: float = CELL_CM) -> Grid:
    """A grid whose cells divide the width, and the repeats where there are any."""
    along, across = strip.repeat.along_cm, strip.repeat.across_cm
    step_x = int(np.ceil(along / cell_cm)) if along else 1
    cell_x = along / step_x if along else cell_cm
    if across:
        step_y = int(np.ceil(across / cell_cm))
        return Grid(cell_x, across / step_y, int(np.floor(strip.height_cm / (across / step_y) + 1e-9)), step_x, step_y)
    rows = int(np.ceil(strip.height_cm / cell_cm - 1e-9))
    return Grid(cell_x, strip.height_cm / rows, rows, step_x, 1)


@dataclass(frozen=True)
class Stamp:
    """A pose on the grid: its cells (across, along), and its origin in cells before the stamp's corner."""

    pose: Pose
    cells: Cells
    off_x: float  # cm from the stamp's corner to the piece's origin
    off_y: float


def _cells(polygon: Polygon, grid: Grid, shape: tuple[int, int], tight: bool) -> Mask:
    """Which cells of a patch the polygon covers."""
    rows, columns = shape
    y, x = np.mgrid[0:rows, 0:columns]
    slack = 1e-7
    x0, y0 = x * grid.cell_x, y * grid.cell_y
    cells = box(x0 + slack, y0 + slack, x0 + grid.cell_x - slack, y0 + grid.cell_y - slack)
    prepare(polygon)
    found: Mask = contains_properly(polygon, cells) if tight else intersects(polygon, cells)
    return found


def stamp(pose: Pose, grid: Grid, matched: bool, on_fold: bool, tight: bool) -> Stamp:
    """A pose's cells. A matched piece's origin stays on the grid; any other starts at the corner of its first cell."""
    x0, y0, x1, y1 = pose.box
    lead_x = x0 - np.floor(x0 / grid.cell_x + 1e-9) * grid.cell_x if matched else 0.0
    lead_y = y0 - np.floor(y0 / grid.cell_y + 1e-9) * grid.cell_y if matched and not on_fold else 0.0
    columns = int(np.ceil((lead_x + x1 - x0) / grid.cell_x - 1e-6))
    rows = int(np.ceil((lead_y + y1 - y0) / grid.cell_y - 1e-6))
    moved = translate(Polygon(pose.corners), lead_x - x0, lead_y - y0)
    covered = _cells(moved, grid, (rows, columns), tight)
    return Stamp(pose, covered.astype(np.float32), lead_x - x0, lead_y - y0)


class Filler:
    """Lays items in a given order; stamps are made once."""

    def __init__(self, strip: Strip, tight: bool, cell_cm: float = CELL_CM) -> None:
        self.strip, self.tight = strip, tight
        self.grid = grid_for(strip, cell_cm)
        self.stamp_of = lru_cache(maxsize=None)(self._stamp)
        self.spectrum_of = lru_cache(maxsize=SPECTRA)(self._spectrum)
        self._held: dict[int, Pose] = {}

    def _stamp(self, key: int, matched: bool, on_fold: bool) -> Stamp:
        return stamp(self._held[key], self.grid, matched, on_fold, self.tight)

    def _spectrum(self, key: tuple[int, bool, bool], shape: tuple[int, int]) -> npt.NDArray[np.complex64]:
        found: npt.NDArray[np.complex64] = np.conj(scipy.fft.rfft2(self.stamp_of(*key).cells, shape))
        return found

    def _stamps(self, item: Item) -> list[Stamp]:
        for pose in item.poses:
            self._held[id(pose)] = pose
        return [self.stamp_of(id(pose), item.matched, item.on_fold) for pose in item.poses]

    def lay(self, order: Sequence[Item]) -> list[Placement] | None:
        """All of them placed; None where one finds no place (a matched one on a cloth too narrow for its print)."""
        covered = np.zeros((self.grid.rows, 64), dtype=np.float32)
        used = 0
        placements: list[Placement] = []
        for item in order:
            stamps = self._stamps(item)
            most = max(each.cells.shape[1] for each in stamps) + self.grid.step_x
            columns = scipy.fft.next_fast_len(BLOCK * -(-(used + most) // BLOCK), real=True)
            if columns > covered.shape[1]:
                covered = np.pad(covered, ((0, 0), (0, columns - covered.shape[1])))
            found = self._foremost(covered[:, :columns], stamps, item)
            if found is None:
                return None
            each, row, column = found
            rows, length = each.cells.shape
            covered[row : row + rows, column : column + length] += each.cells
            used = max(used, column + length)
            placements.append(
                Placement(item, each.pose, column * self.grid.cell_x + each.off_x, row * self.grid.cell_y + each.off_y)
            )
        return placements

    def _foremost(self, covered: Cells, stamps: list[Stamp], item: Item) -> tuple[Stamp, int, int] | None:
        """Of all poses the place whose end lies foremost; of equals the lowest."""
        filled = np.minimum(covered, 1.0)
        over = scipy.fft.rfft2(filled)
        best: tuple[tuple[float, int, int], Stamp] | None = None
        for each in stamps:
            place = self._place(over, filled.shape, each, item)
            if place is None:
                continue
            row, column = place
            key = (column * self.grid.cell_x + each.pose.length_cm, column, row)
            if best is None or key < best[0]:
                best = (key, each)
        return (best[1], best[0][2], best[0][1]) if best else None

    def _place(
        self, over: npt.NDArray[np.complex64], shape: tuple[int, int], each: Stamp, item: Item
    ) -> tuple[int, int] | None:
        rows, columns = each.cells.shape
        if rows > shape[0] or columns > shape[1]:
            return None
        spectrum = self.spectrum_of((id(each.pose), item.matched, item.on_fold), shape)
        hits = scipy.fft.irfft2(over * spectrum, shape)[: shape[0] - rows + 1, : shape[1] - columns + 1]
        free = hits < 0.5
        if item.matched:
            free &= self._on_repeat(each, free.shape, item.on_fold)
        if item.on_fold:
            free[1:] = False
        along = free.any(axis=0)
        if not along.any():
            return None
        column = int(along.argmax())
        return int(free[:, column].argmax()), column

    def _on_repeat(self, each: Stamp, shape: tuple[int, int], on_fold: bool) -> Mask:
        """Where the piece's origin lies on the print's repeat; across, a piece on the fold has no choice."""
        x = np.arange(shape[1]) + round(each.off_x / self.grid.cell_x)
        y = np.arange(shape[0]) + round(each.off_y / self.grid.cell_y)
        keeps: Mask = ((y % (1 if on_fold else self.grid.step_y)) == 0)[:, None] & ((x % self.grid.step_x) == 0)[None, :]
        return keeps
