"""Zip archives that claim to be spreadsheets, looked at before anything is unpacked."""

from __future__ import annotations

import io
import zipfile

from nematex.core.errors import FieldFault

MAX_UNPACKED = 150 * 2**20
MAX_RATIO = 250  # honest sheets of numbers and words pack to a tenth or a thirtieth
MAX_PARTS = 2000


def is_archive(content: bytes) -> bool:
    return content[:4] == b"PK\x03\x04"


def parts_of(content: bytes, filename: str) -> list[zipfile.ZipInfo]:
    """What an archive holds; raises FieldFault where it is damaged or would unpack to too much."""
    try:
        with zipfile.ZipFile(io.BytesIO(content)) as archive:
            parts = archive.infolist()
    except (zipfile.BadZipFile, NotImplementedError):
        raise FieldFault("file", filename, "is a damaged spreadsheet or archive; save it again, or send it as CSV") from None
    unpacked = sum(part.file_size for part in parts)
    if len(parts) > MAX_PARTS or unpacked > MAX_UNPACKED or unpacked > MAX_RATIO * max(len(content), 1000):
        raise FieldFault(
            "file", filename, f"would unpack to {unpacked / 2**20:.0f} MB; at most {MAX_UNPACKED // 2**20} MB are opened"
        )
    if any(part.flag_bits & 1 for part in parts):
        raise FieldFault("file", filename, "is locked with a password; save it without one, or send it as CSV")
    return parts
