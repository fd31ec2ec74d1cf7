"""Files sent for import."""

from __future__ import annotations

from typing import Any

from sqlalchemy import delete, select

from nematex.store.database import Work
from nematex.store.models import UploadRow
from nematex.store.records import Upload

KEPT = 20  # older uploads are let go


def add_upload(work: Work, kind: str, filename: str, content: bytes, supplier: str) -> int:
    row = UploadRow(kind=kind, filename=filename[:300], content=content, mapping={}, supplier=supplier, applied=False)
    work.add(row)
    work.flush()
    old = list(work.scalars(select(UploadRow.id).order_by(UploadRow.id.desc()).offset(KEPT).limit(1000)))
    work.execute(delete(UploadRow).where(UploadRow.id.in_(old)))
    return row.id


def upload(work: Work, upload_id: int) -> Upload | None:
    row = work.get(UploadRow, upload_id)
    if row is None:
        return None
    return Upload(row.id, row.kind, row.filename, row.content, row.mapping, row.supplier, row.applied)


def remember_mapping(work: Work, upload_id: int, mapping: dict[str, Any]) -> None:
    row = work.get(UploadRow, upload_id)
    if row:
        row.mapping = mapping


def mark_applied(work: Work, upload_id: int) -> None:
    row = work.get(UploadRow, upload_id)
    if row:
        row.applied = True
