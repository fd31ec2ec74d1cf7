"""The amount over the sizes of a view, which packet a size is in, and what a length still makes."""

from __future__ import annotations

from dataclasses import dataclass, replace

from nematex.core.amount.length import amount
from nematex.core.amount.receipt import Amount
from nematex.core.cloth.estimates import Cloth
from nematex.core.pattern.chosen import rows_for
from nematex.core.pattern.facts import Pattern, Wish
from nematex.core.quantity.said import Units
from nematex.core.tables import Tables

SLACK_M = 1e-6


@dataclass(frozen=True, slots=True)
class OfSize:
    """What one size takes, and the packet it is sold in ("" where there is one)."""

    size: str
    amount: Amount
    packet: str = ""


def sizes_of(pattern: Pattern, view: str | None) -> list[str]:
    """The sizes of a view's rows in the order of the envelope."""
    rows = rows_for(pattern, "main", Wish(view=view))
    named = {size for row in rows for size in row.sizes}
    ordered = [size.label for size in pattern.sizes if size.label in named]
    return list(dict.fromkeys([*ordered, *(size for row in rows for size in row.sizes)]))


def packet_of(pattern: Pattern, size: str | None) -> str:
    """The packet that a size is in, with its sizes, where the pattern is sold in several: 'curve: 18 to 28'."""
    packets = list(dict.fromkeys(each.band for each in pattern.sizes))
    band = next((each.band for each in pattern.sizes if each.label == size), "")
    if len(packets) < 2 or not band:
        return ""
    labels = [each.label for each in pattern.sizes if each.band == band]
    span = f"{labels[0]} to {labels[-1]}" if len(labels) > 1 else labels[0]
    return band if labels[0] in band and labels[-1] in band else f"{band}: {span}"


def by_size(cloth: Cloth, pattern: Pattern, wish: Wish, tables: Tables, units: Units = Units.METRIC) -> list[OfSize]:
    """What each size of the view takes; one row without a name where the table is for every size."""
    found = []
    for size in sizes_of(pattern, wish.view or next(iter(pattern.views), None)) or [""]:
        takes = amount(cloth, pattern, replace(wish, size=size or None), tables, units)
        if takes:
            found.append(OfSize(size, takes, packet_of(pattern, size)))
    return found


@dataclass(frozen=True, slots=True)
class Group:
    """Neighbouring sizes that take the same, in one packet."""

    first: str
    last: str
    length_m: float
    packet: str


def grouped(sizes: list[OfSize]) -> list[Group]:
    """The sizes in order, neighbours of one length as one row."""
    found: list[Group] = []
    for one in sizes:
        length = one.amount.length_m
        if found and abs(found[-1].length_m - length) < SLACK_M and found[-1].packet == one.packet:
            found[-1] = replace(found[-1], last=one.size)
        else:
            found.append(Group(one.size, one.size, length, one.packet))
    return found


def spread(sizes: list[OfSize]) -> tuple[OfSize, OfSize] | None:
    """The sizes that take least and most; None where there are not two, or all take the same."""
    if len(sizes) < 2:
        return None
    low, high = (pick(sizes, key=lambda each: each.amount.length_m) for pick in (min, max))
    return (low, high) if high.amount.length_m > low.amount.length_m + SLACK_M else None


def largest_within(sizes: list[OfSize], length_m: float) -> OfSize | None:
    """The largest size that a length makes: the last one in the order of the envelope."""
    return next((each for each in reversed(sizes) if each.amount.length_m <= length_m + SLACK_M), None)
