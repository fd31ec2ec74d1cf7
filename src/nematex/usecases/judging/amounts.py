"""All that is said of the amount of one pairing: over the sizes, by use, over the widths, and what helps if it is short."""

from __future__ import annotations

from dataclasses import dataclass, replace

from nematex.core.amount.fixes import Fix, fixes
from nematex.core.amount.length import amount
from nematex.core.amount.receipt import Amount
from nematex.core.amount.sizes import Group, OfSize, by_size, grouped, largest_within, packet_of, spread
from nematex.core.amount.widths import OverWidth, over_width
from nematex.core.cloth.estimates import Cloth
from nematex.core.errors import UnknownChoice
from nematex.core.pattern.facts import USES, Wish
from nematex.store.records import ClothRecord, PatternRecord
from nematex.usecases.held.state import State


@dataclass(frozen=True)
class Amounts:
    """`range` are the sizes that take least and most; `others` the amounts of the table's other uses, for cloth this wide."""

    sizes: list[OfSize]
    groups: list[Group]
    range: tuple[OfSize, OfSize] | None
    packet: str
    others: dict[str, Amount]
    makes: OfSize | None
    fixes: list[Fix]
    widths: OverWidth | None


def amounts_of(state: State, pattern: PatternRecord, record: ClothRecord, cloth: Cloth, wish: Wish) -> Amounts:
    """What the pairing page says beside the one amount."""
    facts, tables, units = pattern.facts, state.tables, state.voice.units
    whole = replace(wish, part=None)
    sizes = by_size(cloth, facts, whole, tables, units)
    others = {}
    for use in USES[1:]:
        try:
            found = amount(cloth, facts, whole, tables, units, use)
        except UnknownChoice:
            continue  # the table has no such row for this view or size
        if found:
            others[use] = found
    stock = record.stock_m
    return Amounts(
        sizes,
        grouped(sizes),
        spread(sizes),
        packet_of(facts, wish.size),
        others,
        largest_within(sizes, stock) if stock is not None else None,
        fixes(cloth, facts, whole, stock, tables) if stock is not None else [],
        over_width(cloth, facts, whole, tables),
    )
