"""The lay of one pairing: what is asked of the worker, and its answer as a drawing needs it."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from nematex.core.amount.lay.draft import drafted
from nematex.core.amount.lay.items import Item, Pose, items_of, turned
from nematex.core.amount.lay.pieces import Piece, PrintRepeat
from nematex.core.amount.lay.placed import Lay, Placement, faults
from nematex.core.amount.length import amount, bought
from nematex.core.amount.receipt import Amount, Receipt
from nematex.core.cloth.estimates import Cloth
from nematex.core.errors import FieldFault
from nematex.core.pattern.facts import Pattern, Wish
from nematex.core.quantity.said import Units
from nematex.core.sent_json import read_sent
from nematex.core.tables import Tables
from nematex.usecases.lay.text import LayIn, LayOut, PlacementOut, written

SECONDS = (5, 15, 60)


def asked_lay(pieces: Sequence[Piece], cloth: Cloth, given: Mapping[str, str], tables: Tables) -> LayIn:
    """The task for one cloth: its usable width, its nap or one-way print, its repeats where they are matched."""
    seconds = int(given.get("seconds", "15")) if given.get("seconds", "15") in map(str, SECONDS) else 15
    one_way = cloth.nap or (cloth.print.direction == "one-way" and cloth.follow_print is not False)
    repeats = print_repeats(cloth, tables) if given.get("match") else PrintRepeat()
    return LayIn.model_validate(
        {
            "width_cm": cloth.width.best,
            "folded": bool(given.get("folded")),
            "with_nap": one_way,
            "seconds": seconds,
            "print": {"repeat_length_cm": repeats.along_cm, "repeat_width_cm": repeats.across_cm},
            "pieces": [_piece_in(piece) for piece in pieces],
        }
    )


def _piece_in(piece: Piece) -> dict[str, object]:
    fold = None if piece.fold_y_cm is None else f"y={piece.fold_y_cm:g}"
    return {
        "id": piece.id, "outline_cm": [list(point) for point in piece.outline_cm], "count": piece.count, "kind": piece.kind,
        "fold_edge": fold, "free": piece.free,
    }  # fmt: skip


def print_repeats(cloth: Cloth, tables: Tables) -> PrintRepeat:
    """The repeats of a cloth that are large enough to be matched."""
    least = tables.judging.print.match_from_cm
    along, across = cloth.print.repeat_length_cm, cloth.print.repeat_width_cm
    return PrintRepeat(along if along and along >= least else None, across if across and across >= least else None)


def pieces_of(pattern: Pattern, wish: Wish, tables: Tables, across_cm: float) -> list[Piece]:
    """The pieces that are laid on so much of a width: drafted, as long as no file of the pattern's own is sent."""
    return drafted(pattern, replace(wish, part=None), tables, across_cm)


@dataclass(frozen=True)
class Drawn:
    """One piece where it lies: its corners as a path, its grain as a line with the way it points, in cm."""

    id: str
    copy: int
    path: str
    grain: tuple[float, float, float, float]
    middle: tuple[float, float]
    upright: bool  # its name stands across, where it is short along and long across
    placement: PlacementOut
    box: tuple[float, float, float, float]  # its bounds


def _pose(item: Item, placed: PlacementOut) -> Pose:
    base = item.poses[0]
    flat = turned(turned(base.corners, -base.turn_deg % 360, False), 0, base.mirrored)
    return next(
        (pose for pose in item.poses if pose.mirrored == placed.mirrored and abs(pose.turn_deg - placed.turn_deg) < 1e-6),
        Pose(placed.turn_deg, placed.mirrored, turned(flat, placed.turn_deg, placed.mirrored)),
    )


def lay_of(asked: LayIn, placements: Sequence[PlacementOut]) -> Lay:
    """The answer's placements as a lay again; raises FieldFault where they are not those of the task."""
    strip = asked.strip()
    every = items_of([each.piece() for each in asked.pieces], strip)
    items = {(item.id, copy): item for item in every for copy in item.copies}
    found = []
    for placed in placements:
        item = items.get((placed.id, placed.copy_number))
        for copy in item.copies if item else ():
            items.pop((placed.id, copy))
        if item is None:
            raise FieldFault("placements", f"{placed.id} {placed.copy_number}", "is no piece of this lay, or stands twice")
        found.append(Placement(item, _pose(item, placed), placed.x_cm, placed.y_cm))
    if items:
        raise FieldFault("placements", next(iter(items))[0], "is missing")
    return Lay(strip, tuple(found), "by hand")


def drawn(asked: LayIn, answer: LayOut) -> list[Drawn]:
    """The pieces for the drawing."""
    lay = lay_of(asked, answer.placements)
    return [_drawn(placed, out) for placed, out in zip(lay.placements, answer.placements, strict=True)]


def _drawn(placed: Placement, out: PlacementOut) -> Drawn:
    corners = placed.corners
    middle = placed.polygon.representative_point()
    x0, y0, x1, y1 = placed.polygon.bounds
    reach = (x1 - x0) / 5 * (-1 if round(out.turn_deg) == 180 else 1)
    path = "M" + "L".join(f"{x:.2f} {y:.2f}" for x, y in corners) + "Z"
    grain = (middle.x - reach, middle.y, middle.x + reach, middle.y)
    return Drawn(out.id, out.copy_number, path, grain, (middle.x, middle.y), y1 - y0 > x1 - x0, out, (x0, y0, x1, y1))


def moved(asked: LayIn, answer: LayOut, text: str) -> tuple[LayOut, list[str]]:
    """The lay with pieces moved by hand, and what geometry finds wrong with it; raises FieldFault."""
    try:
        shifts = {(str(name), int(copy)): (float(x), float(y)) for name, copy, x, y in read_sent(text)}
    except (ValueError, TypeError, RecursionError):
        raise FieldFault("moves", text[:40], "is no list of moved pieces") from None
    placements = []
    for placed in answer.placements:
        x, y = shifts.get((placed.id, placed.copy_number), (placed.x_cm, placed.y_cm))
        if not (abs(x) < 1e5 and abs(y) < 1e5):
            raise FieldFault("moves", placed.id, "lies too far away")
        placements.append(placed.model_copy(update={"x_cm": x, "y_cm": y}))
    lay = lay_of(asked, placements)
    return written(replace(lay, lower_bound_cm=answer.lower_bound_cm)), faults(lay)


@dataclass(frozen=True)
class Compared:
    """What the envelope says and what was laid, both as they are bought; `saved_m` is what the lay saves."""

    envelope: Amount | None
    laid: Amount

    @property
    def saved_m(self) -> float:
        return self.envelope.length_m - self.laid.length_m if self.envelope else 0.0


def compared(length_cm: float, cloth: Cloth, pattern: Pattern, wish: Wish, tables: Tables, units: Units) -> Compared:
    """The laid length bought as any other: washing and the shop's cut on top."""
    receipt = Receipt(tables.sayings, units)
    receipt.write("laid", "geometry", length_cm / 100)
    return Compared(amount(cloth, pattern, wish, tables, units), bought(length_cm / 100, cloth, tables, receipt, washed=True))
