"""What can be wrong with what the core is given.

NematexError
├── FieldFault (ValueError)      one field holds what the rules cannot use
│   └── UnknownChoice            ... because it is not one of the choices
└── TableFault (ValueError)      a table of the trade that ships, or a shop's correction of it, is not sound
"""

from __future__ import annotations

from collections.abc import Iterable
from difflib import get_close_matches


class NematexError(Exception):
    """Root of the errors that a user can mend."""


class FieldFault(NematexError, ValueError):
    """A field's value breaks a rule; the message names field, value, rule and choices."""

    def __init__(self, field: str, value: object, rule: str) -> None:
        super().__init__(f"{field}: {value!r} {rule}")
        self.field = field
        self.value = value
        self.rule = rule


class UnknownChoice(FieldFault):
    """The value is not one of the choices; the nearest ones are named first."""

    def __init__(self, field: str, value: object, choices: Iterable[str], kind: str = "value") -> None:
        known = list(choices)
        near = get_close_matches(str(value).casefold(), known, n=5, cutoff=0.5)
        shown = near if near and len(known) > 12 else known[:40]
        lead = "the nearest are" if shown is near else "choose from"
        super().__init__(field, value, f"is not a known {kind}; {lead}: {', '.join(shown)}")
        self.choices = known


class TableFault(NematexError, ValueError):
    """A table's place holds what cannot be used; found when the tables are read, so at the start."""

    def __init__(self, place: str, value: object, rule: str) -> None:
        super().__init__(f"{place}: {value!r} {rule}")
        self.place = place
