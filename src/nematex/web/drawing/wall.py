"""A set as a wall: garments drawn in their cloths, all at one scale, each at the height at which it is worn.

Laid out for a picture of so many pixels: rows on floor lines, captions beneath. The scale is the largest at which all fit.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from nematex.core.pattern.look import BOTTOMS
from nematex.store.records import ClothRecord, PatternRecord
from nematex.web.drawing.garment import Figure
from nematex.web.drawing.lettering import NAME, TEXT, broken

SHOULDER_CM, WAIST_CM = 146.0, 104.0  # above the floor, on the common middle size
BETWEEN_CM = 7.0
LEAST_WIDE_CM = 66.0  # so that a caption has room beneath a narrow garment
LEAST_PX_PER_CM = 0.6
LINE = 1.28  # of a line to its letters
CAPTION_SHARE = 0.94  # of the middle cell of a row
CUT_COSTS = 0.5  # of its scale, where every caption is cut


@dataclass(frozen=True)
class Garment:
    """What hangs at one place: who made it up, how it is drawn, its caption; `others` are cloths that are shown with it.

    `photo` is the address of the shop's own picture, shown in the place of the drawing.
    """

    number: int
    pick_id: int
    cloth: ClothRecord
    pattern: PatternRecord
    figure: Figure
    kind: str
    facts: tuple[str, ...]
    others: tuple[ClothRecord, ...] = ()
    photo: str = ""
    verdict: str = ""
    red: str = ""


@dataclass(frozen=True)
class Hung:
    """A garment on the wall: where its own middle and top lie, in px, and the lines beneath it: (text, y, font, size)."""

    garment: Garment
    x: float
    y: float
    left: float
    width: float
    floor: float
    lines: tuple[tuple[str, float, str, float], ...]


@dataclass(frozen=True)
class Wall:
    """A wall of width × height px at so many px to a cm; `letter` is the size of the small text."""

    width: float
    height: float
    scale: float
    letter: float
    title: tuple[str, ...]
    floors: tuple[float, ...]
    hung: tuple[Hung, ...]
    top: float


def above_floor(kind: str) -> float:
    """How high above the floor a garment's own top (its y = 0) is worn, in cm."""
    return WAIST_CM if kind in BOTTOMS else SHOULDER_CM


def _tall(garment: Garment) -> float:
    """How far it reaches above the floor, in cm."""
    return above_floor(garment.kind) - garment.figure.box[1]


def _wide(garment: Garment) -> float:
    return max(garment.figure.box[2], LEAST_WIDE_CM) + BETWEEN_CM


def wall(garments: Sequence[Garment], title: str, width: float, height: float, letter: float | None = None) -> Wall:
    """The garments in their order, in as many rows as let them be large and their captions whole."""
    letter = letter or max(11.0, round(min(width, height) / 50, 1))
    margin = letter * 1.6
    head = broken(title, letter * 2.2, width - 2 * margin, 2, NAME)
    top = letter * (2.4 * len(head) + 2.6) if head else letter
    room = height - top - letter * 2.4
    tried = [_laid(garments, rows, width - 2 * margin, room, letter) for rows in range(1, len(garments) + 1)]
    best = max(tried, key=lambda each: each.worth, default=_Laid([], 1.0, 0.0, 0.0))
    high = max(map(_tall, garments), default=0.0) * best.scale + letter * 2 + best.caption
    start = top + max(0.0, room - high * len(best.rows)) / 2
    floors, hung = [], []
    for number, row in enumerate(best.rows):
        floor = start + high * (number + 1) - best.caption
        floors.append(floor)
        at = margin
        for cell in row:
            y = floor - above_floor(cell.garment.kind) * best.scale
            lines = _placed(cell.lines, floor, letter)
            hung.append(Hung(cell.garment, at + cell.width / 2, y, at, cell.width, floor, lines))
            at += cell.width
    return Wall(width, height, best.scale, letter, tuple(head), tuple(floors), tuple(hung), top)


@dataclass(frozen=True)
class _Cell:
    """A garment's part of its row, in px, and its caption, broken to that width: (text, font, size)."""

    garment: Garment
    width: float
    lines: tuple[tuple[str, str, float], ...]


@dataclass(frozen=True)
class _Laid:
    """Rows of cells, the scale at which all fit, the height of the captions, and what such a wall is worth."""

    rows: list[list[_Cell]]
    scale: float
    caption: float
    worth: float


def _laid(garments: Sequence[Garment], count: int, width: float, height: float, letter: float) -> _Laid:
    """So many rows of about the same width; a cut caption makes it worth less."""
    rows = [_cells(row, width, letter) for row in _split(garments, count)]
    every = [cell for row in rows for cell in row]
    caption = max(sum(size for _, _, size in cell.lines) for cell in every) * LINE + letter
    high = (height / len(rows) - caption - letter * 2) / max(map(_tall, garments))
    wide = min(cell.width / _wide(cell.garment) for cell in every)
    scale = max(min(high, wide), LEAST_PX_PER_CM)
    cut = sum(text.endswith("…") for cell in every for text, _, _ in cell.lines)
    return _Laid(rows, scale, caption, scale * (1 - CUT_COSTS * min(1.0, cut / len(every))))


def _split(garments: Sequence[Garment], count: int) -> list[list[Garment]]:
    """The garments in their order in so many rows, each about as wide as the others."""
    each = sum(map(_wide, garments)) / count
    rows: list[list[Garment]] = []
    row: list[Garment] = []
    filled = 0.0
    for garment in garments:
        if row and filled + _wide(garment) / 2 > each * (len(rows) + 1) and len(rows) < count - 1:
            rows.append(row)
            row = []
        row.append(garment)
        filled += _wide(garment)
    return [*rows, row]


def _cells(row: Sequence[Garment], width: float, letter: float) -> list[_Cell]:
    """A row shared out by how wide its garments are; a caption needs room beneath a narrow one too."""
    least = CAPTION_SHARE * sum(map(_wide, row)) / len(row)
    shares = [max(_wide(one), least) for one in row]
    widths = [width * share / sum(shares) for share in shares]
    return [_Cell(one, cell, _caption(one, cell - letter, letter)) for one, cell in zip(row, widths, strict=True)]


def _caption(garment: Garment, width: float, letter: float) -> tuple[tuple[str, str, float], ...]:
    """What stands beneath a garment, in lines of this width."""
    name = f"{garment.number}. {garment.cloth.facts.name}"
    texts = [(name, NAME, letter * 1.1, 3), (f"for {garment.pattern.facts.name}", TEXT, letter, 3)]
    texts += [(fact, TEXT, letter * 0.92, 2) for fact in garment.facts if fact]
    return tuple((line, font, size) for text, font, size, most in texts for line in broken(text, size, width, most, font))


def _placed(lines: Sequence[tuple[str, str, float]], floor: float, letter: float) -> tuple[tuple[str, float, str, float], ...]:
    found, at = [], floor + letter * 0.4
    for text, font, size in lines:
        at += size * LINE
        found.append((text, round(at, 1), font, round(size, 1)))
    return tuple(found)
