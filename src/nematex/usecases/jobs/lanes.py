"""Which jobs wait for one another: somebody who brings in a list should not wait until twenty lays are done."""

from __future__ import annotations

LANES: dict[str, tuple[str, ...]] = {
    "lays": ("lay",),
    "lists": ("list", "matrix", "pairings"),
    "sets": ("proposal", "book", "leaflet", "cards", "sheet", "export", "together", "photo"),
}
AWAITED = "sets"  # somebody looks at the page until it is there: it does not stand back as the others do


def lane_of(kind: str) -> str:
    """The lane of a kind of job; raises StopIteration for one that has none."""
    return next(lane for lane, kinds in LANES.items() if kind in kinds)
