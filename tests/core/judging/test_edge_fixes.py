"""Edges that a shop has set for one pattern take the place of what was read, and say so."""

from __future__ import annotations

from nematex.core.judging.edge_fixes import with_fixes
from nematex.core.judging.verdict import Origin, Window
from nematex.core.pattern.facts import EdgeFix

READ = Window(100.0, 200.0, 15.0, 30.0, ("lawn",), "weight list woven", Origin("lawn"), Origin("lawn"))


def fix(side: str, value: float, window: str = "weight list woven", reason: str = "seen on the table") -> EdgeFix:
    return EdgeFix(window, side, value, reason)


def test_an_edge_set_by_hand_takes_the_place_of_the_one_read() -> None:
    low, high = with_fixes(READ, [fix("low", 120.0)]), with_fixes(READ, [fix("high", 180.0)])
    assert (low.low, low.high, high.low, high.high) == (120.0, 200.0, 100.0, 180.0)
    said = "set by hand: seen on the table"
    assert low.low_from == Origin(said, "this pattern", "weight list woven", "low", 120.0)
    assert high.high_from == Origin(said, "this pattern", "weight list woven", "high", 180.0)
    assert (low.high_from, high.low_from) == (READ.high_from, READ.low_from)
    assert (low.tolerance_low, high.tolerance_high, low.sources) == (15.0, 30.0, ("lawn",))


def test_the_last_one_set_counts_and_others_are_left_alone() -> None:
    assert with_fixes(READ, [fix("low", 120.0), fix("low", 130.0), fix("high", 190.0)]).low == 130.0
    assert with_fixes(READ, [fix("low", 120.0, window="drape list woven")]) == READ
    assert with_fixes(READ, [fix("middle", 120.0)]) == READ
    assert with_fixes(READ, []) is READ
