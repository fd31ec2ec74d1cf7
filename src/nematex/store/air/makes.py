"""Garments that were made: of which pattern in which cloth, what was told of them, a photo."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import date, datetime

from sqlalchemy import func, select

from nematex.core.paging import Page, turned_to
from nematex.store.database import Work
from nematex.store.models import ClothRow, MakeRow, PatternRow
from nematex.store.versions import PROGRAMMES, next_version


@dataclass(frozen=True)
class Make:
    """A garment that was made; verdicts in the product's words, "" where nobody said; `told`: the rest of its form."""

    id: int
    pattern_id: int
    cloth_id: int
    made_on: date | None = None
    viewers: bool = False
    verdict: str = ""
    washed: str = ""
    hours: float | None = None
    told: Mapping[str, str] = field(default_factory=dict)
    has_photo: bool = False


COLUMNS = (
    MakeRow.id, MakeRow.pattern_id, MakeRow.cloth_id, MakeRow.made_on, MakeRow.viewers, MakeRow.verdict, MakeRow.washed,
    MakeRow.hours, MakeRow.told, MakeRow.photo.is_not(None).label("has_photo"),
)  # fmt: skip


def _there() -> tuple[object, ...]:
    """Neither the garment nor what it is made of is in the bin."""
    return (
        MakeRow.binned_at.is_(None),
        MakeRow.cloth_id.in_(select(ClothRow.id).where(ClothRow.binned_at.is_(None))),
        MakeRow.pattern_id.in_(select(PatternRow.id).where(PatternRow.binned_at.is_(None))),
    )


def makes(work: Work, asked: int, size: int, cloth_id: int | None = None, pattern_id: int | None = None) -> Page[Make]:
    """A page of garments, the latest made first, of a cloth, a pattern or all."""
    which = [*_there()]
    if cloth_id is not None:
        which.append(MakeRow.cloth_id == cloth_id)
    if pattern_id is not None:
        which.append(MakeRow.pattern_id == pattern_id)
    total = work.scalar(select(func.count()).select_from(MakeRow).where(*which)) or 0  # type: ignore[arg-type]
    page, pages = turned_to(total, asked, size)
    rows = select(*COLUMNS).where(*which).order_by(MakeRow.made_on.desc(), MakeRow.id.desc())  # type: ignore[arg-type]
    found = [Make(**row._mapping) for row in work.execute(rows.offset((page - 1) * size).limit(size))]
    return Page(found, total, page, pages)


def made_between(work: Work, first: date, last: date) -> list[Make]:
    """What was made in a span of days."""
    rows = select(*COLUMNS).where(*_there(), MakeRow.made_on >= first, MakeRow.made_on <= last)  # type: ignore[arg-type]
    return [Make(**row._mapping) for row in work.execute(rows.order_by(MakeRow.made_on, MakeRow.id))]


def make(work: Work, make_id: int) -> Make | None:
    row = work.execute(select(*COLUMNS).where(MakeRow.id == make_id, MakeRow.binned_at.is_(None))).one_or_none()
    return Make(**row._mapping) if row else None


def save_make(work: Work, kept: Make, now: datetime) -> int:
    """Keep a garment, a new one where its number is 0; its number."""
    next_version(work, PROGRAMMES)
    row = MakeRow(kept_at=now.replace(microsecond=0)) if not kept.id else work.get_one(MakeRow, kept.id)
    work.add(row)
    for name in ("pattern_id", "cloth_id", "made_on", "viewers", "verdict", "washed", "hours"):
        setattr(row, name, getattr(kept, name))
    row.told = dict(kept.told)
    work.flush()
    return row.id


def put_photo(work: Work, make_id: int, content: bytes | None) -> None:
    work.get_one(MakeRow, make_id).photo = content


def photo(work: Work, make_id: int) -> bytes | None:
    return work.scalar(select(MakeRow.photo).where(MakeRow.id == make_id))


def bin_make(work: Work, make_id: int) -> None:
    next_version(work, PROGRAMMES)
    work.get_one(MakeRow, make_id).binned_at = datetime.now().replace(microsecond=0)
