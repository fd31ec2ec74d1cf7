"""A list, a page at a time."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Generic, TypeVar

T = TypeVar("T")
PAGE = 40


@dataclass(frozen=True)
class Page(Generic[T]):
    """The rows of one page, how many there are on all, and which page of how many this is."""

    rows: list[T]
    total: int
    page: int
    pages: int


def turned_to(total: int, asked: int, size: int = PAGE) -> tuple[int, int]:
    """The page asked for, kept within the pages there are, and how many there are."""
    pages = max(1, -(-total // size))
    return min(max(asked, 1), pages), pages


def page_of(found: Sequence[T], asked: int, size: int = PAGE) -> Page[T]:
    """One page of what was found."""
    page, pages = turned_to(len(found), asked, size)
    return Page(list(found[(page - 1) * size : page * size]), len(found), page, pages)
