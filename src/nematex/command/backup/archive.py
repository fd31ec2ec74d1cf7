"""The file of a backup: a tar of manifest.json, manifest.mac, rows/<table>.jsonl.gz and files/<sha256> (photos kept outside).

It is read, never executed: a part is only taken under a name that the manifest gives, with the size and the hash that it
gives, as a plain file; and the manifest is believed where its MAC was made with the shop's own key. What another shop wrote
can be told from what was changed: the MAC names its key.
"""

from __future__ import annotations

import hashlib
import hmac
import io
import json
import re
import tarfile
from collections.abc import Iterator
from datetime import datetime
from pathlib import Path
from typing import IO, Annotated

from pydantic import BaseModel, ConfigDict, Field, ValidationError

from nematex.core.errors import NematexError

MANIFEST, MAC, ROWS, FILES, LINES = "manifest.json", "manifest.mac", "rows/", "files/", ".jsonl.gz"
FORMAT = 2
STAMP = "%Y%m%dT%H%M%S"
CHUNK = 2**20
LARGEST_MANIFEST, LARGEST_MAC = 64 * 2**20, 1000  # a photo is a line of about a hundred letters
LARGEST_FILE = 64 * 2**20  # a photo is at most a part of this
UNREADABLE = (OSError, EOFError, KeyError, ValueError, OverflowError, RecursionError, MemoryError, tarfile.TarError)
DAMAGED = "the file is damaged or was changed; take another"


class BackupFault(NematexError, RuntimeError):
    """A backup that cannot be made, read or trusted; the message says why and what to do."""


class NotProved(BackupFault):
    """What was read from the database does not make a shop of its revision: its tables are half changed."""


class AnotherShops(BackupFault):
    """A backup whose MAC is of another key: of another shop, or of this one before its key was lost."""


class _Told(BaseModel):
    model_config = ConfigDict(strict=True, extra="forbid", frozen=True)


Hash = Annotated[str, Field(pattern=r"^[0-9a-f]{64}$")]
Count = Annotated[int, Field(ge=0, le=2**53)]


class TableTold(_Told):
    """Of a table: its rows, the bytes of their lines, the hash of these, the next number; and size and hash of its part."""

    rows: Count
    size: Count
    sha256: Hash
    next: Annotated[int, Field(ge=0, le=2**63 - 1)] | None
    part_size: Count
    part_sha256: Hash


class Manifest(_Told):
    """What a backup holds."""

    format: int
    program: Annotated[str, Field(max_length=40)]
    revision: Annotated[str, Field(pattern=r"^[0-9A-Za-z_]{1,32}$")]
    made_at: Annotated[str, Field(pattern=r"^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d$")]
    tables: dict[Annotated[str, Field(pattern=r"^[a-z_]{1,60}$")], TableTold]
    files: dict[Hash, Count]

    def parts(self) -> dict[str, tuple[int, str]]:
        """The name of each part → its size and hash."""
        rows = {f"{ROWS}{name}{LINES}": (one.part_size, one.part_sha256) for name, one in self.tables.items()}
        return rows | {FILES + name: (size, name) for name, size in self.files.items()}


def hash_of(path: Path) -> str:
    with open(path, "rb") as file:
        return hashlib.file_digest(file, "sha256").hexdigest()


def _mac(content: bytes, key: bytes) -> bytes:
    named = hashlib.sha256(b"nematex backup key" + key).hexdigest()[:16]  # says which key, and nothing of it
    return json.dumps({"key": named, "mac": hmac.new(key, content, "sha256").hexdigest()}).encode()


def write(path: Path, manifest: Manifest, rows: Path, files: Iterator[tuple[str, bytes]], key: bytes) -> None:
    """Write the archive; `rows` is the folder in which its tables' parts lie, and what it says of files is made here."""
    kept = {}
    with tarfile.open(path, "w", format=tarfile.PAX_FORMAT) as tar:
        for name in manifest.tables:
            part = rows / f"{name}{LINES}"
            tar.add(part, f"{ROWS}{part.name}", filter=_plain)
        for name, content in files:
            _add(tar, FILES + name, content)
            kept[name] = len(content)
        told = manifest.model_copy(update={"files": kept}).model_dump_json(indent=1).encode()
        _add(tar, MANIFEST, told)
        _add(tar, MAC, _mac(told, key))
    path.chmod(0o600)


def _plain(info: tarfile.TarInfo) -> tarfile.TarInfo:
    info.uid = info.gid = 0
    info.uname = info.gname = ""
    info.mode = 0o600
    return info


def _add(tar: tarfile.TarFile, name: str, content: bytes) -> None:
    info = tarfile.TarInfo(name)
    info.size, info.mode, info.mtime = len(content), 0o600, int(datetime.now().timestamp())
    tar.addfile(info, io.BytesIO(content))


def members(path: Path) -> Iterator[tuple[tarfile.TarInfo, IO[bytes]]]:
    """The archive's plain files, one after the other; raises BackupFault for anything else."""
    try:
        with tarfile.open(path, "r:") as tar:  # without compression: a member is no larger than the file
            for member in tar:
                content = tar.extractfile(member) if member.isreg() and not member.issparse() else None
                if content is None:
                    raise BackupFault(f"{path}: {member.name[:60]!r} is no plain file; {DAMAGED}")
                yield member, content
    except UNREADABLE as fault:
        if isinstance(fault, BackupFault):
            raise
        raise BackupFault(f"{path}: is no backup of a shop, or is damaged ({str(fault)[:120]}); take another") from fault


def _small(path: Path, name: str, most: int) -> bytes | None:
    for member, content in members(path):
        if member.name == name:
            if member.size > most:
                raise BackupFault(f"{path}: {name} is larger than any that was written; {DAMAGED}")
            return read_all(path, content, most)
    return None


def read_all(path: Path, content: IO[bytes], most: int) -> bytes:
    """A small part; raises BackupFault."""
    try:
        return content.read(most)
    except UNREADABLE as fault:
        raise BackupFault(f"{path}: cannot be read to its end ({str(fault)[:120]}); {DAMAGED}") from fault


def copy(path: Path, content: IO[bytes], to: Path) -> str:
    """Copy a part into a new file; returns its hash. Raises BackupFault."""
    found = hashlib.sha256()
    try:
        with open(to, "xb") as out:
            while chunk := content.read(CHUNK):
                found.update(chunk)
                out.write(chunk)
    except UNREADABLE as fault:
        raise BackupFault(f"{path}: cannot be read to its end ({str(fault)[:120]}); {DAMAGED}") from fault
    return found.hexdigest()


def read_manifest(path: Path) -> Manifest:
    """What it says of itself, whoever wrote it. Raises BackupFault."""
    return _read(path, _content(path))


def _content(path: Path) -> bytes:
    if (content := _small(path, MANIFEST, LARGEST_MANIFEST)) is None:
        raise BackupFault(f"{path}: does not say what it holds; {DAMAGED}")
    return content


def _read(path: Path, content: bytes) -> Manifest:
    if (number := re.search(rb'"format":\s*(\d{1,9})', content[:200])) and int(number[1]) != FORMAT:
        earlier = "; it holds SQL, which is not run any more: put it back with the Nematex that wrote it, then start this one"
        raise BackupFault(
            f"{path}: was written by another Nematex, in form {int(number[1])}; this one reads form {FORMAT}"
            + (earlier if int(number[1]) < FORMAT else "")
        )
    try:
        return Manifest.model_validate_json(content)
    except (ValidationError, RecursionError) as fault:
        raise BackupFault(f"{path}: does not say what it holds in words of a backup; {DAMAGED}") from fault


def trusted(path: Path, key: bytes) -> Manifest:
    """The manifest, if this shop's own key vouches for it; raises AnotherShops where another's may, else BackupFault."""
    content, mac = _content(path), _small(path, MAC, LARGEST_MAC) or b""
    told, wanted = _read(path, content), _mac(content, key)
    if hmac.compare_digest(mac, wanted):
        return told
    if json.loads(wanted)["key"].encode() in mac:
        raise BackupFault(f"{path}: is not as this shop wrote it; {DAMAGED}")
    raise AnotherShops(
        f"{path}: was not written by this shop, or by this shop with a key that is lost. Whoever wrote it decides what stands "
        "in the shop, and who may sign in to it"
    )


def unpack(path: Path, manifest: Manifest, folder: Path) -> None:
    """Put every part into the folder, held against size and hash while it comes. Raises BackupFault.

    Afterwards folder/rows and folder/files hold what the manifest names and nothing else.
    """
    wanted = manifest.parts()
    for name in (ROWS, FILES):
        (folder / name).mkdir()
    for member, content in members(path):
        if member.name in (MANIFEST, MAC):
            continue
        size, digest = wanted.pop(member.name, (-1, ""))
        if member.size != size or (member.name.startswith(FILES) and size > LARGEST_FILE):
            raise BackupFault(f"{path}: {member.name[:60]!r} is not what was written; {DAMAGED}")
        if copy(path, content, folder / member.name) != digest:
            raise BackupFault(f"{path}: {member.name} is not what was written; {DAMAGED}")
    if wanted:
        raise BackupFault(f"{path}: lacks {', '.join(sorted(wanted)[:5])}; {DAMAGED}")
