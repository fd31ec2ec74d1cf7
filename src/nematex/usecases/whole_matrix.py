"""Every pattern against every cloth, worked out once for each state of the shop; a large one in the background."""

from __future__ import annotations

import threading
from functools import partial

from nematex.core.matrix import Matrix, matrix
from nematex.core.pattern import Wish
from nematex.usecases.ranking import demand_of
from nematex.usecases.shelf import Shop

JOB = "matrix"
AT_ONCE = 400_000  # pairings that are worked out while the page waits
PATIENCE_S = 1.2


def _state(shop: Shop) -> tuple[str, str, str]:
    return (JOB, shop.shelf().version, shop.drawer().version)


def _work_out(shop: Shop) -> Matrix:
    shelf, drawer, state = shop.shelf(), shop.drawer(), _state(shop)
    demands = [partial(demand_of, each, drawer, Wish()) for each in drawer.records]
    found = matrix(shelf.columns, demands, drawer.tables, progress=partial(shop.progress, JOB))
    shop.remember(state, found)
    return found


def pairings(shop: Shop) -> int:
    return len(shop.shelf().records) * len(shop.drawer().records)


def ready(shop: Shop) -> bool:
    """Whether the matrix of this state is there; a large one is begun, and ready a few seconds later."""
    if known(shop) or pairings(shop) <= AT_ONCE:
        return True
    if not shop.claim_job(JOB):
        return False

    def run() -> None:
        try:
            _work_out(shop)
        finally:
            shop.release_job(JOB)

    thread = threading.Thread(target=run, name=JOB, daemon=True)
    thread.start()
    thread.join(PATIENCE_S)
    return known(shop) is not None


def known(shop: Shop) -> Matrix | None:
    """The matrix of this state, if it has been worked out."""
    kept = shop.remembered(_state(shop))
    return kept if isinstance(kept, Matrix) else None


def whole(shop: Shop) -> Matrix:
    """The matrix of this state; worked out now if it is not there."""
    return known(shop) or _work_out(shop)
