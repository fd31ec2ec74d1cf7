"""What is laid on what: pieces with a grain line along x, and the cloth as a strip, single or folded along its length.

Lengths in cm. A piece is a closed outline of straight edges; curves come as many short ones.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from shapely import Polygon
from shapely.validation import explain_validity

from nematex.core.errors import FieldFault

Kind = Literal["pair", "single", "fold"]
Point = tuple[float, float]
MOST_COPIES = 200
MOST_CORNERS = 2000
LONGEST_CM = 2000.0
LONGEST_ID = 120


@dataclass(frozen=True)
class Piece:
    """One pattern piece: `count` of it are cut, a pair's every second one mirrored; `fold_y_cm` is the edge on the fold.

    `free`: it may be turned at will, its grain and print do not matter.
    """

    id: str
    outline_cm: tuple[Point, ...]
    count: int = 1
    kind: Kind = "single"
    fold_y_cm: float | None = None
    free: bool = False

    @property
    def polygon(self) -> Polygon:
        return Polygon(self.outline_cm)

    @property
    def copies(self) -> int:
        """How many are cut: of a pair an even number."""
        return self.count + self.count % 2 if self.kind == "pair" else self.count


def area_cm2(piece: Piece) -> float:
    """What all copies of a piece cover; one on the fold opens to twice its outline."""
    return float(piece.polygon.area) * piece.copies * (2 if piece.kind == "fold" else 1)


@dataclass(frozen=True)
class PrintRepeat:
    """How often a print comes again, in cm along and across; None where it need not match in that direction."""

    along_cm: float | None = None
    across_cm: float | None = None


@dataclass(frozen=True)
class Strip:
    """The cloth: usable width in cm, whether it lies folded, whether every piece must lie the same way up, its repeat."""

    width_cm: float
    folded: bool = False
    with_nap: bool = False
    repeat: PrintRepeat = PrintRepeat()

    @property
    def height_cm(self) -> float:
        """What lies across: the usable width, or half of it on folded cloth."""
        return self.width_cm / 2 if self.folded else self.width_cm


class CannotLie(FieldFault):
    """A piece is wider than the cloth, however it is turned."""


def checked(piece: Piece) -> Piece:
    """The piece, or a FieldFault that names what cannot be laid."""
    field = f"piece {piece.id!r}"
    if len(piece.outline_cm) > MOST_CORNERS:
        raise FieldFault(f"{field}, outline", len(piece.outline_cm), f"corners are too many; at most {MOST_CORNERS}")
    if not 1 <= piece.count <= MOST_COPIES:
        raise FieldFault(f"{field}, count", piece.count, f"must be from 1 to {MOST_COPIES}")
    if any(abs(value) > LONGEST_CM for point in piece.outline_cm for value in point):
        raise FieldFault(f"{field}, outline", "a corner", f"lies beyond {LONGEST_CM:.0f} cm; are the units cm?")
    if len(set(piece.outline_cm)) < 3:
        raise FieldFault(f"{field}, outline", len(set(piece.outline_cm)), "different corners are too few; at least three")
    polygon = piece.polygon
    if not polygon.is_valid:
        raise FieldFault(f"{field}, outline", explain_validity(polygon), "must not be: the outline crosses or touches itself")
    if polygon.area < 0.01:
        raise FieldFault(f"{field}, outline", f"{polygon.area:.3g} cm²", "is no area to cut; at least 0.01 cm²")
    if piece.kind == "fold":
        _checked_fold(piece, field)
    return piece


def _checked_fold(piece: Piece, field: str) -> None:
    """A piece on the fold has an edge there, and lies on one side of it."""
    if piece.fold_y_cm is None:
        raise FieldFault(f"{field}, fold_edge", None, "must name the edge that lies on the fold, such as y=0")
    if piece.free:
        raise FieldFault(f"{field}, free", True, "must be false for a piece on the fold, which runs along the grain")
    low, high = min(y for _, y in piece.outline_cm), max(y for _, y in piece.outline_cm)
    if min(abs(low - piece.fold_y_cm), abs(high - piece.fold_y_cm)) > 1e-6:
        raise FieldFault(
            f"{field}, fold_edge", f"y={piece.fold_y_cm:g}", f"is no outer edge of the piece; choose y={low:g} or y={high:g}"
        )


def checked_all(pieces: Sequence[Piece]) -> list[Piece]:
    """All of them checked, with different ids and not too many copies in all."""
    if not pieces:
        raise FieldFault("pieces", "none", "must hold at least one piece")
    ids = [piece.id for piece in pieces]
    long = next((name for name in ids if len(name) > LONGEST_ID), None)
    if long is not None:
        raise FieldFault("pieces, id", f"{long[:40]}…", f"has {len(long)} letters; at most {LONGEST_ID}")
    twice = next((name for name in ids if ids.count(name) > 1), None)
    if twice is not None:
        raise FieldFault("pieces, id", twice, "stands twice; each piece needs an id of its own")
    copies = sum(piece.copies for piece in pieces)
    if copies > MOST_COPIES:
        raise FieldFault("pieces, count", copies, f"pieces in all are too many; at most {MOST_COPIES}")
    return [checked(piece) for piece in pieces]
