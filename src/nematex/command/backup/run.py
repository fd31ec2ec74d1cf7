"""What `./nematex backup` and `./nematex restore` say and do."""

from __future__ import annotations

import getpass
import os
import sys
from datetime import datetime
from pathlib import Path

from nematex.command.backup import sealed
from nematex.command.backup.archive import AnotherShops, BackupFault
from nematex.command.backup.making import folder_of, let_old_go, make
from nematex.command.backup.restoring import opened, restore_here, restore_there
from nematex.command.service.database import database_url, stop_database
from nematex.command.service.keys import backup_key
from nematex.command.service.state import home, web_runs
from nematex.usecases.people.clean_cut import ComeBack

YES = "yes"


def run_backup(folder: str) -> int:
    """Write a proved backup and print its name."""
    where = Path(folder).absolute() if folder else folder_of(home())
    try:
        path = make(database_url(), where, datetime.now(), backup_key())
    except BackupFault as fault:
        print(f"nematex: {fault}", file=sys.stderr)
        return 1
    print(f"{path}")
    how = (
        "sealed by the passphrase" if sealed.is_sealed(path) else f"not sealed; {sealed.SETTING} names a file with a passphrase"
    )
    print(f"{path.stat().st_size / 2**20:.1f} MB, put back once and found the same; {how}.")
    if not folder:
        for gone in let_old_go(where):
            print(f"let go of {gone.name}")
        if not os.environ.get("NEMATEX_BACKUPS") and not os.environ.get("NEMATEX_BACKUPS_TOO"):
            print("It lies on the disk of the shop itself: copy it elsewhere, or name another place: NEMATEX_BACKUPS_TOO.")
    return 0


def run_restore(file: str, replace: bool, another_shops: bool) -> int:
    """Make a backup the shop of this folder."""
    path = Path(file)
    try:
        _may_be_here(replace)
        word = _passphrase(path)
        try:
            told, back = _restored(path, word, another_shops)
        except AnotherShops as fault:
            if not _they_say_yes(fault):
                raise
            told, back = _restored(path, word, another_shops=True)
    except RuntimeError as fault:
        print(f"nematex: {fault}", file=sys.stderr)
        return 1
    _say(back)
    print(f"The shop is as it was on {told.replace('T', ' at ')}. Run ./nematex start.")
    return 0


def _may_be_here(replace: bool) -> None:
    if os.environ.get("DATABASE_URL"):
        return
    if web_runs():
        raise BackupFault("the shop is running; run ./nematex stop first")
    if (home() / "mariadb").exists() and not replace:
        raise BackupFault("there is a shop in this folder; say --replace to put the backup in its place")


def _passphrase(path: Path) -> str:
    given = sealed.passphrase()
    if not given and sys.stdin.isatty() and sealed.is_sealed(path):
        return getpass.getpass("The passphrase of this backup: ")
    return given


def _restored(path: Path, word: str, another_shops: bool) -> tuple[str, ComeBack]:
    with opened(path, backup_key(), word, another_shops, home()) as found:
        if os.environ.get("DATABASE_URL"):
            return found[0].made_at, restore_there(found, database_url())
        stop_database()
        before, back = restore_here(found, home())
        if before:
            print(f"The shop of before lies in {before}; nothing of it was removed.")
        return found[0].made_at, back


def _they_say_yes(fault: AnotherShops) -> bool:
    if not sys.stdin.isatty():
        print("nematex: say --of-another-shop if you know who wrote it, and want what they wrote.", file=sys.stderr)
        return False
    print(fault)
    return input(f'Put it back all the same? Type "{YES}": ').strip().lower() == YES


def _say(back: ComeBack) -> None:
    print("Every sign-in, invitation, remote and public link has ended: people sign in again, and links are given out anew.")
    for person in back.people:
        code = ", with the phone's code" if person.has_code else ""
        print(f"  {person.name} may sign in again as {person.role}, with the password of then{code}.")
    if back.people:
        print("Whoever has left since is among them again: end them under People.")
