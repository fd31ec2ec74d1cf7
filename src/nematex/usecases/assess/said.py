"""What an envelope's list says, clause by clause, as JSON: for whoever wants to see why a cloth is asked for."""

from __future__ import annotations

from typing import Any

from nematex.core.pattern.envelope import Interpretation
from nematex.core.pattern.envelope.clause import Clause
from nematex.core.quantity.estimate import Range


def said(reading: Interpretation) -> dict[str, Any]:
    """`clauses` in their order, `roles` with the cloths of each part or layer, `not_read` with where it stands in the text."""
    return {
        "clauses": [_clause(clause) for clause in reading.clauses],
        "roles": _roles(reading.clauses),
        "not_read": [
            {"words": reading.text[heap.start : heap.end], "start": heap.start, "end": heap.end}
            for heap in reading.heaps
            if heap.kind == "unread"
        ],
    }


def _clause(clause: Clause) -> dict[str, Any]:
    value = _span(clause.value) if isinstance(clause.value, Range) else clause.value
    found = {
        "kind": clause.kind,
        "words": clause.words,
        "standing": clause.standing,
        "value": value,
        "cloths": list(clause.types),
        "weight": clause.weight,
        "gsm": _span(clause.gsm) if clause.gsm else None,
        "structure": clause.structure,
        "role": clause.role,
        "views": [view.upper() for view in clause.views],
        "conditions": [{"kind": each.kind, "words": each.words} for each in clause.conditions],
        "start": clause.start,
        "end": clause.end,
    }
    return {name: value for name, value in found.items() if value not in (None, "", [])}


def _span(span: Range) -> list[float | None]:
    """Lower and upper edge; None where a side is open."""
    return [round(span.low, 1) or None, round(span.high, 1) if span.high < float("inf") else None]


def _roles(clauses: list[Clause]) -> dict[str, list[str]]:
    found: dict[str, list[str]] = {}
    for clause in clauses:
        if clause.kind == "cloth" and clause.role and not clause.out:
            found.setdefault(clause.role, []).append(clause.words)
    return found
