"""A price list as the worker understood it, as bytes for the web processes."""

from __future__ import annotations

import zlib
from dataclasses import replace

from pydantic import TypeAdapter

from nematex.store.records import Upload
from nematex.usecases.cloth.lists.preview import Preview

_ADAPTER = TypeAdapter(Preview)


def packed(found: Preview) -> bytes:
    """JSON, compressed; without the list itself, which is kept beside."""
    return zlib.compress(_ADAPTER.dump_json(replace(found, upload=replace(found.upload, content=b""))), 1)


def unpacked(content: bytes, upload: Upload) -> Preview:
    return replace(_ADAPTER.validate_json(zlib.decompress(content)), upload=upload)
