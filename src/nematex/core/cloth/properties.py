"""What can be known of a cloth: each property is one row of data/properties.csv, and everything else is made from it.

Form, import, export, `assess`, how a value counts as known, readings and what they decide all read the row.
"""

from __future__ import annotations

from dataclasses import dataclass
from enum import Enum

from nematex.core.errors import FieldFault
from nematex.core.quantity.estimate import Known


class Home(Enum):
    """Where a cloth's record keeps it."""

    FACTS = "facts"  # what the rules read
    PRINT = "print"  # of the print; the name without its "print_"
    SHOP = "shop"  # a field of the record that the rules do not read
    MORE = "more"  # a property without a field of its own: a row here is all it needs


@dataclass(frozen=True, slots=True)
class Property:
    """One property: how it is read, its unit and limits, how it counts as known, where it stands in form and lists.

    `reading` is number or word where readings of it are kept, else empty; `check` is the check that it decides.
    """

    name: str
    label: str
    kind: str
    unit: str
    low: float
    high: float
    agree_pct: float
    reading: str
    known: Known | None
    check: str
    words: tuple[str, ...]
    longest: int
    home: Home
    group: str
    form_label: str
    hint: str
    headings: tuple[str, ...]

    def checked(self, number: float) -> float:
        """The number, or FieldFault where it cannot be right."""
        if not self.low <= number <= self.high:
            limits = f"between {self.low:g} and {self.high:g} {self.unit}"
            raise FieldFault(self.label, round(number, 3), f"cannot be right: it lies {limits}")
        return number
