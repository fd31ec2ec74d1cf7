"""The nouns of the designer's list, each with what it spans, and how they open what a detail usually asks.

Common practice, no source: whoever drafted the pattern has seen it in the cloths that the list names.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from math import inf

from nematex.core.cloth.lexicon import ClothType, key
from nematex.core.judging.list_windows import Piece, own_bend, own_piece
from nematex.core.judging.verdict import Window
from nematex.core.pattern.envelope import NamedCloths
from nematex.core.quantity.kinds import Quantity
from nematex.core.tables import Tables


@dataclass(frozen=True, slots=True)
class Noun:
    """One noun of the list: a cloth that it means, as g/m² and bending length in cm; whether it means no other."""

    row: ClothType
    weight: Piece
    bending_length: Piece
    alone: bool
    by_name: bool  # the noun is its own name, though it means others as well: 'linen'


def nouns(named: list[NamedCloths], tables: Tables) -> tuple[tuple[Noun, ...], ...]:
    """Of each noun on the list the cloths it may mean, as the words before it narrow them."""
    found = []
    for item in named:
        rows = [tables.lexicon.get(name) for name in item.types]
        found.append(
            tuple(
                Noun(
                    row,
                    own_piece(item, row, None, tables),
                    own_bend(item, row),
                    len(rows) == 1,
                    tables.lexicon.by_key.get(key(item.noun or item.words)) is row,
                )
                for row in rows
            )
        )
    return tuple(found)


def opened(window: Window, named: tuple[tuple[Noun, ...], ...], structure: str) -> Window:
    """A detail's window, opened to the cloths that the designer names: of each noun to the one that lies nearest.

    What is tolerated beyond the edges stays where it was, or at the new edge.
    """
    low, high, low_from, high_from = window.low, window.high, window.low_from, window.high_from
    for noun in named:
        rows = [each for each in noun if (each.row.structure == "knit") == (structure == "knit")]
        pieces = [each.weight if window.quantity is Quantity.WEIGHT else each.bending_length for each in rows]
        if not pieces:
            continue
        near = min(pieces, key=lambda each: max(window.low - each.range.low, each.range.high - window.high, 0.0))
        if near.range.low < low and near.range.low < window.low:
            low, low_from = near.range.low, near.low_from
        if near.range.high > high:
            high, high_from = near.range.high, near.high_from
    return replace(
        window,
        low=low,
        high=high,
        tolerance_low=max(0.0, low - (window.low - window.tolerance_low)),
        tolerance_high=max(0.0, (window.high + window.tolerance_high) - high) if high < inf else window.tolerance_high,
        low_from=low_from,
        high_from=high_from,
    )
