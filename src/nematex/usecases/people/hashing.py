"""Passwords as they are kept: Argon2id, with the parameters that argon2-cffi recommends (RFC 9106, low memory)."""

from __future__ import annotations

from functools import cache

from argon2 import PasswordHasher
from argon2.exceptions import InvalidHashError, VerificationError

_hasher = PasswordHasher()


def hashed(password: str) -> str:
    return _hasher.hash(password)


@cache
def _nobodys() -> str:
    return hashed("a password that nobody has")


def is_right(kept: str, password: str) -> bool:
    """Whether this is the password of a kept hash; without one, it takes as long to say no."""
    try:
        return _hasher.verify(kept or _nobodys(), password) and bool(kept)
    except (VerificationError, InvalidHashError):
        return False


def is_old(kept: str) -> bool:
    """Whether it was hashed with weaker parameters than are used now."""
    return _hasher.check_needs_rehash(kept)
