"""The file of a backup: a tar of shop.sql.gz (what mariadb-dump wrote), files/ (photos outside the database) and manifest.json.

The manifest says which program wrote it, the hash of each part, and how many rows each table has with what checksum.
"""

from __future__ import annotations

import hashlib
import io
import json
import tarfile
from collections.abc import Callable, Iterator
from dataclasses import asdict, dataclass, fields
from datetime import datetime
from pathlib import Path
from typing import Any

SQL, MANIFEST, FILES = "shop.sql.gz", "manifest.json", "files/"
FORMAT = 1
UNREADABLE = (OSError, EOFError, KeyError, ValueError, RecursionError, tarfile.TarError)
STAMP = "%Y%m%dT%H%M%S"


class BackupFault(RuntimeError):
    """A backup that cannot be made, read or trusted; the message says why and what to do."""


@dataclass(frozen=True)
class Manifest:
    """What a backup holds: table → [rows, checksum], file → SHA-256."""

    format: int
    program: str
    revision: str
    made_at: str
    tables: dict[str, list[int]]
    parts: dict[str, str]


def hash_of(path: Path) -> str:
    with open(path, "rb") as file:
        return hashlib.file_digest(file, "sha256").hexdigest()


def write(path: Path, manifest: Manifest, sql: Path, files: Iterator[tuple[str, bytes]]) -> None:
    """Write the archive under another name and give it its own when it is whole."""
    fresh = path.with_suffix(".new")
    parts = {SQL: hash_of(sql)}
    with tarfile.open(fresh, "w") as tar:
        tar.add(sql, SQL)
        for name, content in files:
            _add(tar, FILES + name, content)
            parts[FILES + name] = hashlib.sha256(content).hexdigest()
        told = asdict(manifest) | {"parts": parts}
        _add(tar, MANIFEST, json.dumps(told, indent=1).encode())
    fresh.chmod(0o600)
    fresh.replace(path)


def _add(tar: tarfile.TarFile, name: str, content: bytes) -> None:
    info = tarfile.TarInfo(name)
    info.size, info.mode, info.mtime = len(content), 0o600, int(datetime.now().timestamp())
    tar.addfile(info, io.BytesIO(content))


def read_manifest(path: Path) -> Manifest:
    """Raises BackupFault."""
    try:
        with tarfile.open(path) as tar:
            found = tar.extractfile(MANIFEST)
            told = json.loads(found.read()) if found else None
    except UNREADABLE as fault:
        raise BackupFault(f"{path}: is no backup of a shop, or is damaged ({fault}); take another") from fault
    if not isinstance(told, dict) or told.get("format") != FORMAT:
        raise BackupFault(f"{path}: was written by another Nematex, in a form that this one does not read")
    if not _is_manifest(told):
        raise BackupFault(f"{path}: does not say what it holds; the file is damaged, take another")
    return Manifest(**told)


def _is_manifest(told: dict[str, Any]) -> bool:
    texts = all(isinstance(told.get(name), str) for name in ("program", "revision", "made_at"))
    tables, parts = told.get("tables"), told.get("parts")
    if set(told) != {field.name for field in fields(Manifest)} or not isinstance(tables, dict) or not isinstance(parts, dict):
        return False
    counted = all(isinstance(each, list) and all(isinstance(one, int) for one in each) for each in tables.values())
    return texts and counted and all(isinstance(each, str) for each in parts.values())


def _parts(path: Path) -> Iterator[tuple[str, bytes]]:
    try:
        with tarfile.open(path) as tar:
            for member in tar:
                part = tar.extractfile(member) if member.name != MANIFEST else None
                if part:
                    yield member.name, part.read()
    except UNREADABLE as fault:
        raise BackupFault(f"{path}: cannot be read to its end ({fault}); the file is damaged, take another") from fault


def unpack(path: Path, folder: Path, keep_file: Callable[[str, bytes], None]) -> Path:
    """Check every part by its hash; hand the files over, and return where the SQL lies. Raises BackupFault."""
    manifest, seen = read_manifest(path), set()
    for name, content in _parts(path):
        found = hashlib.sha256(content).hexdigest()
        if manifest.parts.get(name) != found or name not in (SQL, FILES + found):  # a file is called by what is in it
            raise BackupFault(f"{path}: {name} is not what was written; the file is damaged, take another")
        seen.add(name)
        if name == SQL:
            (folder / SQL).write_bytes(content)
        else:
            keep_file(found, content)
    if seen != set(manifest.parts):
        lost = ", ".join(sorted(set(manifest.parts) - seen)[:5])
        raise BackupFault(f"{path}: lacks {lost}; the file is damaged, take another")
    return folder / SQL
