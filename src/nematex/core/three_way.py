"""Two people change one text: line by line, what one of them left alone follows the other (diff3, after Khanna and others,
"A formal investigation of diff3", 2007, from memory).

Always: where one side is as it was, the other side comes out whole; where both say the same,
that comes out and nobody clashes.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from difflib import SequenceMatcher

Lines = Sequence[str]


def _kept(was: Lines, now: Lines) -> dict[int, int]:
    """Which line of before is which of now, in order."""
    blocks = SequenceMatcher(a=was, b=now, autojunk=False).get_matching_blocks()
    return {block.a + at: block.b + at for block in blocks for at in range(block.size)}


def _stretches(was: Lines, mine: Lines, theirs: Lines) -> Iterator[tuple[Lines, Lines, Lines]]:
    """Stretches of the three between lines that both sides kept, and those lines as stretches of their own."""
    to_mine, to_theirs = _kept(was, mine), _kept(was, theirs)
    at = (0, 0, 0)
    for line in sorted(to_mine.keys() & to_theirs.keys()):
        here = (line, to_mine[line], to_theirs[line])
        yield was[at[0] : here[0]], mine[at[1] : here[1]], theirs[at[2] : here[2]]
        yield [was[line]], [was[line]], [was[line]]
        at = (here[0] + 1, here[1] + 1, here[2] + 1)
    yield was[at[0] :], mine[at[1] :], theirs[at[2] :]


def merge(was: Lines, mine: Lines, theirs: Lines) -> tuple[list[str], int]:
    """Both changes in one text, mine where they clash; and how often they do."""
    merged: list[str] = []
    clashes = 0
    for before, own, other in _stretches(was, mine, theirs):
        followed = other if list(own) == list(before) else own
        clashes += list(own) != list(before) and list(other) != list(before) and list(own) != list(other)
        merged += followed
    return merged, clashes
