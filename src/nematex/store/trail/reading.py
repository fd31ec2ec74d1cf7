"""What is on the trail, the latest first."""

from __future__ import annotations

import json
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Any

from sqlalchemy import and_, delete, func, or_, select

from nematex.core.paging import Page, turned_to
from nematex.store.database import Work
from nematex.store.models import TrailRow

PAGE = 50


@dataclass(frozen=True)
class Step:
    """One change: when, who, of what, and column → (before, after)."""

    at: datetime
    who: str
    kind: str
    row_id: int
    act: str
    changes: dict[str, tuple[Any, Any]]


def _step(row: TrailRow) -> Step:
    changes = {name: (pair[0], pair[1]) for name, pair in json.loads(row.changes).items()}
    return Step(row.at, row.who, row.kind, row.row_id, row.act, changes)


def _of(kind: str, row_id: int | None) -> Any:
    if not kind:
        return TrailRow.id > 0
    if row_id is None:
        return TrailRow.kind == kind
    own = and_(TrailRow.kind == kind, TrailRow.row_id == row_id)
    return or_(own, and_(TrailRow.under_kind == kind, TrailRow.under_id == row_id))


def steps(work: Work, kind: str = "", row_id: int | None = None, page: int = 1) -> Page[Step]:
    """A page of the trail of a record and of what is a part of it, or of all without a kind; the latest first."""
    which = _of(kind, row_id)
    total = work.scalar(select(func.count()).select_from(TrailRow).where(which)) or 0
    page, pages = turned_to(total, page, PAGE)
    chosen = select(TrailRow).where(which).order_by(TrailRow.id.desc()).offset((page - 1) * PAGE).limit(PAGE)
    return Page([_step(row) for row in work.scalars(chosen)], total, page, pages)


def forget_before(work: Work, days: int, now: datetime) -> int:
    """Let go of what is older than so many days; returns how many steps that were."""
    done = work.execute(delete(TrailRow).where(TrailRow.at < now - timedelta(days=days)))
    return int(done.rowcount)  # type: ignore[attr-defined]
