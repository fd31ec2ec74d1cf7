"""Photographs from outside: known by their content, capped in size, decoded safely, and kept without their metadata."""

from __future__ import annotations

import io
import threading
import warnings
from dataclasses import dataclass

import numpy as np
from PIL import Image, ImageFile, ImageOps, UnidentifiedImageError

from nematex.core.colour.difference import Array
from nematex.core.errors import FieldFault
from nematex.core.photo.palette import from_srgb
from nematex.core.quantity.reader import to_number

FORMATS = ("JPEG", "PNG", "WEBP")
MAX_BYTES = 25 * 2**20
# A JPEG is decoded at a half, a quarter or an eighth; the others only whole, at four bytes a pixel and more.
MAX_PIXELS = {"JPEG": 60_000_000, "PNG": 24_000_000, "WEBP": 24_000_000}
MOST_SCANS = 60  # of a progressive JPEG; cameras and editors write about ten
_one_at_a_time = threading.Lock()  # so that several photos at once do not take several times the memory
READ_PX = 1000  # enough for the analysis; it works on less
KEPT_PX = 1600
KINDS = ((b"\xff\xd8\xff", "JPEG"), (b"\x89PNG\r\n\x1a\n", "PNG"))
OTHERS = (
    (b"MZ", "a program"),
    (b"\x7fELF", "a program"),
    (b"PK\x03\x04", "an archive or a spreadsheet"),
    (b"%PDF", "a PDF"),
    (b"GIF8", "a GIF"),
    (b"<", "a drawing or a web page"),
    (b"BM", "a bitmap"),
)


@dataclass(frozen=True)
class Opened:
    """A picture in linear light (h, w, 3), and by how much its sides were reduced (1 = not at all)."""

    linear: Array
    reduced: float

    @property
    def width_px(self) -> float:
        """Width of the photo as sent."""
        return float(self.linear.shape[1] / self.reduced)

    def px_per_cm(self, typed: str, wide_cm: str) -> float:
        """The scale as it was given: px per cm, or how many cm the picture shows from left to right; raises FieldFault."""
        if typed.strip():
            return to_number(typed, "px per cm")
        if not wide_cm.strip():
            raise FieldFault("scale", "", "is missing; give px per cm, or how many cm the picture shows from left to right")
        wide = to_number(wide_cm, "cm from left to right")
        if not 1 <= wide <= 500:
            raise FieldFault("cm from left to right", wide_cm, "must lie between 1 and 500")
        return self.width_px / wide


def _kind(content: bytes) -> str:
    """The format by the first bytes, whatever the file is called; raises FieldFault."""
    if not content:
        raise FieldFault("photo", "the file", "is empty; choose a JPEG, PNG or WebP photo")
    if len(content) > MAX_BYTES:
        raise FieldFault("photo", f"{len(content) / 2**20:.0f} MB", f"is too large; at most {MAX_BYTES // 2**20} MB are read")
    for start, name in KINDS:
        if content.startswith(start):
            return name
    if content[:4] == b"RIFF" and content[8:12] == b"WEBP":
        return "WEBP"
    stripped = content[:400].lstrip(b"\xef\xbb\xbf \r\n\t")
    other = next((name for start, name in OTHERS if stripped.startswith(start)), "no picture that is known here")
    raise FieldFault("photo", "the file", f"is {other} by its content; send a JPEG, PNG or WebP photo")


def _image(content: bytes, least_px: int) -> tuple[Image.Image, int]:
    """The picture decoded to at least so many px, right way up, and the longest side of the file's in px; raises FieldFault."""
    kind = _kind(content)
    if kind == "JPEG" and content.count(b"\xff\xda") > MOST_SCANS:
        raise FieldFault("photo", "the file", f"is a JPEG of more than {MOST_SCANS} passes; save it again as a plain photo")
    with _one_at_a_time:
        return _decoded(content, kind, least_px)


def _decoded(content: bytes, kind: str, least_px: int) -> tuple[Image.Image, int]:
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("ignore", Image.DecompressionBombWarning)  # ours is stricter
            image = Image.open(io.BytesIO(content), formats=(kind,))
        if image.width * image.height > MAX_PIXELS[kind]:
            raise Image.DecompressionBombError
        longest = max(image.size)
        image.draft("RGB", (least_px, least_px))  # a large JPEG is decoded at a half, a quarter or an eighth
        ImageFile.LOAD_TRUNCATED_IMAGES = False  # the PDF library turns it on for the whole process
        image.load()
        upright = ImageOps.exif_transpose(image)
    except Image.DecompressionBombError as fault:
        raise FieldFault(
            "photo", "the picture", f"is too large; at most {MAX_PIXELS[kind] // 10**6} million pixels of a {kind} are read"
        ) from fault
    except (UnidentifiedImageError, OSError, SyntaxError, ValueError) as fault:
        raise FieldFault("photo", "the file", f"is cut off or damaged ({kind}); save the photo again and send that") from fault
    if upright.mode in ("RGBA", "LA", "PA", "P"):
        ground = Image.new("RGBA", upright.size, "white")
        upright = Image.alpha_composite(ground, upright.convert("RGBA"))
    return upright.convert("RGB"), longest


def open_photo(content: bytes) -> Opened:
    """A photo ready for analysis; a large one is reduced while it is read."""
    image, longest = _image(content, READ_PX)
    share = min(1.0, READ_PX / max(image.size))
    if share < 1:
        image = image.resize((round(image.width * share), round(image.height * share)), Image.Resampling.BOX)
    return Opened(from_srgb(np.asarray(image, dtype=np.uint8)), max(image.size) / longest)


@dataclass(frozen=True)
class Taken:
    """A photo as it is kept, by how much the sides were reduced for that, and that copy opened beside the photo as sent."""

    copy: bytes
    reduced: float
    opened: Opened


def taken(content: bytes) -> Taken:
    """A photo kept and opened; what is read of it is what is kept. A large one is decoded once; raises FieldFault."""
    copy, reduced = kept_copy(content)
    again = open_photo(copy)
    return Taken(copy, reduced, Opened(again.linear, again.reduced * reduced))


def kept_copy(content: bytes) -> tuple[bytes, float]:
    """The photo as it is kept, re-encoded as JPEG without metadata, and by how much its sides were reduced."""
    image, longest = _image(content, KEPT_PX)
    image.thumbnail((KEPT_PX, KEPT_PX), Image.Resampling.LANCZOS)
    out = io.BytesIO()
    image.info = {}  # a comment would be written again
    image.save(out, "JPEG", quality=88)
    return out.getvalue(), max(image.size) / longest
