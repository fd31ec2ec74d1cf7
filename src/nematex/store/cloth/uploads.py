"""Files sent for import."""

from __future__ import annotations

from typing import Any

from sqlalchemy import delete, select, update
from sqlalchemy.dialects.mysql import insert

from nematex.store.database import Work
from nematex.store.models import ImportStepRow, MappingRow, UploadRow
from nematex.store.records import Upload

Step = tuple[str, dict[str, Any] | None, dict[str, Any]]  # code, columns before (None: it was not there), columns after
KEPT = 20  # of those applied and of those only looked at; older ones are let go


def add_upload(work: Work, kind: str, filename: str, content: bytes, supplier: str) -> int:
    row = UploadRow(kind=kind, filename=filename[:300], content=content, mapping={}, supplier=supplier, applied=False)
    work.add(row)
    work.flush()
    for applied in (False, True):  # lists that were only looked at never push out one that can be taken back
        of_its_kind = select(UploadRow.id).where(UploadRow.applied.is_(applied)).order_by(UploadRow.id.desc())
        work.execute(delete(UploadRow).where(UploadRow.id.in_(list(work.scalars(of_its_kind.offset(KEPT).limit(1000))))))
    return row.id


def upload(work: Work, upload_id: int) -> Upload | None:
    row = work.get(UploadRow, upload_id)
    if row is None:
        return None
    names = ("id", "kind", "filename", "content", "mapping", "supplier", "applied", "state", "message", "job_id", "sent_at")
    return Upload(**{name: getattr(row, name) for name in names})


def recent_uploads(work: Work) -> list[Upload]:
    """The uploads that are kept, newest first, without their content."""
    names = ("id", "kind", "filename", "supplier", "applied", "state", "message", "job_id", "sent_at")
    columns = [getattr(UploadRow, name) for name in names]
    rows = work.execute(select(*columns).order_by(UploadRow.id.desc()))
    return [Upload(content=b"", **row._mapping) for row in rows]


def remember_mapping(work: Work, upload_id: int, mapping: dict[str, Any]) -> None:
    row = work.get(UploadRow, upload_id)
    if row:
        row.mapping = mapping


def set_state(work: Work, upload_id: int, **values: Any) -> None:
    """Set state, message, job or applied of an upload."""
    work.execute(update(UploadRow).where(UploadRow.id == upload_id).values(**values))


def headings_of(work: Work, supplier: str) -> dict[str, str]:
    """How this supplier's headings were understood last time."""
    row = work.get(MappingRow, supplier) if supplier else None
    return dict(row.headings) if row else {}


def remember_headings(work: Work, supplier: str, headings: dict[str, str]) -> None:
    statement = insert(MappingRow).values(supplier=supplier, headings=headings)
    work.execute(statement.on_duplicate_key_update(headings=statement.inserted.headings))


def add_steps(work: Work, upload_id: int, steps: list[Step]) -> None:
    """What an import did: (code, columns before or None, columns after)."""
    if steps:
        work.execute(
            ImportStepRow.__table__.insert(),  # type: ignore[attr-defined]
            [{"upload_id": upload_id, "code": code, "before": before, "after": after} for code, before, after in steps],
        )


def steps_of(work: Work, upload_id: int) -> list[Step]:
    chosen = select(ImportStepRow.code, ImportStepRow.before, ImportStepRow.after).where(ImportStepRow.upload_id == upload_id)
    return [(row.code, row.before, row.after) for row in work.execute(chosen)]


def drop_steps(work: Work, upload_id: int) -> None:
    work.execute(delete(ImportStepRow).where(ImportStepRow.upload_id == upload_id))
