"""The lay of all pieces: a first answer of our own, improved while time allows; the shortest that geometry finds sound.

Own passes are counted, not timed, so that one seed gives one lay. An improver from outside (a solver in a process of its
own) may be handed in; what it brings is held against the same geometry. A lay for a nap serves without one.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, field, replace
from functools import partial

import numpy as np

from nematex.core.amount.lay.bound import lower_bound_cm
from nematex.core.amount.lay.compact import compacted
from nematex.core.amount.lay.items import Item, Pose, items_of
from nematex.core.amount.lay.orders import Climb
from nematex.core.amount.lay.pieces import Piece, Strip, checked_all
from nematex.core.amount.lay.placed import Lay, Placement, sound
from nematex.core.amount.lay.raster import Filler
from nematex.core.amount.lay.rectangles import all_rectangles, lay_rectangles
from nematex.core.errors import FieldFault

NEAR_CM = 0.005  # so near to the bound nothing is left to gain
ROUNDS_PER_SECOND = 2.0  # a round is a pass on either grid, with pieces turned and without
FIRST_ROUNDS = 4
USUAL_PIECES, MOST_PUSHED, MOST_PUSHED_CORNERS = 25, 60, 200
OWN = "raster fill"

Improver = Callable[["Task", float], Iterator[list[Placement]]]


@dataclass(frozen=True)
class Task:
    """What is to be laid, with all that follows from it."""

    pieces: tuple[Piece, ...]
    strip: Strip
    seed: int = 0
    items: tuple[Item, ...] = field(default=(), repr=False)
    bound_cm: float = 0.0

    @property
    def is_small(self) -> bool:
        """Whether all is tried on it: pushing together and searching grow with the square of pieces and corners."""
        corners = max(len(pose.corners) for item in self.items for pose in item.poses)
        return len(self.items) <= MOST_PUSHED and corners <= MOST_PUSHED_CORNERS


def task(pieces: Sequence[Piece], strip: Strip, seed: int = 0) -> Task:
    """A checked task; raises FieldFault, and CannotLie where a piece is wider than the cloth."""
    if not 1.0 <= strip.width_cm <= 1000.0:
        raise FieldFault("width_cm", strip.width_cm, "must be from 1 to 1000 cm")
    for name, repeat in (("repeat_length_cm", strip.repeat.along_cm), ("repeat_width_cm", strip.repeat.across_cm)):
        if repeat is not None and not 0.2 <= repeat <= 200.0:
            raise FieldFault(f"print.{name}", repeat, "must be from 0.2 to 200 cm, or left out")
    known = checked_all(pieces)
    items = items_of(known, strip)
    return Task(tuple(known), strip, seed, tuple(items), lower_bound_cm(items, strip))


class Best:
    """The best sound lay so far; `heard` is told of each better one."""

    def __init__(self, asked: Task, heard: Callable[[Lay], None] | None = None) -> None:
        self.asked, self.heard = asked, heard
        self.lay: Lay | None = None

    @property
    def length_cm(self) -> float:
        return self.lay.length_cm if self.lay else np.inf

    @property
    def done(self) -> bool:
        return self.length_cm <= self.asked.bound_cm + NEAR_CM

    def offer(self, placements: Sequence[Placement] | None, solver: str) -> None:
        """Take a lay if it is sound and shorter."""
        if not placements:
            return
        found = Lay(self.asked.strip, tuple(placements), solver, self.asked.bound_cm)
        if found.length_cm < self.length_cm - 1e-6 and sound(found):
            self.lay = found
            if self.heard:
                self.heard(found)


def solve(
    asked: Task,
    seconds: float,
    improver: Improver | None = None,
    heard: Callable[[Lay], None] | None = None,
    stopped: Callable[[], bool] = lambda: False,
) -> Lay:
    """The best lay within about so many seconds; raises FieldFault where the print leaves no way to lay a piece."""
    best, rounds = Best(asked, heard), _rounds(asked)
    first = FIRST_ROUNDS if asked.is_small else 1
    for _ in range(first):
        next(rounds)(best)
    if asked.is_small and all_rectangles(asked.items) and best.lay:
        best.offer(lay_rectangles(asked.items, asked.strip, asked.bound_cm, best.length_cm), "rectangles")
    if improver and not best.done:
        _improve(improver(asked, seconds), best, stopped)
    else:
        for _ in range(round(seconds * ROUNDS_PER_SECOND * min(1.0, USUAL_PIECES / len(asked.items))) - first):
            if best.done or stopped():
                break
            next(rounds)(best)
    return best.lay or _one_after_the_other(asked)


def _improve(better: Iterator[list[Placement]], best: Best, stopped: Callable[[], bool]) -> None:
    """What the improver brings, pushed together, until it is done or stopped."""
    for placements in better:
        if placements:
            best.offer(placements, "strip packing")
            best.offer(_pushed(placements, best), "strip packing")
        if best.done or stopped():
            break


def _as_with_a_nap(item: Item) -> tuple[Pose, ...]:
    upright = tuple(pose for pose in item.poses if item.free or pose.turn_deg == 0)
    return upright or item.poses


def _rounds(asked: Task) -> Iterator[Callable[[Best], None]]:
    """Rounds without end; where pieces may be turned also one as with a nap, so that a nap never takes less."""
    upright = [replace(item, poses=_as_with_a_nap(item)) for item in asked.items]
    turnable = any(len(item.poses) > 1 and not item.free for item in asked.items)
    climbs = [Climb(items, asked.seed) for items in ([upright, asked.items] if turnable else [asked.items])]
    fillers = [Filler(asked.strip, tight) for tight in (False, True)]
    while True:
        yield partial(_round, fillers, climbs)


def _round(fillers: Sequence[Filler], climbs: Sequence[Climb], best: Best) -> None:
    for filler in fillers:
        for climb in climbs:
            _pass(filler, climb, best)


def _pass(filler: Filler, climb: Climb, best: Best) -> None:
    if best.done:
        return
    order = climb.order(filler.tight)
    placements = filler.lay(order)
    if placements is None:
        return
    if not filler.tight:
        best.offer(placements, OWN)
    pushed = _pushed(placements, best) if _worth_pushing(placements, best) else None
    best.offer(pushed, OWN)
    sound_one = pushed or (None if filler.tight else placements)
    if sound_one:
        climb.heard(order, max(placed.end_cm for placed in sound_one))


def _pushed(placements: Sequence[Placement], best: Best) -> list[Placement] | None:
    """Pushed together, where there are not more pieces and corners than that can be done with in time."""
    return compacted(placements, best.asked.strip) if best.asked.is_small else None


def _worth_pushing(placements: Sequence[Placement], best: Best) -> bool:
    """Pushing gains a few per cent: what is much longer than the best is left."""
    return max(placed.end_cm for placed in placements) < best.length_cm * 1.05


def _one_after_the_other(asked: Task) -> Lay:
    """The last resort: each piece behind the one before it, on the print's repeat."""
    along, across = asked.strip.repeat.along_cm, asked.strip.repeat.across_cm
    at, placements = 0.0, []
    for item in asked.items:
        for pose in item.poses:
            x, y = at - pose.box[0], -pose.box[1]
            if item.matched and along:
                x = along * np.ceil(x / along - 1e-9)
            if item.matched and across and not item.on_fold:
                y = across * np.ceil(y / across - 1e-9)
            if y + pose.box[3] <= asked.strip.height_cm + 1e-6:
                break
        else:
            raise FieldFault(
                f"piece {item.id!r}",
                f"{item.poses[0].across_cm:.1f} cm across",
                "does not lie on this width where its print matches",
            )
        placements.append(Placement(item, pose, float(x), float(y)))
        at = placements[-1].end_cm
    return replace(Lay(asked.strip, tuple(placements), "one after the other"), lower_bound_cm=asked.bound_cm)
