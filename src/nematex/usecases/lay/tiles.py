"""A lay in its true size on sheets of paper, to be stuck together: which part of the cloth stands on which sheet."""

from __future__ import annotations

from dataclasses import dataclass
from math import ceil

from nematex.core.errors import FieldFault

OVERLAP_CM = 1.0
MOST = 200


@dataclass(frozen=True)
class Tile:
    """A sheet: its row across the cloth and its column along it from 1, and where on the lay its corner lies, in cm."""

    row: int
    column: int
    x_cm: float
    y_cm: float

    @property
    def name(self) -> str:
        """'B3': the second row, the third sheet along."""
        return f"{chr(ord('A') + self.row - 1)}{self.column}"


@dataclass(frozen=True)
class Tiling:
    """All sheets of a lay, row by row, and the size of what each shows in cm."""

    tiles: tuple[Tile, ...]
    along_cm: float
    across_cm: float


def tiled(length_cm: float, height_cm: float, along_cm: float, across_cm: float) -> Tiling:
    """Sheets that show `along_cm` × `across_cm` each, overlapping their neighbours; raises FieldFault for far too many."""
    step_x, step_y = along_cm - OVERLAP_CM, across_cm - OVERLAP_CM
    columns = max(1, ceil(round((length_cm - OVERLAP_CM) / step_x, 6)))
    rows = max(1, ceil(round((height_cm - OVERLAP_CM) / step_y, 6)))
    if rows * columns > MOST:
        raise FieldFault("sheets", rows * columns, f"are too many to print; at most {MOST}: take the lay as a file instead")
    tiles = tuple(Tile(row + 1, column + 1, column * step_x, row * step_y) for row in range(rows) for column in range(columns))
    return Tiling(tiles, along_cm, across_cm)


def touches(of: Tiling, tile: Tile, box: tuple[float, float, float, float]) -> bool:
    """Whether anything within these bounds stands on a sheet."""
    x0, y0, x1, y1 = box
    return x0 < tile.x_cm + of.along_cm and x1 > tile.x_cm and y0 < tile.y_cm + of.across_cm and y1 > tile.y_cm
