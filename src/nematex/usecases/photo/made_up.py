"""A made-up cloth to photograph that is true to what the shelf says of one: its colours, kind, repeats and direction."""

from __future__ import annotations

import zlib

import numpy as np

from nematex.core.colour.difference import read_hex
from nematex.devices.camera import USUAL, Photo, photograph
from nematex.devices.made_swatch import EVEN, POINTED, MadeCloth, bordered, checked, printed, striped
from nematex.store.records import ClothRecord

GREY = (214, 208, 196)
PX_PER_CM = 24.0
LEAST_CM, MOST_CM = 20.0, 60.0


def made_up(record: ClothRecord) -> MadeCloth:
    """The cloth as the generator draws it."""
    colours = tuple(read_hex(each) for each in record.colours) or (GREY,)
    given, kind = record.facts.print, record.print_kind
    if len(colours) == 1 or kind in ("", "solid"):
        return MadeCloth("solid", "none", colours[:1])
    seed = zlib.crc32(record.code.encode())
    size = given.scale_cm or 2.0
    length, width = given.repeat_length_cm or size * 3, given.repeat_width_cm or size * 3
    if kind in ("stripe", "check"):
        period = given.repeat_width_cm or given.repeat_length_cm or size * 2
        bands = tuple((at, period / len(colours)) for at in range(len(colours)))
        return striped(colours, bands) if kind == "stripe" else checked(colours, bands, bands)
    pool = POINTED if given.direction == "one-way" else (*POINTED, *EVEN)
    motif = pool[seed % len(pool)]
    if kind == "border":
        return bordered(colours, motif, width, size, 12.0)
    direction = given.direction if given.direction in ("one-way", "two-way", "all-over") else "one-way"
    return printed(direction, colours, (motif,), length, width, size, seed)


def made_up_photo(record: ClothRecord, seed: int) -> Photo:
    """A photo that shows at least two repeats where 60 cm hold them."""
    cloth = made_up(record)
    longest = max(cloth.repeat_length_cm or 0, cloth.repeat_width_cm or 0)
    side = float(np.clip(2.4 * longest, LEAST_CM, MOST_CM))
    px_per_cm = min(PX_PER_CM, 1200 / side)
    return photograph(
        cloth, side, side * 0.75 if longest < LEAST_CM / 3 else side, px_per_cm, USUAL, np.random.default_rng(seed)
    )
