"""Faults of a file, returned and not raised: one bad row never stops the rest."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class RowFault:
    """What is wrong in one cell: row number in the file, column heading, the cell and the rule."""

    row: int
    column: str
    value: str
    message: str
    cell_only: bool = False  # the cell is left out, the row is taken
