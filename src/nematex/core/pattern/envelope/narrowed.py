"""A noun for several cloths, narrowed by the weight word or the number that stands with it."""

from __future__ import annotations

from math import inf

from nematex.core.pattern.envelope.clause import Clause
from nematex.core.quantity.estimate import Range
from nematex.core.tables import Tables


def narrow(clause: Clause, weight: str | None, gsm: Range | None, tables: Tables) -> None:
    """Of a group only the cloths of the weight named with it; the weight stays with the noun."""
    if (weight or gsm) and len(clause.types) > 1:
        clause.types = _of_weight(clause.types, weight, gsm, tables)
    clause.weight, clause.gsm = weight, gsm


def _of_weight(types: tuple[str, ...], weight: str | None, gsm: Range | None, tables: Tables) -> tuple[str, ...]:
    overlaps = {}
    for name in types:
        row = tables.lexicon.get(name)
        span = gsm or tables.weight_word(weight or "medium", row.structure).pattern_gsm
        inside = min(span.high, row.weight_gsm.high) - max(span.low, row.weight_gsm.low)
        overlaps[name] = inside / min(row.weight_gsm.high - row.weight_gsm.low, max(span.high - span.low, 1.0))
    fitting = tuple(name for name in types if overlaps[name] >= tables.judging.words.group_fits)
    return fitting or (max(types, key=lambda name: overlaps[name]),)


def left_by(span: Range) -> Range | None:
    """What is left where a span is ruled out; None where that would be a hole."""
    if span.low <= 0:
        return Range(span.high, inf)
    return Range(0.0, span.low) if span.high == inf else None
