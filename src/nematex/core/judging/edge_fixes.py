"""Edges of windows as a shop has set them for one pattern, with the reason: they take the place of what was read."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from nematex.core.judging.verdict import Origin, Window
from nematex.core.pattern.facts import EdgeFix

SIDES = ("low", "high")
# Windows that were one with another when a shop may have set its edges.
FORMERLY = {"drape shirt band": "drape shirt collar"}


def with_fixes(window: Window, fixes: Sequence[EdgeFix]) -> Window:
    """The window with the edges that were set for it, also before it was parted from another; the last one set counts."""
    names = (window.name, FORMERLY.get(window.name, window.name))
    for fix in sorted(fixes, key=lambda each: each.window == window.name):
        if fix.window in names and fix.side in SIDES:
            origin = Origin(f"set by hand: {fix.reason}", "this pattern", window.name, fix.side, fix.value)
            if fix.side == "low":
                window = replace(window, low=fix.value, low_from=origin)
            else:
                window = replace(window, high=fix.value, high_from=origin)
    return window
