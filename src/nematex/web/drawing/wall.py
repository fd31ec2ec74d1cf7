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
    """The garments in their order, in as many rows as let them be largest."""
    letter = letter or max(11.0, round(min(width, height) / 48, 1))
    margin = letter * 2
    head = broken(title, letter * 2.2, width - 2 * margin, 2, NAME)
    top = margin + letter * (2.4 * len(head) + 1.2) if head else letter
    room = height - top - letter * 2.6
    best = max(
        (_rows(garments, rows, width - 2 * margin, room, letter) for rows in range(1, len(garments) + 1)),
        key=lambda each: each[1],
        default=([], 1.0),
    )
    rows, scale = best
    floors, hung = [], []
    caption = _caption(letter)
    high = max(map(_tall, garments), default=0.0) * scale + letter * 2 + caption
    start = top + max(0.0, room - high * len(rows)) / 2
    for number, row in enumerate(rows):
        floor = start + high * (number + 1) - caption
        floors.append(floor)
        wide = sum(map(_wide, row)) * scale
        spare = (width - 2 * margin - wide) / (len(row) + 1)
        at = margin + spare
        for garment in row:
            cell = _wide(garment) * scale
            left = at - spare / 2
            hung.append(_hung(garment, at + cell / 2, floor, scale, left, cell + spare, letter))
            at += cell + spare
    return Wall(width, height, scale, letter, tuple(head), tuple(floors), tuple(hung), top)


def _caption(letter: float) -> float:
    """The height that captions take beneath a floor."""
    return letter * 8.4


def _rows(
    garments: Sequence[Garment], count: int, width: float, height: float, letter: float
) -> tuple[list[list[Garment]], float]:
    """The garments in so many rows of about the same width, and the scale at which the widest and the tallest fit."""
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
    rows.append(row)
    high = (height / len(rows) - _caption(letter) - letter * 2) / max(map(_tall, garments))
    wide = min(width / sum(map(_wide, row)) for row in rows)
    return rows, max(min(high, wide), LEAST_PX_PER_CM)


def _hung(garment: Garment, x: float, floor: float, scale: float, left: float, width: float, letter: float) -> Hung:
    lines, at = [], floor + letter * 1.5
    texts = [(f"{garment.number}. {garment.cloth.facts.name}", NAME, letter * 1.1, 3)]
    texts += [(f"for {garment.pattern.facts.name}", TEXT, letter, 2)]
    texts += [(fact, TEXT, letter * 0.92, 1) for fact in garment.facts if fact]
    for text, font, size, most in texts:
        for line in broken(text, size, width - letter * 1.2, most, font):
            if at < floor + _caption(letter) - letter * 0.6:
                lines.append((line, round(at, 1), font, round(size, 1)))
                at += size * 1.28
    return Hung(garment, x, floor - above_floor(garment.kind) * scale, left, width, floor, tuple(lines))
