"""Why these windows: every edge that the checks hold a cloth against, with the words or the detail it came from.

The edges are read off the findings themselves, so that what judges is what is shown.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

from nematex.core.cloth.columns import columns
from nematex.core.cloth.estimates import known_cloth
from nematex.core.cloth.facts import ClothFacts
from nematex.core.cloth.lexicon import key
from nematex.core.judging.demand import Demand, demand
from nematex.core.judging.judge import judge
from nematex.core.judging.verdict import Origin, Window
from nematex.core.tables import Tables

TYPES = (ClothFacts(name="a woven", structure="woven"), ClothFacts(name="a knit", structure="knit"))


@dataclass(frozen=True, slots=True)
class Edge:
    """One edge: which check and window, low or high, its number, what is tolerated beyond, and its origin."""

    check: str
    window: str
    side: str
    value: float
    tolerance: float
    unit: str
    origin: Origin
    padded: bool
    read: float | None = None  # what was read, where the shop has set another number for this pattern


def _windows(asked: Demand, tables: Tables) -> list[tuple[str, Window]]:
    """Each named window once, in the order of the checks."""
    judged = judge(columns([known_cloth(facts, tables) for facts in TYPES], tables), asked, tables)
    found: dict[str, tuple[str, Window]] = {}
    for check, findings in judged.findings.items():
        for finding in findings:
            if finding.window and finding.window.name:
                found.setdefault(finding.window.name, (check, finding.window))
    return list(found.values())


def _edges(check: str, window: Window) -> list[Edge]:
    unit = window.quantity.unit
    sides = (
        ("low", window.low, window.tolerance_low, window.low_from),
        ("high", window.high, window.tolerance_high, window.high_from),
    )
    return [
        Edge(check, window.name, side, value, tolerance, unit, origin, origin.value is not None and origin.value != value)
        for side, value, tolerance, origin in sides
        if origin is not None
    ]


def _as_said(edge: Edge, asked: Demand) -> Edge:
    """A detail in the words of the envelope: 'the tiers, read as gathers'."""
    name = edge.origin.row
    said = asked.made.said.get(name, "") if edge.origin.table == "details" else ""
    if not said or key(said) == key(name):
        return edge
    return replace(edge, origin=replace(edge.origin, words=f"the {said}, read as {name}"))


def why(asked: Demand, tables: Tables) -> list[Edge]:
    """Every edge of a demand's windows, by check; of an edge set by hand also what was read."""
    edges = [_as_said(edge, asked) for check, window in _windows(asked, tables) for edge in _edges(check, window)]
    if not asked.pattern.edge_fixes:
        return edges
    bare = demand(replace(asked.pattern, edge_fixes=()), asked.wish, tables)
    before = {
        (edge.window, edge.side): edge.value for check, window in _windows(bare, tables) for edge in _edges(check, window)
    }
    return [
        replace(edge, read=before.get((edge.window, edge.side))) if edge.origin.table == "this pattern" else edge
        for edge in edges
    ]
