"""A day as a form has it."""

from __future__ import annotations

from datetime import date

from nematex.core.errors import FieldFault

FIRST, LAST = date(2000, 1, 1), date(2099, 12, 31)


def read_day(text: str, field: str = "date") -> date | None:
    """A day as 2026-10-24; None where nothing is said. Raises FieldFault."""
    said = text.strip()
    try:
        found = date.fromisoformat(said) if said else None
    except ValueError:
        raise FieldFault(field, said[:40], "is not a date; write it like 2026-10-24") from None
    if found and not FIRST <= found <= LAST:
        raise FieldFault(field, said[:40], f"must be from {FIRST.year} to {LAST.year}")
    return found
