"""What `./nematex backup` and `./nematex restore` say and do."""

from __future__ import annotations

import os
import sys
from datetime import datetime
from pathlib import Path

from nematex.command.backup.archive import BackupFault, read_manifest
from nematex.command.backup.making import folder_of, let_old_go, make
from nematex.command.backup.restoring import restore_here, restore_there
from nematex.command.service.database import database_url, stop_database
from nematex.command.service.state import home, web_runs


def run_backup(folder: str) -> int:
    """Write a proved backup and print its name."""
    where = Path(folder).absolute() if folder else folder_of(home())
    try:
        path = make(database_url(), where, datetime.now())
    except BackupFault as fault:
        print(f"nematex: {fault}", file=sys.stderr)
        return 1
    told = read_manifest(path)
    rows = sum(held[0] for held in told.tables.values())
    print(f"{path}")
    print(f"{path.stat().st_size / 2**20:.1f} MB: {rows} rows of {len(told.tables)} tables, put back once and found the same.")
    if not folder:
        for gone in let_old_go(where):
            print(f"let go of {gone.name}")
        print("It lies on the disk of the shop itself: copy it elsewhere, or set NEMATEX_BACKUPS to a folder on another disk.")
    return 0


def run_restore(file: str, replace: bool) -> int:
    """Make a backup the shop of this folder."""
    path = Path(file)
    given = os.environ.get("DATABASE_URL")
    try:
        told = read_manifest(path)
        if given:
            restore_there(path, database_url())
        else:
            if web_runs():
                raise BackupFault("the shop is running; run ./nematex stop first")
            if (home() / "mariadb").exists() and not replace:
                raise BackupFault("there is a shop in this folder; say --replace to put the backup in its place")
            stop_database()
            before = restore_here(path, home())
            if before:
                print(f"The shop of before lies in {before}; nothing of it was removed.")
    except (BackupFault, RuntimeError) as fault:
        print(f"nematex: {fault}", file=sys.stderr)
        return 1
    print(f"The shop is as it was on {told.made_at.replace('T', ' at ')}. Run ./nematex start.")
    return 0
