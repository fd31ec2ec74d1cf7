"""A cloth drawn to scale from the data: ground and print in their colours, as a tile that repeats without a seam.

It is the cloth that the simulated camera photographs, so that its photo and its drawing agree. Lengths in cm.
"""

from __future__ import annotations

import zlib
from dataclasses import dataclass

from nematex.devices.made_swatch import MOTIFS, MadeCloth
from nematex.store.records import ClothRecord
from nematex.usecases.photo.made_up import made_up

PAPER = "#dcd6c8"
LEAST_TILE_CM = 40.0
PLAIN_CM, BORDER_CM = 10.0, 60.0  # the tile of a plain cloth; how far apart a border comes again on a garment
BORDER_AT_CM = 6.0
Band = tuple[float, float, str]  # from, width, colour


@dataclass(frozen=True)
class Stamp:
    """One motif: where its middle lies, how far it is turned in degrees, its size."""

    x: float
    y: float
    turn: float
    size: float


@dataclass(frozen=True)
class Tile:
    """A piece of width × height that repeats; `shapes` are a motif's parts at size 1: (path, colour)."""

    key: str
    width: float
    height: float
    ground: str
    stripes: tuple[Band, ...]
    bars: tuple[Band, ...]
    shapes: tuple[tuple[str, str], ...]
    stamps: tuple[Stamp, ...]


@dataclass(frozen=True)
class Swatch:
    """A piece of cloth of width × height, with its colours along the selvedge; without colours a blank that says so."""

    width: float
    height: float
    tile: Tile
    dots: tuple[str, ...]
    known: bool


def swatch(record: ClothRecord, width: float = 13.0, height: float = 9.0) -> Swatch:
    """The swatch of a cloth."""
    return Swatch(width, height, tile(record), record.colours[:5], bool(record.colours))


def tile(record: ClothRecord) -> Tile:
    """The print of a cloth."""
    cloth = made_up(record)
    colours = record.colours or (PAPER,)
    key = f"{zlib.crc32(record.code.encode()):x}"
    if cloth.warp or cloth.weft:
        warp, weft = _bands(cloth.warp, colours), _bands(cloth.weft, colours)
        across, along = (sum(width for _, width in bands) for bands in (cloth.warp, cloth.weft))
        across, along = across * _times(across) or PLAIN_CM, along * _times(along) or PLAIN_CM
        return Tile(key, across, along, colours[0], warp, weft, (), ())
    if not cloth.placed:
        return Tile(key, PLAIN_CM, PLAIN_CM, colours[0], (), (), (), ())
    width = cloth.repeat_width_cm or PLAIN_CM
    height = cloth.repeat_length_cm or BORDER_CM
    inks = colours[1:] or colours
    shapes = tuple((_path(outline), inks[ink % len(inks)]) for ink, outline in MOTIFS[cloth.placed[0].motif])
    bars: tuple[Band, ...] = ()
    if cloth.kind == "border":
        far = BORDER_AT_CM + cloth.placed[0].size * 0.7
        bars = ((far, height - far, colours[-1]),)
    return Tile(key, width, height, colours[0], (), bars, shapes, _stamps(cloth, width, height))


def _times(period: float) -> int:
    """How often bands stand in their tile: a tile of a few pixels is drawn as a blur."""
    return max(1, round(LEAST_TILE_CM / period)) if period else 1


def _bands(bands: tuple[tuple[int, float], ...], colours: tuple[str, ...]) -> tuple[Band, ...]:
    found, at = [], 0.0
    for number, width in bands * _times(sum(width for _, width in bands)):
        found.append((round(at, 2), round(width, 2), colours[number % len(colours)]))
        at += width
    return tuple(found)


def _stamps(cloth: MadeCloth, width: float, height: float) -> tuple[Stamp, ...]:
    """The motifs of the tile; one that reaches over an edge stands at the other edge as well."""
    down = BORDER_AT_CM if cloth.kind == "border" else 0.0
    return tuple(
        Stamp(round(x, 2), round(y, 2), round(each.turn), each.size)
        for each in cloth.placed
        for x in _again(each.x, width, each.size)
        for y in _again(each.y + down, height, each.size)
    )


def _again(at: float, period: float, size: float) -> list[float]:
    """Where a motif of the tile stands, and stands again beyond an edge that it reaches over."""
    reach = size * 0.65
    return [place for place in (at - period, at, at + period) if -reach < place < period + reach]


def _path(outline: list[tuple[float, float]]) -> str:
    """A closed path at size 1; of an ellipse every other point, which no eye misses."""
    points = outline[::2] if len(outline) > 20 else outline
    return "M" + "L".join(f"{x:.2f} {y:.2f}" for x, y in points) + "Z"
