"""What the stock feed said: its last answer, and each cloth's level whenever it was another than before."""

from __future__ import annotations

from collections.abc import Collection, Mapping
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy import func, insert, or_, select

from nematex.store.database import Work
from nematex.store.models import ClothRow, FeedRow, ReservationRow, StockReadingRow

NAME = "stock"


@dataclass(frozen=True)
class FeedState:
    """When the feed was asked last and when it last came, how old its figures were then, what went wrong, what was refused."""

    tried_at: datetime
    came_at: datetime | None
    stamp: datetime | None
    message: str
    refused: tuple[str, ...]


def feed_state(work: Work) -> FeedState | None:
    """How the feed stands; None where it was never asked."""
    row = work.get(FeedRow, NAME)
    return FeedState(row.tried_at, row.came_at, row.stamp, row.message, tuple(row.refused)) if row else None


def note_feed(work: Work, tried_at: datetime, **values: Any) -> None:
    """Keep how asking went; what is not given stays."""
    row = work.get(FeedRow, NAME) or FeedRow(name=NAME, message="", refused=[])
    row.tried_at = tried_at
    for name, value in values.items():
        setattr(row, name, value)
    work.add(row)


def counted(work: Work) -> list[tuple[int, str, float | None]]:
    """Id, key of the code and stock of every cloth on the shelf."""
    chosen = select(ClothRow.id, ClothRow.code_key, ClothRow.stock_m).where(ClothRow.binned_at.is_(None))
    return [(cloth_id, key, stock) for cloth_id, key, stock in work.execute(chosen)]


def reserved_m(work: Work) -> dict[int, float]:
    """Metres that are reserved, by cloth."""
    found: dict[int, float] = {}
    for cloth_id, length in work.execute(select(ReservationRow.cloth_id, ReservationRow.length_m)):
        found[cloth_id] = found.get(cloth_id, 0.0) + length
    return found


def add_levels(work: Work, levels: Mapping[int, float], read_at: datetime) -> None:
    """Levels that are others than before."""
    if levels:
        rows = [{"cloth_id": cloth_id, "metres": metres, "read_at": read_at} for cloth_id, metres in levels.items()]
        work.execute(insert(StockReadingRow), rows)


def levels_of(work: Work, cloth_ids: Collection[int] | None, since: datetime) -> dict[int, list[tuple[datetime, float]]]:
    """Each cloth's levels in the order of time, from the last one before `since`; None: of all cloths."""
    found: dict[int, list[tuple[datetime, float]]] = {}
    chosen = select(StockReadingRow.cloth_id, StockReadingRow.read_at, StockReadingRow.metres)
    before = select(func.max(StockReadingRow.id)).where(StockReadingRow.read_at <= since).group_by(StockReadingRow.cloth_id)
    chosen = chosen.where(or_(StockReadingRow.read_at > since, StockReadingRow.id.in_(before)))
    if cloth_ids is not None:
        chosen = chosen.where(StockReadingRow.cloth_id.in_(list(cloth_ids)))
    chosen = chosen.order_by(StockReadingRow.read_at, StockReadingRow.id)
    for cloth_id, read_at, metres in work.execute(chosen):
        found.setdefault(cloth_id, []).append((read_at, metres))
    return found


def ever_counted(work: Work) -> set[int]:
    """The cloths of which a level is kept."""
    return set(work.scalars(select(StockReadingRow.cloth_id).distinct()))
