"""Remotes: a phone presses, the camera view with the same code answers to it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy import delete, select, update
from sqlalchemy.dialects.mysql import insert

from nematex.store.database import Work
from nematex.store.models import RemotePressRow, RemoteRow


@dataclass(frozen=True)
class Press:
    """A key of a remote, and when it was pressed in s since 1970."""

    id: int
    kind: str
    text: str
    pressed_at_s: float


@dataclass(frozen=True)
class Remote:
    """A remote: of which programme, since when, and what its camera view shows."""

    code: str
    programme_id: int
    made_at: datetime
    shows: Mapping[str, Any]


def make_remote(work: Work, code: str, programme_id: int, now: datetime, oldest: datetime) -> bool:
    """Make a remote; whether its code was free. Those from before `oldest` are taken away."""
    work.execute(delete(RemoteRow).where(RemoteRow.made_at < oldest))
    values = {"code": code, "programme_id": programme_id, "made_at": now, "shows": {}}
    return bool(work.execute(insert(RemoteRow).values(**values).prefix_with("ignore")).rowcount)  # type: ignore[attr-defined]


def remote(work: Work, code: str, oldest: datetime) -> Remote | None:
    row = work.scalar(select(RemoteRow).where(RemoteRow.code == code, RemoteRow.made_at >= oldest))
    return Remote(row.code, row.programme_id, row.made_at, row.shows) if row else None


def show(work: Work, code: str, shows: Mapping[str, Any]) -> None:
    """Keep what the camera view shows."""
    work.execute(update(RemoteRow).where(RemoteRow.code == code).values(shows=dict(shows)))


def press(work: Work, code: str, own_key: str, kind: str, text: str, pressed_at_s: float) -> None:
    """Keep a press; sent twice, it stands once."""
    values = {"code": code, "own_key": own_key, "kind": kind, "text": text, "pressed_at_s": pressed_at_s}
    work.execute(insert(RemotePressRow).values(**values).prefix_with("ignore"))


def presses(work: Work, code: str, after: int) -> list[Press]:
    """What was pressed after the press with this number."""
    asked = select(RemotePressRow).where(RemotePressRow.code == code, RemotePressRow.id > after)
    rows = work.scalars(asked.order_by(RemotePressRow.id).limit(200))
    return [Press(row.id, row.kind, row.text, row.pressed_at_s) for row in rows]
