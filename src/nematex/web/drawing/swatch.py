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
