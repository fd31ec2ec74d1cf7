"""A second proof: six digits that a phone reckons from a secret and the time (RFC 6238), and spare codes for a lost phone."""

from __future__ import annotations

import hashlib
import secrets
from datetime import datetime

import pyotp

from nematex.core.errors import FieldFault
from nematex.core.people.password import PasswordFault
from nematex.store.database import Work
from nematex.store.people.persons import Secrets, change_person, secrets_of
from nematex.usecases.held.shop import Shop

STEP_S = 30
STEPS_EITHER_WAY = 1  # a phone's clock may be half a minute off
SPARE_CODES = 8


def new_secret() -> str:
    return pyotp.random_base32()


def address_of(secret: str, name: str, shop_name: str) -> str:
    """What a phone's program reads from the picture."""
    return pyotp.TOTP(secret).provisioning_uri(name=name, issuer_name=f"Nematex, {shop_name}")


def _step_of(secret: str, code: str, now: datetime) -> int | None:
    """The step of time whose code this is."""
    at = int(now.timestamp()) // STEP_S
    steps = range(at - STEPS_EITHER_WAY, at + STEPS_EITHER_WAY + 1)
    made = pyotp.TOTP(secret)
    return next((step for step in steps if secrets.compare_digest(made.at(step * STEP_S), code)), None)


def _spare(code: str) -> str:
    return hashlib.sha256(code.replace("-", "").casefold().encode()).hexdigest()


def code_is_right(work: Work, person_id: int, kept: Secrets, typed: str, now: datetime) -> bool:
    """Whether this code is good, which it is once: a code that was used, or one before it, is not good again."""
    code = "".join(typed.split())[:40]
    if not code.isascii():
        return False
    step = _step_of(kept.code_secret, code, now)
    if step is not None and step > kept.code_step:
        change_person(work, person_id, code_step=step)
        return True
    if _spare(code) in kept.spare_codes:
        change_person(work, person_id, spare_codes=[each for each in kept.spare_codes if each != _spare(code)])
        return True
    return False


def start_code(shop: Shop, person_id: int, secret: str, typed: str, now: datetime) -> list[str]:
    """From now on ask for the phone's code too, once it has shown that it knows the secret; returns the spare codes."""
    step = _step_of(secret, "".join(typed.split())[:40], now) if typed.isascii() else None
    if step is None:
        raise FieldFault(
            "code", typed[:20] or "nothing", "is not the code of this moment; read it off the phone again, six digits"
        )
    spare = [f"{secrets.token_hex(3)}-{secrets.token_hex(3)}" for _ in range(SPARE_CODES)]
    with shop.database.work() as work:
        change_person(work, person_id, code_secret=secret, code_step=step, spare_codes=[_spare(each) for each in spare])
    return spare


def stop_code(shop: Shop, person_id: int, typed: str, now: datetime) -> None:
    """Ask for no code any more; a last one proves that it is theirs to say."""
    with shop.database.work() as work:
        kept = secrets_of(work, person_id)
        if not kept or not code_is_right(work, person_id, kept, typed, now):
            raise PasswordFault("code", "is not the code of this moment, nor a spare one; nothing was changed")
        change_person(work, person_id, code_secret="", code_step=0, spare_codes=None)
