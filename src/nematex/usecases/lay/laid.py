"""One lay from a task: both solvers, within the time given."""

from __future__ import annotations

import time
from collections.abc import Callable, Iterator

from nematex.core.amount.lay.placed import Lay, Placement
from nematex.core.amount.lay.solve import Task, solve, task
from nematex.usecases.lay.improver import can_improve, improved
from nematex.usecases.lay.text import LayIn

LEAST_TO_IMPROVE_S = 2.0  # the library counts whole seconds, and wants two


def lay_out(
    asked: LayIn,
    heard: Callable[[Lay], None] | None = None,
    stopped: Callable[[], bool] = lambda: False,
    workers: int | None = None,
) -> Lay:
    """The best lay within about `asked.seconds`; raises FieldFault."""
    begun = time.monotonic()
    known = task([each.piece() for each in asked.pieces], asked.strip(), asked.seed)

    def improver(of: Task, seconds: float) -> Iterator[list[Placement]]:
        return improved(of, max(LEAST_TO_IMPROVE_S, seconds - (time.monotonic() - begun)), workers)

    helps = asked.seconds >= LEAST_TO_IMPROVE_S and can_improve(known)
    return solve(known, asked.seconds, improver if helps else None, heard, stopped)
