"""The amount of many cloths at once, so that a ranking can filter by it. The same rules as `length`, without the receipt."""

from __future__ import annotations

from functools import cache, partial

import numpy as np

from nematex.core.amount.hacked import add_hacks
from nematex.core.amount.length import at_width, drafted_cm2, rows_asked
from nematex.core.amount.receipt import Receipt
from nematex.core.cloth.columns import ONE_WAY, ClothColumns
from nematex.core.pattern.facts import Pattern, Wish
from nematex.core.pattern.hacks import read_hacks
from nematex.core.quantity.arrays import Floats, Mask
from nematex.core.quantity.estimate import Known
from nematex.core.tables import Tables


def lengths_m(cloths: ClothColumns, pattern: Pattern, wish: Wish, tables: Tables) -> Floats | None:
    """Metres to buy of each of n cloths, (n,); None where the pattern has no table; raises UnknownChoice."""
    table = [row for row in pattern.requirements if row.use == "main"]
    if not table or wish.part:
        return None
    rows = rows_asked(table, wish, Receipt(tables.sayings, silent=True))
    one_way: Mask = cloths.nap | ((cloths.direction == ONE_WAY) & ~cloths.print_not_followed)
    length, with_nap = np.empty(len(cloths)), np.empty(len(cloths), dtype=np.bool_)
    places, which = np.unique(np.stack([cloths.width.best, one_way]), axis=1, return_inverse=True)
    for at, (width, runs) in enumerate(places.T):
        silent = Receipt(tables.sayings, silent=True)
        row = at_width(rows, pattern.widest_piece_cm, float(width), bool(runs), tables, silent)
        here = which == at
        length[here], with_nap[here] = silent.length_m, row.with_nap
    length *= 1 + np.where(one_way & ~with_nap, _one_way_share(cloths.width.best, tables), 0.0)
    length += np.where(cloths.repeat_length_cm >= tables.judging.print.match_from_cm, cloths.repeat_length_cm, 0.0) / 100
    if wish.hacks:
        length = _changed(length, cloths.width.best, one_way, pattern, wish, tables)
    return _cut(length / _left_by_the_wash(cloths, tables), cloths, tables)


def _changed(length_m: Floats, width_cm: Floats, one_way: Mask, pattern: Pattern, wish: Wish, tables: Tables) -> Floats:
    """With the changes to the pattern: once for each width, way and length that there is."""
    hacks, own_cm2 = read_hacks(wish.hacks, tables), cache(partial(drafted_cm2, pattern, wish, tables))
    places, which = np.unique(np.stack([width_cm, one_way, length_m]), axis=1, return_inverse=True)
    made = np.empty(places.shape[1])
    for at, (width, runs, length) in enumerate(places.T):
        silent = Receipt(tables.sayings, length_m=float(length), silent=True)
        add_hacks(hacks, float(width), bool(runs), tables.judging.change, silent, own_cm2)
        made[at] = silent.length_m
    found: Floats = made[which]
    return found


def _one_way_share(width_cm: Floats, tables: Tables) -> Floats:
    rule = tables.judging.amount.one_way
    at = np.searchsorted(np.array([width for width, _ in rule]), width_cm)
    found: Floats = np.array([share for _, share in rule])[at]
    return found


def _left_by_the_wash(cloths: ClothColumns, tables: Tables) -> Floats:
    """The share of a length that is left once it is washed; 1 where nobody is told to wash it first."""
    measured = cloths.shrink.known >= Known.STATED
    washed = measured & (cloths.shrink.best > 0) | (cloths.shrink.high >= tables.judging.cautions.shrinks_from_pct)
    by_pct = np.where(measured | cloths.wool, cloths.shrink.best, cloths.shrink.high)
    found: Floats = np.where(washed, 1 - by_pct / 100, 1.0)
    return found


def _cut(length_m: Floats, cloths: ClothColumns, tables: Tables) -> Floats:
    rule = tables.judging.amount
    step = np.where(np.isnan(cloths.cut_step_cm), rule.cut_step_cm, cloths.cut_step_cm)
    least = np.where(np.isnan(cloths.least_cut_cm), rule.least_cut_cm, cloths.least_cut_cm)
    found: Floats = np.maximum(np.ceil(np.round(length_m * 100 / step, 4)) * step, least) / 100
    return found
