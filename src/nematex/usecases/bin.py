"""The bin: what was taken away, put back whole or let go for good."""

from __future__ import annotations

from nematex.core.errors import UnknownChoice
from nematex.store import bin as store
from nematex.store.records import Binned
from nematex.usecases.held.shop import Shop


def in_the_bin(shop: Shop) -> list[Binned]:
    """All that is in the bin, the latest first."""
    with shop.database.work() as work:
        return store.binned(work)


def _kind(kind: str) -> str:
    if kind not in store.TABLES:
        raise UnknownChoice("kind", kind, store.TABLES, "kind of thing")
    return kind


def put_back(shop: Shop, kind: str, row_id: int) -> bool:
    """Put something back with all that hangs on it; whether it was in the bin. Raises UnknownChoice."""
    with shop.database.work() as work:
        return store.put_back(work, _kind(kind), row_id)


def let_go(shop: Shop, kind: str, row_id: int) -> bool:
    """Let something go for good, with all that hangs on it; whether it was in the bin. Raises UnknownChoice."""
    with shop.database.work() as work:
        return store.let_go(work, _kind(kind), row_id)
