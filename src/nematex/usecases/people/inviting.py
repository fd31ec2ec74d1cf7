"""Links by which somebody new comes in, or who forgot a password gets a new one; each works once."""

from __future__ import annotations

import secrets
from datetime import datetime, timedelta

from nematex.core.errors import FieldFault, UnknownChoice
from nematex.core.people.name import read_name
from nematex.core.people.password import read_password
from nematex.core.people.rights import ROLES
from nematex.store.people import invitations, passkeys, persons, sign_ins
from nematex.store.people.invitations import Invitation
from nematex.store.people.persons import Person
from nematex.store.trail.who import acting
from nematex.usecases.held.shop import Shop
from nematex.usecases.people.hashing import hashed

GOOD_FOR = timedelta(days=3)
GOOD_FOR_PASSWORD = timedelta(hours=4)
MOST_PEOPLE = 500
TOKEN_BYTES = 24
NOBODYS = "cannot be made: nobody owns this shop yet. Make it yours first, by the address that ./nematex start prints"
GONE = "this link is not good any more: it works once, and for a few days. Ask for another"


def read_role(role: str) -> str:
    if role not in ROLES:
        raise UnknownChoice("role", role[:40], ROLES, "role")
    return role


def invite(shop: Shop, name: str, role: str, made_by: str, now: datetime) -> str:
    """Make a link for somebody new; returns what stands in it. Raises FieldFault."""
    called = read_name(name) if name.strip() else ""
    token = secrets.token_urlsafe(TOKEN_BYTES)
    with shop.database.work() as work:
        if not persons.any_person(work):
            raise FieldFault("invitation", called or "somebody", NOBODYS)
        if persons.how_many(work) >= MOST_PEOPLE:
            raise FieldFault("name", called, f"would be one too many: a shop has up to {MOST_PEOPLE} people")
        invited = Invitation("", called, read_role(role), None, made_by[:60], now, now + GOOD_FOR)
        invitations.add_invitation(work, token, invited)
    return token


def renew_password(shop: Shop, person_id: int, made_by: str, now: datetime) -> str:
    """Make a link by which somebody who is there sets a new password; their older ones are dead. Raises FieldFault."""
    token = secrets.token_urlsafe(TOKEN_BYTES)
    with shop.database.work() as work:
        found = persons.person(work, person_id)
        if found is None or found.ended_at:
            raise FieldFault("person", person_id, "is not among those who may sign in")
        invitations.withdraw(work, person_id=person_id)
        invited = Invitation("", found.name, found.role, person_id, made_by[:60], now, now + GOOD_FOR_PASSWORD)
        invitations.add_invitation(work, token, invited)
    return token


def invited(shop: Shop, token: str, now: datetime) -> Invitation | None:
    if len(token) > 100:
        return None
    with shop.database.work() as work:
        return invitations.invitation(work, token, now)


def accept(shop: Shop, token: str, name: str, password: str, now: datetime) -> Person:
    """Use a link up: make the person, or give them the new password and end where they were signed in. Raises FieldFault."""
    found = invited(shop, token, now)
    if found is None:
        raise FieldFault("link", "", GONE)
    called = found.name if found.person_id is not None else read_name(name or found.name)
    secret = hashed(read_password(password, (called, "nematex")))
    with acting(called), shop.database.work() as work:
        if invitations.invitation(work, token, now, take=True) is None:
            raise FieldFault("link", "", GONE)  # somebody else was quicker
        if found.person_id is None:
            person_id = persons.add_person(work, called, found.role, secret, now)
        else:
            person_id = found.person_id
            fresh = {"password_hash": secret, "failures": 0, "waits_until": None, "code_secret": "", "spare_codes": None}
            persons.change_person(work, person_id, **fresh)
            sign_ins.end_sign_ins(work, person_id)
            passkeys.remove_passkeys(work, person_id)  # whoever had got in may have left one
        made = persons.person(work, person_id)
        if made is None or made.ended_at:
            raise FieldFault("link", "", GONE)
        return made
