"""People of the shop."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy import func, select, update
from sqlalchemy.exc import IntegrityError

from nematex.core.errors import FieldFault
from nematex.core.people.name import name_key
from nematex.store.database import Work
from nematex.store.models import PersonRow, SettingRow
from nematex.store.settings import DEMO


@dataclass(frozen=True)
class Person:
    """Somebody who may sign in; without a number, the presenter of a made-up shop."""

    id: int | None
    name: str
    role: str
    has_code: bool = False
    made_at: datetime | None = None
    ended_at: datetime | None = None


@dataclass(frozen=True)
class Secrets:
    """What a person's proofs are checked against. It never leaves the use cases."""

    password_hash: str
    code_secret: str
    code_step: int
    spare_codes: tuple[str, ...]
    failures: int
    waits_until: datetime | None


def person_of(row: PersonRow) -> Person:
    return Person(row.id, row.name, row.role, bool(row.code_secret), row.made_at, row.ended_at)


def people(work: Work) -> list[Person]:
    """All of them, those who left last."""
    return [person_of(row) for row in work.scalars(select(PersonRow).order_by(PersonRow.ended_at, PersonRow.name))]


def any_person(work: Work) -> bool:
    return work.scalar(select(PersonRow.id).limit(1)) is not None


def demo_of_nobody(work: Work) -> bool:
    """Whether the made-up shop is loaded and nobody owns it, in one question: it is asked with each page."""
    nobody = ~select(PersonRow.id).exists()
    return work.scalar(select(SettingRow.name).where(SettingRow.name == DEMO, nobody)) is not None


def person(work: Work, person_id: int) -> Person | None:
    row = work.get(PersonRow, person_id)
    return person_of(row) if row else None


def find_by_name(work: Work, name: str, hold: bool = False) -> tuple[Person, Secrets] | None:
    """Who signs in by this name; `hold` keeps others from counting a try of the same name at once."""
    chosen = select(PersonRow).where(PersonRow.name_key == name_key(name), PersonRow.ended_at.is_(None))
    row = work.scalar(chosen.with_for_update() if hold else chosen)
    return (person_of(row), _secrets(row)) if row else None


def secrets_of(work: Work, person_id: int) -> Secrets | None:
    row = work.get(PersonRow, person_id, with_for_update=True)
    return _secrets(row) if row else None


def _secrets(row: PersonRow) -> Secrets:
    spare = tuple(row.spare_codes or ())
    return Secrets(row.password_hash, row.code_secret, row.code_step, spare, row.failures, row.waits_until)


def add_person(work: Work, name: str, role: str, password_hash: str, now: datetime) -> int:
    """Make somebody; the database itself refuses a name that another has. Raises FieldFault."""
    row = PersonRow(name=name, name_key=name_key(name), role=role, password_hash=password_hash, made_at=now)
    try:
        with work.begin_nested():
            work.add(row)
            work.flush()
    except IntegrityError as fault:
        raise FieldFault("name", name, "is another person's already; choose another") from fault
    return row.id


def change_person(work: Work, person_id: int, **values: Any) -> None:
    work.execute(update(PersonRow).where(PersonRow.id == person_id).values(**values))


def owners_left(work: Work) -> int:
    """How many owners may sign in; their rows are held, so that two cannot end each other at once."""
    chosen = select(PersonRow.id).where(PersonRow.role == "owner", PersonRow.ended_at.is_(None)).with_for_update()
    return len(list(work.scalars(chosen)))


def how_many(work: Work) -> int:
    return work.scalar(select(func.count()).select_from(PersonRow)) or 0
