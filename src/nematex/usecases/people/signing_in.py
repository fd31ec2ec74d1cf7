"""Signing in and out; how long a sign-in lasts."""

from __future__ import annotations

import secrets
from dataclasses import dataclass
from datetime import datetime, timedelta

from nematex.core.people.name import LONGEST_NAME
from nematex.core.people.password import LONGEST, PasswordFault
from nematex.core.people.waiting import wait_s
from nematex.store.database import Work
from nematex.store.people import sign_ins
from nematex.store.people.failures import note_failure
from nematex.store.people.persons import Person, Secrets, change_person, find_by_name, secrets_of
from nematex.store.people.sign_ins import SignIn
from nematex.usecases.held.shop import Shop
from nematex.usecases.people.codes import code_is_right
from nematex.usecases.people.hashing import hashed, is_old, is_right

IDLE = timedelta(hours=12)  # a day at the shop
LONGEST_SIGN_IN = timedelta(days=30)
PROOF_GOOD = timedelta(minutes=10)
SEEN_EVERY = timedelta(minutes=1)
TOKEN_BYTES = 32
# One text for every reason, so that nobody learns which names there are.
REFUSED = (
    "name or password is not right, or the phone's code is wanted and is not right. After three wrong tries a name waits a "
    "little before the next one counts, in the end a quarter of an hour"
)


@dataclass(frozen=True)
class Tried:
    """What was typed to sign in, and from where; `known`: they were let in from that browser before."""

    name: str
    password: str
    code: str = ""
    device: str = ""
    address: str = ""
    known: bool = False


class SignInRefused(PasswordFault):
    """Not let in; what was typed is not repeated."""

    def __init__(self) -> None:
        super().__init__("sign-in", REFUSED)


def _proved(work: Work, person: Person, kept: Secrets, tried: Tried, now: datetime) -> bool:
    """Whether password and code are right; counts a wrong try, and forgets wrong ones after a right one."""
    right = is_right(kept.password_hash, tried.password)
    if kept.waits_until and now < kept.waits_until and not tried.known:
        return False  # even a right one: else a machine would learn it by trying on
    assert person.id is not None
    if not right or (kept.code_secret and not code_is_right(work, person.id, kept, tried.code, now)):
        wait = wait_s(kept.failures + 1)
        change_person(work, person.id, failures=kept.failures + 1, waits_until=now + timedelta(seconds=wait) if wait else None)
        return False
    if kept.failures or kept.waits_until:
        change_person(work, person.id, failures=0, waits_until=None)
    if is_old(kept.password_hash):
        change_person(work, person.id, password_hash=hashed(tried.password))
    return True


def sign_in(shop: Shop, tried: Tried, now: datetime) -> str:
    """Let somebody in; returns the token of the sign-in. Raises SignInRefused."""
    token = ""
    if len(tried.password) <= LONGEST and len(tried.name) <= LONGEST_NAME * 4:
        with shop.database.work() as work:  # it ends well also where the try was wrong: the try counts
            found = find_by_name(work, " ".join(tried.name.split()), hold=True)
            if found is None:
                is_right("", tried.password)
            elif _proved(work, *found, tried, now):
                token = _let_in(work, found[0], tried, now)
            if not token:
                note_failure(work, found[0].id if found else None, tried.address, tried.device, now)
    if not token:
        raise SignInRefused
    return token


def _let_in(work: Work, person: Person, tried: Tried, now: datetime) -> str:
    token = secrets.token_urlsafe(TOKEN_BYTES)
    assert person.id is not None
    sign_ins.end_stale(work, now - IDLE, now - LONGEST_SIGN_IN)
    sign_ins.add_sign_in(work, token, person.id, tried.device, tried.address, now)
    return token


def let_in(shop: Shop, person: Person, device: str, address: str, now: datetime) -> str:
    """Sign somebody in who was proved another way."""
    with shop.database.work() as work:
        return _let_in(work, person, Tried(person.name, "", "", device, address), now)


def who_is(shop: Shop, token: str, now: datetime) -> tuple[SignIn, Person] | None:
    """Whose token this is; None where the sign-in was ended or has run out."""
    with shop.database.work() as work:
        found = sign_ins.find_sign_in(work, token)
        if found is None:
            return None
        signed, _ = found
        if now - signed.seen_at > IDLE or now - signed.begun_at > LONGEST_SIGN_IN:
            return None
        if now - signed.seen_at > SEEN_EVERY or now < signed.seen_at:
            sign_ins.note_seen(work, token, now)
        return found


def sign_out(shop: Shop, token: str) -> None:
    with shop.database.work() as work:
        sign_ins.end_sign_in(work, token)


def prove(shop: Shop, person: Person, token: str, tried: Tried, now: datetime) -> None:
    """Prove once more that it is they who sit there; raises SignInRefused."""
    good = False
    with shop.database.work() as work:
        kept = secrets_of(work, person.id) if person.id is not None else None
        if kept and len(tried.password) <= LONGEST and _proved(work, person, kept, tried, now):
            sign_ins.note_proved(work, token, now)
            good = True
    if not good:
        raise SignInRefused
