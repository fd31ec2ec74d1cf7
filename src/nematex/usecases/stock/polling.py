"""Asking the feed: what is believed goes onto the shelf, less what is reserved; what went wrong is kept and nothing lost."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime

from nematex.core.stock.levels import Levels, believed, is_late
from nematex.devices.stock_feed import Answer, FeedDown, HttpStockFeed, StockFeed
from nematex.store.cloth import feed as store
from nematex.store.cloth.cloths import change_cloths
from nematex.store.database import Work
from nematex.store.settings import put
from nematex.store.trail.who import UNTOLD, acting
from nematex.store.versions import SHELF, next_version
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State

OWN_TILL = "own till"  # a setting: where the made-up shop's till answers
SETTING = "stock feed"  # its address; none: nobody is asked
MOST_REFUSED = 40  # that are kept in words
LEAST_STEP_M = 0.005


def feed_of(state: State) -> StockFeed | None:
    """The shop's feed, if it has one."""
    address = state.settings.get(SETTING, "")
    return HttpStockFeed(address, state.tables.judging.feed.wait_s) if address else None


def set_feed(shop: Shop, address: str) -> None:
    """Where the feed is asked from now on; "" for nowhere."""
    with shop.database.work() as work:
        put(work, SETTING, address)


def poll(shop: Shop, feed: StockFeed, now: datetime) -> int:
    """Ask once; how many cloths have another stock now."""
    now = now.replace(microsecond=0)
    try:
        answer = feed.levels()
    except FeedDown as fault:
        with shop.database.work() as work:
            store.note_feed(work, now, message=f"The stock feed {fault}."[:600])
        return 0
    with shop.database.work() as work:
        found = _compared(work, shop, answer)
        if not found.changed:  # the shelf is left alone, so that nothing has to be worked out anew
            _note(work, answer, found, shop, now)
            return 0
    with acting(UNTOLD), shop.database.work() as work:
        next_version(work, SHELF)  # held to the end: a reservation made meanwhile waits, and counts next time
        found = _compared(work, shop, answer)
        change_cloths(work, {cloth_id: {"stock_m": metres} for cloth_id, metres in found.changed.items()})
        _note(work, answer, found, shop, now)
    return len(found.changed)


@dataclass(frozen=True)
class _Compared:
    """The feed beside the shelf: what is believed and refused, cloths whose level is new, and what is left of those."""

    levels: Levels
    moved: Mapping[int, float]
    changed: Mapping[int, float]


def _compared(work: Work, shop: Shop, answer: Answer) -> _Compared:
    held, shelf = store.reserved_m(work), store.counted(work)
    known = {key: None if stock is None else stock + held.get(cloth_id, 0.0) for cloth_id, key, stock in shelf}
    levels = believed(answer.rows, known, shop.as_shipped.judging.feed)
    seen = store.ever_counted(work)
    moved = {
        cloth_id: levels.metres[key]
        for cloth_id, key, _ in shelf
        if key in levels.metres and (cloth_id not in seen or _other(known[key], levels.metres[key]))
    }
    stocks = {cloth_id: stock for cloth_id, _, stock in shelf}
    left = {cloth_id: round(max(0.0, metres - held.get(cloth_id, 0.0)), 3) for cloth_id, metres in moved.items()}
    return _Compared(levels, moved, {each: metres for each, metres in left.items() if _other(stocks[each], metres)})


def _note(work: Work, answer: Answer, found: _Compared, shop: Shop, now: datetime) -> None:
    store.add_levels(work, found.moved, now)
    late = is_late(answer.at, now, shop.as_shipped.judging.feed)
    refused = [*found.levels.refused[:MOST_REFUSED]]
    if len(found.levels.refused) > MOST_REFUSED:
        refused.append(f"… and {len(found.levels.refused) - MOST_REFUSED} more")
    message = "The stock feed is late: its figures are old." if late else ""
    store.note_feed(work, now, came_at=now, stamp=answer.at, message=message, refused=refused)


def _other(before: float | None, now: float) -> bool:
    return before is None or abs(before - now) > LEAST_STEP_M
