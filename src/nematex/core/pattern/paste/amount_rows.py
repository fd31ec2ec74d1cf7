"""Lines that say how much cloth: alone, for each size, or for groups of sizes."""

from __future__ import annotations

import re

from nematex.core.pattern.paste.amounts import Amounts, read_amounts
from nematex.core.pattern.paste.draft import Line
from nematex.core.pattern.paste.open_state import USES, Open
from nematex.core.pattern.paste.words import heading
from nematex.core.quantity.scan import once

# Clauses with a width of their own: '45": 3 3/8 yds, 60": 2 5/8 yds'.
_CLAUSES = re.compile(
    r";|\bor\b|(?<=[a-z])\.\s|,(?=\s*\d{2,3}\s*(?:\"|”|″|in\b|inch|cm)\s*(?:wide)?\s*\**\s*[:=])", re.IGNORECASE
)


def amounts_line(at: Open, line: Line, text: str) -> bool:
    """Amounts of cloth, in one or several clauses; outside a table only with a unit."""
    lead = heading(text, at.tables)
    use = lead[0] if lead and lead[0] in USES else at.use
    table = at.section in ("requirements", *USES)
    clauses = [part for part in _CLAUSES.split(text) if part.strip()]

    def read(part: str) -> Amounts | None:
        return read_amounts(part, at.unit, table, at.stars, narrow=use == "interfacing")

    found = [read(part) for part in clauses]
    if len(clauses) < 2 or not all(found):
        found = [read(text)]
    if not all(found) or (not table and not _plain_amount(text)):
        return False
    for amounts in found:
        if amounts and not _add(at, line, amounts, use):
            return True
    line.field = use if use != "main" else "requirements"
    return True


def _plain_amount(text: str) -> bool:
    """Outside a table of amounts a line must say a length with its unit."""
    return any(each.unit in ("m", "yd") for each in once(text))


def _add(at: Open, line: Line, amounts: Amounts, use: str) -> bool:
    lengths = list(amounts.lengths_m)
    if len(lengths) == 1:
        labels = [at.own_label(label) for label in amounts.sizes] or [label for group in at.groups for label in group]
        rows = [(labels, lengths[0])]
    elif len(lengths) == len(at.groups):
        rows = _together(at, lengths)
    else:
        line.fault = f"has {len(lengths)} amounts for {len(at.groups)} sizes; give one, or one for each"
        return False
    for view in at.views or ["A"]:
        for labels, length in rows:
            at.draft.requirements.append(
                {
                    "view": view,
                    "sizes": labels,
                    "width_cm": amounts.width_cm,
                    "length_m": length,
                    "with_nap": amounts.with_nap or at.nap,
                    "use": use,
                }
            )
    at.last_count = len(lengths)
    return True


def _together(at: Open, lengths: list[float]) -> list[tuple[list[str], float]]:
    """Neighbouring sizes that take the same length are one row."""
    rows: list[tuple[list[str], float]] = []
    for group, length in zip(at.groups, lengths, strict=True):
        if rows and rows[-1][1] == length:
            rows[-1][0].extend(group)
        else:
            rows.append((list(group), length))
    return rows
