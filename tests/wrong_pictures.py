"""Files that are no photo, each under a word of the message that refuses it."""

from __future__ import annotations

import io
import struct
import zlib

import numpy as np
from PIL import Image


def png(width: int, height: int) -> bytes:
    """A tiny file that claims to be a huge picture."""

    def chunk(kind: bytes, data: bytes) -> bytes:
        return struct.pack(">I", len(data)) + kind + data + struct.pack(">I", zlib.crc32(kind + data))

    head = struct.pack(">IIBBBBB", width, height, 8, 2, 0, 0, 0)
    return b"\x89PNG\r\n\x1a\n" + chunk(b"IHDR", head) + chunk(b"IDAT", zlib.compress(b"\0" * 1000)) + chunk(b"IEND", b"")


def jpeg(**more: object) -> bytes:
    out = io.BytesIO()
    Image.fromarray(np.random.default_rng(0).integers(0, 255, (300, 400, 3), dtype=np.uint8)).save(out, "JPEG", **more)
    return out.getvalue()


WRONG = {
    "a drawing": b'<svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script></svg>',
    "a program": b"MZ" + b"\0" * 500,
    "million pixels": png(40_000, 40_000),
    "cut off or damaged": jpeg()[:9000],
    "a spreadsheet": b"PK\x03\x04" + b"\0" * 300,
    "is empty": b"",
    "a GIF": b"GIF89a" + b"\0" * 100,
}
