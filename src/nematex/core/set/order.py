"""A running order in which one place was moved by somebody who may not have seen the others' moves."""

from __future__ import annotations

from collections.abc import Sequence


def with_moved(now: Sequence[int], seen: Sequence[int], moved: int) -> list[int]:
    """The order as it is `now`, with `moved` behind the nearest one before it in the order as it was `seen` after the move."""
    rest = [each for each in now if each != moved]
    if moved not in seen or moved not in now:
        return list(now)
    before = list(seen[: list(seen).index(moved)])
    known = next((each for each in reversed(before) if each in rest), None)
    at = rest.index(known) + 1 if known is not None else 0
    return [*rest[:at], moved, *rest[at:]]
