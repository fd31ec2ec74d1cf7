"""Readings and photos of cloths. Readings are only ever added, and taken back with the import that wrote them."""

from __future__ import annotations

from collections.abc import Collection, Iterable
from dataclasses import fields

from sqlalchemy import delete, func, insert, select

from nematex.store.database import Work
from nematex.store.models import Base, PhotoRow, ReadingRow
from nematex.store.records import Photo, ReadingRecord

WRITTEN = tuple(each.name for each in fields(ReadingRecord) if each.name != "id")
COLUMNS = tuple(column for column in ReadingRow.__table__.columns)


def add_readings(work: Work, readings: Iterable[ReadingRecord]) -> None:
    values = [{name: getattr(each, name) for name in WRITTEN} | {"repeats": list(each.repeats)} for each in readings]
    if values:
        work.execute(insert(Base.metadata.tables["reading"]), values)  # the table, not the class: sent in batches


def readings_of(work: Work, cloth_id: int) -> list[ReadingRecord]:
    """All readings of a cloth, the newest first."""
    chosen = select(*COLUMNS).where(ReadingRow.cloth_id == cloth_id).order_by(ReadingRow.taken_at.desc(), ReadingRow.id.desc())
    return [_reading(row._mapping) for row in work.execute(chosen)]


def newest_reading(work: Work, cloth_id: int) -> int:
    """The highest number of a cloth's readings, 0 where it has none."""
    return work.scalar(select(func.max(ReadingRow.id)).where(ReadingRow.cloth_id == cloth_id)) or 0


def read_since(work: Work, cloth_id: int, properties: Collection[str], seen: int) -> ReadingRecord | None:
    """The newest reading of one of these properties with a number beyond `seen`."""
    chosen = select(*COLUMNS).where(ReadingRow.cloth_id == cloth_id, ReadingRow.id > seen)
    row = work.execute(chosen.where(ReadingRow.property.in_(properties)).order_by(ReadingRow.id.desc())).first()
    return _reading(row._mapping) if row else None


def _reading(row) -> ReadingRecord:  # type: ignore[no-untyped-def]
    return ReadingRecord(**{**row, "repeats": tuple(row["repeats"])})


def spans(work: Work, cloth_ids: Iterable[int] | None = None) -> dict[int, dict[str, tuple[float, float]]]:
    """Cloth id → property → least and greatest of its stated and measured readings, where there are several.

    Of these cloths, or of all.
    """
    number = ReadingRow.number
    chosen = (
        select(ReadingRow.cloth_id, ReadingRow.property, func.min(number).label("low"), func.max(number).label("high"))
        .where(ReadingRow.known.in_(("stated", "measured")), number.is_not(None))
        .group_by(ReadingRow.cloth_id, ReadingRow.property)
        .having(func.min(number) < func.max(number))
    )
    if cloth_ids is not None:
        chosen = chosen.where(ReadingRow.cloth_id.in_(list(cloth_ids)))
    found: dict[int, dict[str, tuple[float, float]]] = {}
    for row in work.execute(chosen):
        found.setdefault(row.cloth_id, {})[row.property] = (row.low, row.high)
    return found


def drop_readings_of_import(work: Work, upload_id: int, kept: Collection[int] = ()) -> None:
    """Take back what a list said, but of these cloths, which it brought: their readings stay with them."""
    dropped = delete(ReadingRow).where(ReadingRow.upload_id == upload_id)
    work.execute(dropped.where(ReadingRow.cloth_id.not_in(kept)) if kept else dropped)


def add_photo(work: Work, photo: Photo) -> int:
    row = PhotoRow(
        cloth_id=photo.cloth_id, kind=photo.kind, content=photo.content, px_per_cm=photo.px_per_cm, found=photo.found
    )
    work.add(row)
    work.flush()
    return row.id


def photo(work: Work, photo_id: int) -> Photo | None:
    row = work.get(PhotoRow, photo_id)
    return Photo(row.id, row.cloth_id, row.kind, row.content, row.px_per_cm, row.found) if row else None


def photos_of(work: Work, cloth_id: int, kind: str) -> list[Photo]:
    """The photos of a cloth without their content, the newest first."""
    chosen = (
        select(PhotoRow.id, PhotoRow.px_per_cm, PhotoRow.found)
        .where(PhotoRow.cloth_id == cloth_id, PhotoRow.kind == kind)
        .order_by(PhotoRow.id.desc())
    )
    return [Photo(row.id, cloth_id, kind, b"", row.px_per_cm, row.found) for row in work.execute(chosen)]


def keep_found(work: Work, photo_id: int, found: dict[str, object]) -> None:
    row = work.get(PhotoRow, photo_id)
    if row:
        row.found = found
