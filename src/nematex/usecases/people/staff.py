"""What an owner does with the people of the shop, and what everybody does with their own sign-in."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime

from nematex.core.errors import FieldFault
from nematex.core.people.password import PasswordFault, read_password
from nematex.store.people import invitations, passkeys, persons, sign_ins
from nematex.store.people.failures import Failure, failures
from nematex.store.people.invitations import Invitation
from nematex.store.people.passkeys import Passkey
from nematex.store.people.persons import Person
from nematex.store.people.sign_ins import SignIn
from nematex.usecases.held.shop import Shop
from nematex.usecases.people.hashing import hashed, is_right
from nematex.usecases.people.inviting import read_role
from nematex.usecases.people.set_up import OWNER

SHOWN_FAILURES = 20
LAST = "is the last owner; make somebody else an owner first"


@dataclass(frozen=True)
class Staff:
    """The people, who was invited, where each is signed in, and who was refused of late."""

    people: list[Person]
    invited: list[Invitation]
    signed_in: dict[int, int]
    refused: list[Failure]


def staff(shop: Shop, now: datetime) -> Staff:
    with shop.database.work() as work:
        found = persons.people(work)
        places = {one.id: len(sign_ins.sign_ins_of(work, one.id)) for one in found if one.id is not None}
        return Staff(found, invitations.invitations(work, now), places, failures(work, SHOWN_FAILURES))


def give_role(shop: Shop, person_id: int, role: str, was: str) -> None:
    """Change what somebody may do; `was` is the role that the page showed. Raises FieldFault."""
    with shop.database.work() as work:
        owners = persons.owners_left(work)
        found = persons.person(work, person_id)
        if found is None or found.ended_at:
            raise FieldFault("person", person_id, "is not among those who may sign in")
        if was and found.role not in (was, role):
            raise FieldFault("role", role, f"clashes: somebody made {found.name} {found.role} while this page showed {was}")
        if found.role == OWNER and read_role(role) != OWNER and owners <= 1:
            raise FieldFault("role", role, f"cannot be: {found.name} {LAST}")
        persons.change_person(work, person_id, role=read_role(role))


def end_person(shop: Shop, person_id: int, now: datetime) -> None:
    """Somebody leaves: they are signed out everywhere and cannot sign in; their name stays on what they did."""
    with shop.database.work() as work:
        owners = persons.owners_left(work)
        found = persons.person(work, person_id)
        if found is None:
            raise FieldFault("person", person_id, "is not among the people of this shop")
        if found.role == OWNER and not found.ended_at and owners <= 1:
            raise FieldFault("person", found.name, LAST)
        persons.change_person(work, person_id, ended_at=now, password_hash="", code_secret="", spare_codes=None)
        for one in passkeys.passkeys_of(work, person_id):
            passkeys.remove_passkey(work, person_id, one.id)
        sign_ins.end_sign_ins(work, person_id)
        invitations.withdraw(work, person_id=person_id)


def take_back(shop: Shop, key: str) -> None:
    """Withdraw an invitation."""
    with shop.database.work() as work:
        invitations.withdraw(work, key=key[:16] if len(key) >= 16 else "")


@dataclass(frozen=True)
class Own:
    """Somebody's own sign-in: where they are signed in, and their passkeys."""

    sign_ins: list[SignIn]
    passkeys: list[Passkey]
    spare_codes: int


def own(shop: Shop, person_id: int) -> Own:
    with shop.database.work() as work:
        kept = persons.secrets_of(work, person_id)
        return Own(
            sign_ins.sign_ins_of(work, person_id), passkeys.passkeys_of(work, person_id), len(kept.spare_codes) if kept else 0
        )


def change_password(shop: Shop, person: Person, old: str, new: str, token: str) -> None:
    """Set a new password and end every other sign-in. Raises PasswordFault."""
    assert person.id is not None
    with shop.database.work() as work:
        kept = persons.secrets_of(work, person.id)
        if kept is None or not is_right(kept.password_hash, old[:200]):
            raise PasswordFault("old password", "is not right; nothing was changed")
        persons.change_person(
            work, person.id, password_hash=hashed(read_password(new, (person.name, "nematex"), "new password"))
        )
        sign_ins.end_sign_ins(work, person.id, but=token)


def end_elsewhere(shop: Shop, person_id: int, key: str, token: str) -> None:
    """End one of one's own sign-ins by its key, or all others."""
    with shop.database.work() as work:
        sign_ins.end_sign_ins(work, person_id, key=key[:16], but=token if not key else "")
