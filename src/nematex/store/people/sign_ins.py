"""Where people are signed in. The browser holds a token, the database its hash alone."""

from __future__ import annotations

import hashlib
from dataclasses import dataclass
from datetime import datetime

from sqlalchemy import delete, select, update

from nematex.store.database import Work
from nematex.store.models import PersonRow, SignInRow
from nematex.store.people.persons import Person, person_of


@dataclass(frozen=True)
class SignIn:
    """One sign-in: a short name of its own, on what, from where, since when, last seen, and when it was last proved."""

    key: str
    person_id: int
    device: str
    address: str
    begun_at: datetime
    seen_at: datetime
    proved_at: datetime


def hash_of(token: str) -> str:
    return hashlib.sha256(token.encode()).hexdigest()


def _sign_in(row: SignInRow) -> SignIn:
    return SignIn(row.token_hash[:16], row.person_id, row.device, row.address, row.begun_at, row.seen_at, row.proved_at)


def add_sign_in(work: Work, token: str, person_id: int, device: str, address: str, now: datetime) -> None:
    row = SignInRow(token_hash=hash_of(token), person_id=person_id, device=device[:120], address=address[:60])
    row.begun_at = row.seen_at = row.proved_at = now
    work.add(row)


def find_sign_in(work: Work, token: str) -> tuple[SignIn, Person] | None:
    """The sign-in with this token and who it is, unless they may not sign in any more."""
    chosen = select(SignInRow, PersonRow).join(PersonRow, PersonRow.id == SignInRow.person_id)
    found = work.execute(chosen.where(SignInRow.token_hash == hash_of(token), PersonRow.ended_at.is_(None))).first()
    return (_sign_in(found[0]), person_of(found[1])) if found else None


def note_seen(work: Work, token: str, now: datetime) -> None:
    work.execute(update(SignInRow).where(SignInRow.token_hash == hash_of(token)).values(seen_at=now))


def note_proved(work: Work, token: str, now: datetime) -> None:
    work.execute(update(SignInRow).where(SignInRow.token_hash == hash_of(token)).values(proved_at=now))


def sign_ins_of(work: Work, person_id: int) -> list[SignIn]:
    chosen = select(SignInRow).where(SignInRow.person_id == person_id).order_by(SignInRow.seen_at.desc())
    return [_sign_in(row) for row in work.scalars(chosen)]


def end_sign_in(work: Work, token: str) -> None:
    work.execute(delete(SignInRow).where(SignInRow.token_hash == hash_of(token)))


def end_sign_ins(work: Work, person_id: int, key: str = "", but: str = "") -> int:
    """End a person's sign-ins: all, the one of a key, or all but the one of a token; returns how many."""
    chosen = delete(SignInRow).where(SignInRow.person_id == person_id)
    if key:
        chosen = chosen.where(SignInRow.token_hash.startswith(key, autoescape=True))
    if but:
        chosen = chosen.where(SignInRow.token_hash != hash_of(but))
    return int(work.execute(chosen).rowcount)  # type: ignore[attr-defined]


def end_stale(work: Work, seen_before: datetime, begun_before: datetime) -> None:
    """Let go of sign-ins that have run out."""
    work.execute(delete(SignInRow).where((SignInRow.seen_at < seen_before) | (SignInRow.begun_at < begun_before)))
