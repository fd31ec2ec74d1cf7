"""Places that keep files by what is in them: the same content has one name, and a name's content never changes.

So a file is written before the row that names it, and a row that was rolled back leaves at most a file that nobody names.
"""

from __future__ import annotations

import hashlib
import io
import os
from collections.abc import Iterator
from pathlib import Path
from typing import Protocol
from urllib.parse import unquote, urlsplit

MARK = b"nematex-file:"


class FileMissing(RuntimeError):
    """A file that a row names is not where it was put."""


class Place(Protocol):
    """Keeps bytes under a name."""

    def put(self, name: str, content: bytes) -> None: ...

    def get(self, name: str) -> bytes:
        """Raises FileMissing."""
        ...

    def names(self) -> Iterator[str]: ...

    def remove(self, name: str) -> None: ...


class Folder:
    """A folder, on this machine or mounted; a file is whole as soon as it has its name."""

    def __init__(self, root: Path) -> None:
        self.root = root
        root.mkdir(parents=True, exist_ok=True)
        root.chmod(0o700)

    def _path(self, name: str) -> Path:
        return self.root / name[:2] / name

    def put(self, name: str, content: bytes) -> None:
        path = self._path(name)
        if path.exists():
            return
        path.parent.mkdir(exist_ok=True, mode=0o700)
        fresh = path.with_name(f"{name}.{os.getpid()}.{os.urandom(4).hex()}.new")
        with open(fresh, "xb", opener=lambda file, flags: os.open(file, flags, 0o600)) as out:
            out.write(content)
            out.flush()
            os.fsync(out.fileno())
        fresh.replace(path)

    def get(self, name: str) -> bytes:
        try:
            return self._path(name).read_bytes()
        except OSError as fault:
            raise FileMissing(f"file {name[:12]}… is not in {self.root}; restore a backup, or put the folder back") from fault

    def names(self) -> Iterator[str]:
        return (each.name for each in self.root.glob("??/*") if not each.name.endswith(".new"))

    def remove(self, name: str) -> None:
        self._path(name).unlink(missing_ok=True)


class Bucket:
    """A bucket of a store that speaks S3: s3://key:secret@host:port/bucket, or s3+http:// where there is no TLS."""

    def __init__(self, url: str) -> None:
        from minio import Minio

        parts = urlsplit(url)
        host = parts.hostname or ""
        self.bucket = parts.path.strip("/")
        self.client = Minio(
            f"{host}:{parts.port}" if parts.port else host,
            access_key=unquote(parts.username or ""),
            secret_key=unquote(parts.password or ""),
            secure=parts.scheme == "s3",
        )

    def put(self, name: str, content: bytes) -> None:
        self.client.put_object(self.bucket, name, io.BytesIO(content), len(content))

    def put_file(self, name: str, path: Path) -> None:
        """A file that may be too large to be held at once."""
        self.client.fput_object(self.bucket, name, str(path))

    def get(self, name: str) -> bytes:
        from minio.error import S3Error

        try:
            answer = self.client.get_object(self.bucket, name)
        except S3Error as fault:
            raise FileMissing(f"file {name[:12]}… is not in the bucket {self.bucket}") from fault
        try:
            return bytes(answer.read())
        finally:
            answer.close()
            answer.release_conn()

    def names(self) -> Iterator[str]:
        return (str(each.object_name) for each in self.client.list_objects(self.bucket, recursive=True))

    def remove(self, name: str) -> None:
        self.client.remove_object(self.bucket, name)


def open_place(setting: str) -> Place | None:
    """The place that a setting names: a folder's path or an S3 address; None for the database itself."""
    if not setting:
        return None
    return Bucket(setting) if setting.startswith(("s3://", "s3+http://")) else Folder(Path(setting).absolute())


def name_of(content: bytes) -> str:
    return hashlib.sha256(content).hexdigest()


def named_in(kept: bytes) -> str | None:
    """The name of the file that a row names; None where the row holds the content itself."""
    return kept[len(MARK) :].decode("ascii") if kept.startswith(MARK) else None
