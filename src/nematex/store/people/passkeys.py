"""Passkeys: the public halves."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime

from sqlalchemy import delete, select, update

from nematex.store.database import Work
from nematex.store.models import PasskeyRow


@dataclass(frozen=True)
class Passkey:
    """What answers are checked with; `sign_count` counts up where the device counts."""

    id: int
    person_id: int
    credential: bytes
    public_key: bytes
    sign_count: int
    name: str
    made_at: datetime


def _passkey(row: PasskeyRow) -> Passkey:
    return Passkey(row.id, row.person_id, row.credential, row.public_key, row.sign_count, row.name, row.made_at)


def add_passkey(work: Work, person_id: int, credential: bytes, public_key: bytes, count: int, name: str, now: datetime) -> None:
    made = {"credential": credential, "public_key": public_key, "sign_count": count, "name": name, "made_at": now}
    work.add(PasskeyRow(person_id=person_id, **made))


def passkeys_of(work: Work, person_id: int) -> list[Passkey]:
    return [_passkey(row) for row in work.scalars(select(PasskeyRow).where(PasskeyRow.person_id == person_id))]


def passkey(work: Work, credential: bytes) -> Passkey | None:
    row = work.scalar(select(PasskeyRow).where(PasskeyRow.credential == credential).with_for_update())
    return _passkey(row) if row else None


def note_used(work: Work, passkey_id: int, count: int) -> None:
    work.execute(update(PasskeyRow).where(PasskeyRow.id == passkey_id).values(sign_count=count))


def remove_passkeys(work: Work, person_id: int) -> None:
    work.execute(delete(PasskeyRow).where(PasskeyRow.person_id == person_id))


def remove_passkey(work: Work, person_id: int, passkey_id: int) -> None:
    work.execute(delete(PasskeyRow).where(PasskeyRow.person_id == person_id, PasskeyRow.id == passkey_id))
