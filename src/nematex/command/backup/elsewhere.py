"""A second place for backups: NEMATEX_BACKUPS_TOO names a folder (another disk, a mounted share) or an S3 address."""

from __future__ import annotations

import os
import shutil
from pathlib import Path

from nematex.command.backup.archive import BackupFault
from nematex.store.files.places import Bucket

SETTING = "NEMATEX_BACKUPS_TOO"


def send(path: Path) -> str:
    """Copy a backup there, if there is one; returns where it lies now. Raises BackupFault: the first copy stays."""
    where = os.environ.get(SETTING, "")
    if not where:
        return ""
    try:
        if where.startswith(("s3://", "s3+http://")):
            Bucket(where).put_file(path.name, path)
            return f"{where.rpartition('@')[2]}/{path.name}"
        folder = Path(where)
        folder.mkdir(parents=True, exist_ok=True, mode=0o700)
        fresh = folder / f"{path.name}.new"
        shutil.copyfile(path, fresh)
        fresh.chmod(0o600)
        fresh.replace(folder / path.name)
        return str(folder / path.name)
    except Exception as fault:  # whatever the other end's library raises; the backup itself is made
        raise BackupFault(f"{SETTING}: {path.name} was made, and could not be copied there ({str(fault)[:200]})") from fault
