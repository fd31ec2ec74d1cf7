"""Cloth taken out of the stock for a purpose, and given back: the stock and its reservation change in one unit of work."""

from __future__ import annotations

from sqlalchemy import select

from nematex.store.cloth.cloths import change_cloth
from nematex.store.database import Work
from nematex.store.models import ClothRow, ReservationRow
from nematex.store.records import Reservation
from nematex.store.versions import SHELF, next_version


def reserve(work: Work, cloth_id: int, length_m: float, why: str) -> bool:
    """Take a length out of the stock; whether there was as much."""
    next_version(work, SHELF)  # the counter is taken before a row, so that two writers never wait for each other
    row = work.get(ClothRow, cloth_id, with_for_update=True)
    if row is None or row.stock_m is None or row.stock_m < length_m - 1e-6:
        return False
    change_cloth(work, cloth_id, {"stock_m": round(row.stock_m - length_m, 3)})
    work.add(ReservationRow(cloth_id=cloth_id, length_m=length_m, why=why[:300]))
    return True


def give_back(work: Work, reservation_id: int) -> Reservation | None:
    """Put a reserved length back into the stock; None where it has been given back already."""
    next_version(work, SHELF)
    held = work.get(ReservationRow, reservation_id, with_for_update=True)
    if held is None:
        return None
    row = work.get(ClothRow, held.cloth_id, with_for_update=True)
    if row is not None:
        change_cloth(work, held.cloth_id, {"stock_m": round((row.stock_m or 0.0) + held.length_m, 3)})
    found = _record(held)
    work.delete(held)
    return found


def _record(row: ReservationRow) -> Reservation:
    return Reservation(row.id, row.cloth_id, row.length_m, row.why, row.made_at)


def reservations(work: Work, cloth_id: int | None = None) -> list[Reservation]:
    """What is reserved, of one cloth or of all, newest first."""
    wanted = select(ReservationRow).order_by(ReservationRow.id.desc())
    if cloth_id is not None:
        wanted = wanted.where(ReservationRow.cloth_id == cloth_id)
    return [_record(row) for row in work.scalars(wanted)]
