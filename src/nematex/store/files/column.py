"""A column of bytes whose content lies in the place for files, where there is one; rows of before keep theirs."""

from __future__ import annotations

import os
from functools import cache
from typing import Any

from sqlalchemy import LargeBinary
from sqlalchemy.dialects.mysql import LONGBLOB
from sqlalchemy.types import TypeDecorator

from nematex.store.files.places import MARK, FileMissing, Place, name_of, named_in, open_place

SETTING = "NEMATEX_FILES"


@cache
def _opened(setting: str) -> Place | None:
    return open_place(setting)


def place() -> Place | None:
    """The place that the environment names."""
    return _opened(os.environ.get(SETTING, ""))


class KeptBytes(TypeDecorator[bytes]):
    """Bytes that may lie outside the database; who reads and writes them does not notice."""

    impl = LONGBLOB
    cache_ok = True

    def process_bind_param(self, value: bytes | None, dialect: Any) -> bytes | None:  # noqa: ARG002
        where = place()
        if value is None or where is None or not value:
            return value
        name = name_of(value)
        where.put(name, value)
        return MARK + name.encode()

    def process_result_value(self, value: bytes | None, dialect: Any) -> bytes | None:  # noqa: ARG002
        name = named_in(value) if value else None
        if name is None:
            return value
        where = place()
        if where is None:
            raise FileMissing(f"file {name[:12]}… lies outside the database, and {SETTING} does not say where")
        return where.get(name)

    @property
    def python_type(self) -> type[bytes]:
        return bytes


def is_bytes(column_type: object) -> bool:
    """Whether a column holds bytes and no text."""
    return isinstance(column_type, LargeBinary | LONGBLOB | KeptBytes)
