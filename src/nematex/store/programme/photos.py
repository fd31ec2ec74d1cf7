"""The shop's own photos of garments that it made, by pick."""

from __future__ import annotations

from collections.abc import Iterable

from sqlalchemy import delete, select

from nematex.store.database import Work
from nematex.store.models import PickPhotoRow, PickRow
from nematex.store.versions import PROGRAMMES, next_version


def put_photo(work: Work, programme_id: int, pick_id: int, content: bytes) -> bool:
    """Keep a photo of a pick in the place of the one before; whether the pick is there."""
    next_version(work, PROGRAMMES)
    row = work.get(PickRow, pick_id)
    if row is None or row.programme_id != programme_id or row.binned_at is not None:
        return False
    row.proposed = False
    work.merge(PickPhotoRow(pick_id=pick_id, content=content))
    return True


def drop_photo(work: Work, pick_id: int) -> None:
    next_version(work, PROGRAMMES)
    work.execute(delete(PickPhotoRow).where(PickPhotoRow.pick_id == pick_id))


def photo(work: Work, pick_id: int) -> bytes | None:
    return work.scalar(select(PickPhotoRow.content).where(PickPhotoRow.pick_id == pick_id))


def with_photo(work: Work, pick_ids: Iterable[int]) -> frozenset[int]:
    """Those of the picks that have a photo."""
    return frozenset(work.scalars(select(PickPhotoRow.pick_id).where(PickPhotoRow.pick_id.in_(list(pick_ids)))))
