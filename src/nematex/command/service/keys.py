"""Secrets of the shop, made once and readable by its owner alone."""

from __future__ import annotations

import secrets

from nematex.command.service.state import home


def session_key() -> str:
    """The key that signs sessions, made once and readable by the owner alone."""
    path = home() / "session-key"
    if not path.exists() or not path.read_text().strip():
        path.touch(mode=0o600)
        path.write_text(secrets.token_hex(32))
    return path.read_text()


def backup_key() -> bytes:
    """The key with which this shop vouches for its backups. It does not travel with them."""
    path = home() / "backup-key"
    if not path.exists() or not path.read_text().strip():
        path.touch(mode=0o600)
        path.write_text(secrets.token_hex(32))
    return path.read_text().strip().encode()


def set_up_code() -> str:
    """What whoever makes the owner must know: only this machine's user can read it."""
    path = home() / "set-up-code"
    if not path.exists() or not path.read_text().strip():
        path.touch(mode=0o600)
        path.write_text(secrets.token_urlsafe(12))
    return path.read_text().strip()
