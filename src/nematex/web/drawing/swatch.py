"""A swatch drawn to scale from the data: ground and print in their colours, the selvedge along one edge.

Positions are in cm, so that a template can draw the same swatch at any size beside a ruler.
"""

from __future__ import annotations

import zlib
from dataclasses import dataclass

from nematex.store.records import ClothRecord

PAPER = "#dcd6c8"
MOTIFS = ("sprig", "drop", "wave", "flag", "ring")
ONE_WAY_MOTIFS = ("sprig", "flag", "drop")


@dataclass(frozen=True)
class Motif:
    """One motif: where its middle lies (cm), its size (cm), its turn (degrees), its colour."""

    x: float
    y: float
    size: float
    turn: int
    colour: str


@dataclass(frozen=True)
class Swatch:
    """A piece of cloth of width × height cm."""

    width: float
    height: float
    ground: str
    dots: tuple[str, ...]
    stripes: tuple[tuple[float, float, str], ...]
    bars: tuple[tuple[float, float, str], ...]
    shape: str
    motifs: tuple[Motif, ...]
    known: bool


def _lines(length: float, scale: float, repeat: float, colours: tuple[str, ...]) -> tuple[tuple[float, float, str], ...]:
    found, at, turn = [], repeat / 4, 0
    while at < length:
        found.append((round(at, 2), round(min(scale, length - at), 2), colours[turn % len(colours)]))
        at, turn = at + repeat, turn + 1
    return tuple(found)


def _motifs(record: ClothRecord, width: float, height: float, colours: tuple[str, ...], seed: int) -> tuple[Motif, ...]:
    printed = record.facts.print
    size = printed.scale_cm or 2.0
    pitch = size * 1.9
    turns = {"one-way": (0,), "two-way": (0, 180), "all-over": (20, 140, 255, 75, 310)}.get(printed.direction or "", (0,))
    found, row = [], 0
    y = size * 0.55
    while y - size / 2 < height:
        x = size * 0.5 + (pitch / 2 if row % 2 else 0)
        column = 0
        while x - size / 2 < width:
            number = row * 3 + column + seed
            found.append(Motif(round(x, 2), round(y, 2), size, turns[number % len(turns)], colours[number % len(colours)]))
            x, column = x + pitch, column + 1
        y, row = y + pitch * 0.8, row + 1
    return tuple(found)


def swatch(record: ClothRecord, width: float = 13.0, height: float = 9.0) -> Swatch:
    """The swatch of a cloth; without colours a blank piece that says so."""
    ground, *others = record.colours or (PAPER,)
    colours = tuple(others) or (ground,)
    seed = zlib.crc32(record.code.encode())
    scale = record.facts.print.scale_cm or 1.0
    repeat = max(record.facts.print.repeat_width_cm or scale * 2, scale * 1.5)
    kind = record.print_kind if others else "solid"
    shapes = ONE_WAY_MOTIFS if record.facts.print.direction == "one-way" else MOTIFS
    lined = min(repeat, scale * 2.4)
    return Swatch(
        width,
        height,
        ground,
        (ground, *others)[:5],
        _lines(width, scale / 1.2, lined, colours) if kind in ("stripe", "check") else (),
        _lines(height, scale / 1.2, lined, colours) if kind == "check" else (),
        shapes[seed % len(shapes)],
        _motifs(record, width, height, colours, seed) if kind in ("motif", "border") else (),
        bool(record.colours),
    )


@dataclass(frozen=True)
class Tile:
    """A piece of print that repeats without a seam, in cm, to fill a garment with."""

    width: float
    height: float
    ground: str
    stripes: tuple[tuple[float, float, str], ...]
    bars: tuple[tuple[float, float, str], ...]
    shape: str
    motifs: tuple[Motif, ...]


COLUMNS, ROWS = 3, 4  # motifs of a tile


def tile(record: ClothRecord) -> Tile:
    """The same print as the swatch shows, as a tile: motifs that reach over an edge stand on both sides."""
    ground, *others = record.colours or (PAPER,)
    colours = tuple(others) or (ground,)
    seed, printed = zlib.crc32(record.code.encode()), record.facts.print
    scale = printed.scale_cm or 1.0
    kind = record.print_kind if others else "solid"
    shapes = ONE_WAY_MOTIFS if printed.direction == "one-way" else MOTIFS
    if kind in ("stripe", "check"):
        repeat = max(min(max(printed.repeat_width_cm or scale * 2, scale * 1.5), scale * 2.4) * len(colours), 0.4)
        lines = _lines(repeat, scale / 1.2, repeat / len(colours), colours)
        return Tile(repeat, repeat, ground, lines, lines if kind == "check" else (), "", ())
    if kind not in ("motif", "border"):
        return Tile(10.0, 10.0, ground, (), (), "", ())
    size = printed.scale_cm or 2.0
    pitch = size * 1.9
    width, height = COLUMNS * pitch, ROWS * pitch * 0.8
    turns = {"one-way": (0,), "two-way": (0, 180), "all-over": (20, 140, 255, 75, 310)}.get(printed.direction or "", (0,))
    found = []
    for row in range(ROWS):
        for column in range(COLUMNS):
            number = row * 3 + column + seed
            x, y = size * 0.5 + column * pitch + (pitch / 2 if row % 2 else 0), size * 0.55 + row * pitch * 0.8
            turn, colour = turns[number % len(turns)], colours[number % len(colours)]
            around = [(x + dx, y + dy) for dx in (-width, 0.0, width) for dy in (-height, 0.0, height)]
            reach = size / 2
            found += [
                Motif(round(a, 2), round(b, 2), size, turn, colour)
                for a, b in around
                if -reach < a < width + reach and -reach < b < height + reach
            ]
    return Tile(width, height, ground, (), (), shapes[seed % len(shapes)], tuple(found))
