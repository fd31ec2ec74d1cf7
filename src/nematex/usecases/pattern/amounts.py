"""A pattern's requirement table as it is read: for each view and use one table, width by size."""

from __future__ import annotations

from dataclasses import dataclass

from nematex.core.pattern.facts import Pattern, Requirement

EVERY_SIZE = "all sizes"


@dataclass(frozen=True)
class AmountTable:
    """Lengths in m: a row for each width in cm, a column for each size; None where the envelope says nothing."""

    view: str
    use: str
    with_nap: bool
    sizes: tuple[str, ...]
    rows: tuple[tuple[float, tuple[float | None, ...]], ...]
    reckoned: tuple[str, ...] = ()  # sizes that the envelope does not say


def _columns(rows: list[Requirement], order: list[str]) -> tuple[str, ...]:
    named = {size for row in rows for size in row.sizes}
    return tuple(size for size in order if size in named) or (EVERY_SIZE,)


def _length(rows: list[Requirement], width_cm: float, size: str) -> float | None:
    found = [row.length_m for row in rows if row.width_cm == width_cm and (not row.sizes or size in row.sizes)]
    return max(found, default=None)


def amount_tables(pattern: Pattern) -> list[AmountTable]:
    """The tables in the order of the envelope."""
    order = list(dict.fromkeys([size.label for size in pattern.sizes] + [s for row in pattern.requirements for s in row.sizes]))
    grouped: dict[tuple[str, str, bool], list[Requirement]] = {}
    for row in pattern.requirements:
        grouped.setdefault((row.view, row.use, row.with_nap), []).append(row)
    tables = []
    for (view, use, nap), rows in grouped.items():
        sizes, widths = _columns(rows, order), sorted({row.width_cm for row in rows})
        lines = tuple((width, tuple(_length(rows, width, size) for size in sizes)) for width in widths)
        between = {size for row in rows if row.reckoned for size in row.sizes}
        tables.append(AmountTable(view, use, nap, sizes, lines, tuple(size for size in sizes if size in between)))
    return tables
