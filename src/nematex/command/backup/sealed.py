"""A backup behind a passphrase: a tar of key.age and shop.tar.age, both in the open format age.

key.age holds a key made for this backup, sealed by the passphrase; shop.tar.age is the backup, sealed by that key, piece by
piece, so that its size does not matter. Any program that reads age opens both, without Nematex.
"""

from __future__ import annotations

import os
import tarfile
from pathlib import Path

import pyrage

from nematex.command.backup.archive import DAMAGED, UNREADABLE, BackupFault, copy, members, read_all

KEY, CONTENT = "key.age", "shop.tar.age"
LARGEST_KEY = 4000
SHORTEST_PASSPHRASE, LONGEST_PASSPHRASE = 12, 1000
SETTING = "NEMATEX_BACKUP_PASSPHRASE_FILE"


def passphrase() -> str:
    """What stands in the first line of the file that the environment names; "" where it names none. Raises BackupFault."""
    given = os.environ.get(SETTING, "")
    if not given:
        return ""
    try:
        with open(given, encoding="utf-8") as file:
            found = file.readline(LONGEST_PASSPHRASE + 2).strip()
    except (OSError, ValueError) as fault:
        raise BackupFault(
            f"{SETTING}: {given} cannot be read ({fault}); name a file whose first line is the passphrase"
        ) from fault
    if not SHORTEST_PASSPHRASE <= len(found) <= LONGEST_PASSPHRASE:
        raise BackupFault(
            f"{SETTING}: the first line of {given} has {len(found)} letters; a passphrase has {SHORTEST_PASSPHRASE} to "
            f"{LONGEST_PASSPHRASE}. Without it nobody opens the backup again, so keep it elsewhere too"
        )
    return found


def seal(plain: Path, path: Path, word: str) -> None:
    """Write the sealed form of a backup."""
    made = pyrage.x25519.Identity.generate()
    key, content = path.with_suffix(".key"), path.with_suffix(".content")
    try:
        key.write_bytes(pyrage.passphrase.encrypt(str(made).encode(), word))
        with open(plain, "rb") as given, open(content, "wb") as out:
            pyrage.encrypt_io(given, out, [made.to_public()])
        with tarfile.open(path, "w") as tar:
            tar.add(key, KEY)
            tar.add(content, CONTENT)
        path.chmod(0o600)
    finally:
        for each in (key, content):
            each.unlink(missing_ok=True)


def is_sealed(path: Path) -> bool:
    """Whether its first part is a sealed key. Raises BackupFault for what is no tar."""
    return next((member.name == KEY for member, _ in members(path)), False)


def unseal(path: Path, folder: Path, word: str) -> Path:
    """Open it into the folder; returns the backup. Raises BackupFault."""
    sealed, found = folder / CONTENT, folder / "opened.tar"
    identity = None
    for member, content in members(path):
        if member.name == KEY and member.size <= LARGEST_KEY and identity is None:
            identity = _opened(path, read_all(path, content, LARGEST_KEY), word)
        elif member.name == CONTENT and not sealed.exists():
            copy(path, content, sealed)
        else:
            raise BackupFault(f"{path}: {member.name[:60]!r} is no part of a sealed backup; {DAMAGED}")
    if identity is None or not sealed.exists():
        raise BackupFault(f"{path}: lacks {CONTENT}; {DAMAGED}")
    try:
        with open(sealed, "rb") as given, open(found, "xb") as plain:
            pyrage.decrypt_io(given, plain, [identity])
    except (pyrage.DecryptError, *UNREADABLE) as fault:
        raise BackupFault(f"{path}: cannot be opened to its end ({str(fault)[:120]}); {DAMAGED}") from fault
    sealed.unlink()
    return found


def _opened(path: Path, key: bytes, word: str) -> pyrage.x25519.Identity:
    try:
        return pyrage.x25519.Identity.from_str(pyrage.passphrase.decrypt(key, word).decode())
    except (pyrage.DecryptError, pyrage.IdentityError, ValueError) as fault:
        raise BackupFault(f"{path}: this passphrase does not open it; try it once more, letter by letter") from fault
