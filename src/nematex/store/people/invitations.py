"""Links that work once. The database holds the hash of what stands in the link."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime

from sqlalchemy import delete, select

from nematex.store.database import Work
from nematex.store.models import InvitationRow
from nematex.store.people.sign_ins import hash_of


@dataclass(frozen=True)
class Invitation:
    """For somebody new of this role, or, with a number, for a new password of the person who has it."""

    key: str
    name: str
    role: str
    person_id: int | None
    made_by: str
    made_at: datetime
    ends_at: datetime


def _invitation(row: InvitationRow) -> Invitation:
    return Invitation(row.token_hash[:16], row.name, row.role, row.person_id, row.made_by, row.made_at, row.ends_at)


def add_invitation(work: Work, token: str, invited: Invitation) -> None:
    work.add(
        InvitationRow(
            token_hash=hash_of(token),
            name=invited.name,
            role=invited.role,
            person_id=invited.person_id,
            made_by=invited.made_by,
            made_at=invited.made_at,
            ends_at=invited.ends_at,
        )
    )


def invitation(work: Work, token: str, now: datetime, take: bool = False) -> Invitation | None:
    """The one of this link, if it is still good; `take` uses it up: of two who do so at once, one gets it."""
    row = work.scalar(select(InvitationRow).where(InvitationRow.token_hash == hash_of(token), InvitationRow.ends_at > now))
    if row is None:
        return None
    found = _invitation(row)
    if take:
        gone = work.execute(delete(InvitationRow).where(InvitationRow.token_hash == hash_of(token)))
        return found if gone.rowcount else None  # type: ignore[attr-defined]
    return found


def invitations(work: Work, now: datetime) -> list[Invitation]:
    """Those that are still good."""
    chosen = select(InvitationRow).where(InvitationRow.ends_at > now).order_by(InvitationRow.made_at.desc())
    return [_invitation(row) for row in work.scalars(chosen)]


def withdraw(work: Work, key: str = "", person_id: int | None = None) -> None:
    """Take back the one of a key, or all for a person."""
    chosen = delete(InvitationRow)
    if person_id is not None:
        chosen = chosen.where(InvitationRow.person_id == person_id)
    else:
        chosen = chosen.where(InvitationRow.token_hash.startswith(key or "-", autoescape=True))
    work.execute(chosen)
