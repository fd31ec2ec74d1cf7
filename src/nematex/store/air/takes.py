"""Takes of a programme. What a device sends twice is kept once: each take and each event has a key of the device's own."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy import delete, select, update
from sqlalchemy.dialects.mysql import insert

from nematex.core.air.take import Event
from nematex.store.database import Work
from nematex.store.models import TakeEventRow, TakeRow


@dataclass(frozen=True)
class Take:
    """A take with what happened in it, by time. `plan`: its parts as they were shown, {title, kind, seconds, picks}."""

    id: int
    programme_id: int
    own_key: str
    started_at: datetime
    plan: tuple[Mapping[str, Any], ...]
    chosen: bool
    offset_s: float
    events: tuple[Event, ...] = ()


def _take(row: TakeRow, events: Iterable[TakeEventRow]) -> Take:
    told = tuple(Event(each.kind, each.at_s, each.part, each.fact, each.text) for each in events)
    return Take(row.id, row.programme_id, row.own_key, row.started_at, tuple(row.plan), row.chosen, row.offset_s, told)


def _with_events(work: Work, rows: Sequence[TakeRow]) -> list[Take]:
    events: dict[int, list[TakeEventRow]] = {}
    asked = select(TakeEventRow).where(TakeEventRow.take_id.in_([row.id for row in rows]))
    for each in work.scalars(asked.order_by(TakeEventRow.at_s, TakeEventRow.id)) if rows else ():
        events.setdefault(each.take_id, []).append(each)
    return [_take(row, events.get(row.id, ())) for row in rows]


def takes_of(work: Work, programme_id: int) -> list[Take]:
    """The takes of a programme in the order filmed."""
    asked = select(TakeRow).where(TakeRow.programme_id == programme_id).order_by(TakeRow.started_at, TakeRow.id)
    return _with_events(work, list(work.scalars(asked)))


def last_takes(work: Work, count: int) -> list[Take]:
    """The takes of the shop that were filmed last."""
    asked = select(TakeRow).order_by(TakeRow.started_at.desc(), TakeRow.id.desc()).limit(count)
    return _with_events(work, list(work.scalars(asked)))


def keep_take(
    work: Work, programme_id: int, own_key: str, started_at: datetime, plan: Sequence[Mapping[str, Any]]
) -> int | None:
    """The number of the take with this key, made where there is none yet; None where it belongs to another programme."""
    values = {"programme_id": programme_id, "own_key": own_key, "started_at": started_at, "plan": [dict(each) for each in plan]}
    work.execute(insert(TakeRow).values(**values).prefix_with("ignore"))
    found = work.execute(select(TakeRow.id, TakeRow.programme_id).where(TakeRow.own_key == own_key)).one_or_none()
    return found.id if found and found.programme_id == programme_id else None


def add_events(work: Work, take_id: int, events: Mapping[str, Event]) -> None:
    """Keep events by their keys; one that is kept already stays as it is."""
    if not events:
        return
    rows = [
        {"take_id": take_id, "own_key": key, "kind": e.kind, "at_s": e.at_s, "part": e.part, "fact": e.fact, "text": e.text}
        for key, e in events.items()
    ]
    work.execute(insert(TakeEventRow).values(rows).prefix_with("ignore"))


def choose_take(work: Work, programme_id: int, take_id: int) -> None:
    """Let a take be the one that is published, and no other."""
    work.execute(update(TakeRow).where(TakeRow.programme_id == programme_id).values(chosen=TakeRow.id == take_id))


def shift_take(work: Work, programme_id: int, take_id: int, offset_s: float) -> None:
    """By how many s the edit shifts a take."""
    asked = update(TakeRow).where(TakeRow.programme_id == programme_id, TakeRow.id == take_id)
    work.execute(asked.values(offset_s=offset_s))


def drop_take(work: Work, programme_id: int, take_id: int) -> None:
    work.execute(delete(TakeRow).where(TakeRow.programme_id == programme_id, TakeRow.id == take_id))
