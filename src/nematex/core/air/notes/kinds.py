"""The kinds of text that a shop publishes of a programme."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass


@dataclass(frozen=True)
class NoteKind:
    """A kind of text: whether it is in Markdown, how many letters its places take (0: any), the template that ships."""

    name: str
    title: str
    markdown: bool
    limit: int
    template: str


def fitted(write: Callable[[int], str], places: int, limit: int) -> str:
    """What `write(n)` gives for the first n places, as many of them as fit; with none it may still be too long."""
    whole = write(places)
    if not limit or len(whole) <= limit:
        return whole
    low, high = 0, places  # `low` fits or is the least there is, `high` does not fit
    while high - low > 1:
        middle = (low + high) // 2
        if len(write(middle)) <= limit:
            low = middle
        else:
            high = middle
    return write(low)
