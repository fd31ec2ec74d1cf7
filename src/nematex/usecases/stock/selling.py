"""How the feed stands, how cloths sell, and how long they last."""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import dataclass
from datetime import datetime, timedelta

from nematex.core.stock.popularity import Popularity, popularity
from nematex.store.cloth import feed as store
from nematex.store.cloth.feed import FeedState
from nematex.store.records import ClothRecord
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State
from nematex.usecases.stock.polling import SETTING

UNHEARD_MIN = 5.0  # without a try at all, the worker does not run


@dataclass(frozen=True)
class FeedSaid:
    """The feed in words: how old the figures are, and what is wrong ("" where nothing is)."""

    state: FeedState | None
    address: str
    as_of: datetime | None
    wrong: str


def feed_said(shop: Shop, state: State, now: datetime) -> FeedSaid | None:
    """How the feed stands; None where the shop has none."""
    address = state.settings.get(SETTING, "")
    if not address:
        return None
    with shop.database.work() as work:
        found = store.feed_state(work)
    if found is None:
        return FeedSaid(None, address, None, "The stock feed has not been asked yet.")
    wrong = found.message
    if now - found.tried_at > timedelta(minutes=UNHEARD_MIN):
        wrong = f"Nobody has asked the stock feed since {found.tried_at:%H:%M}: the worker does not run."
    elif not wrong and found.refused:
        wrong = (
            f"{len(found.refused)} lines of the stock feed are no stock and were not believed; those cloths keep what they had."
        )
    return FeedSaid(found, address, found.stamp or found.came_at, wrong)


def sold(shop: Shop, cloth_ids: Collection[int] | None, since: datetime, until: datetime) -> dict[int, Popularity]:
    """How these cloths sold in a time, those of which levels are kept; None: all of them."""
    with shop.database.work() as work:
        levels = store.levels_of(work, cloth_ids, since)
    return {cloth_id: found for cloth_id, each in levels.items() if (found := popularity(each, since, until))}


def selling(shop: Shop, state: State, cloth_ids: Collection[int] | None, now: datetime) -> dict[int, Popularity]:
    """How they sell now: over the last days that count for it."""
    return sold(shop, cloth_ids, now - timedelta(days=state.tables.judging.feed.popular_days), now)


@dataclass(frozen=True)
class Seller:
    """A cloth and how it sells."""

    record: ClothRecord
    sells: Popularity


def sellers(shop: Shop, state: State, now: datetime) -> list[Seller]:
    """The cloths that sold something lately, those first that will be gone first."""
    found = [
        Seller(record[0], each)
        for cloth_id, each in selling(shop, state, None, now).items()
        if each.cover_days is not None and (record := state.cloth(cloth_id))
    ]
    return sorted(found, key=lambda each: each.sells.cover_days or 0.0)
