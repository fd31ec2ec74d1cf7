"""A large change is judged before it is made: from the first page that shows it, pages find every verdict there."""

from __future__ import annotations

import secrets
from collections.abc import Sequence
from dataclasses import replace

from nematex.store.records import ClothRecord, PatternRecord
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State
from nematex.usecases.jobs import asking
from nematex.usecases.judging.carried import Progress
from nematex.usecases.judging.packed import pack
from nematex.usecases.judging.whole_matrix import AT_ONCE, JOB, carried_to


def judge_ahead(
    shop: Shop, cloths: Sequence[ClothRecord], patterns: Sequence[PatternRecord] = (), progress: Progress | None = None
) -> None:
    """Keep verdicts on cloths and patterns that will be saved, where they are more than a page judges by the way.

    They are found again by what was judged, so that whatever of it is not saved as foreseen is judged later.
    """
    coming = _coming(shop.now(), cloths, patterns)
    found = carried_to(shop, coming)
    if found.due > AT_ONCE:
        content = pack(coming, found.completed(progress).matrix)
        asking.keep_content(shop.database, JOB, f"ahead {secrets.token_hex(8)}", content)


def _coming(state: State, cloths: Sequence[ClothRecord], patterns: Sequence[PatternRecord]) -> State:
    """The state that saving them makes; what is new has a number below zero."""
    shelf, drawer = state.shelf, state.drawer
    if cloths:
        new = [record if record.id else replace(record, id=-at) for at, record in enumerate(cloths, 1)]
        shelf = shelf.renewed(-1, new, set(), {})
    if patterns:
        drawer = drawer.renewed(
            -1, [record if record.id else replace(record, id=-at) for at, record in enumerate(patterns, 1)], set()
        )
    return replace(state, shelf=shelf, drawer=drawer, worked_out={})
