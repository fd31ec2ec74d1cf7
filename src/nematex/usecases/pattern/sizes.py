"""Sizes and figures: which size for these measurements, what a pattern covers, what each size asks of a knit."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from nematex.core.errors import FieldFault
from nematex.core.pattern.ease import Ease, NeededStretch, eases, needed_stretch
from nematex.core.pattern.facts import Pattern
from nematex.core.pattern.sizing import Body, Choice, choose_size, covers
from nematex.core.quantity.reader import read_length_cm
from nematex.core.tables import Tables

PLACES = {"bust": "Full bust", "high_bust": "High bust", "waist": "Waist", "hip": "Hip", "ease": "Ease wanted"}
MINUS = ("-", "−", "–")


@dataclass(frozen=True)
class Figures:
    """The body range, ease per size, what a knit must give, and the answer for a body if one was given."""

    covers: dict[str, tuple[float, float]]
    ease: dict[str, list[Ease]]
    needed: list[NeededStretch]
    choices: list[Choice]
    fault: FieldFault | None


def read_body(given: Mapping[str, str]) -> Body | None:
    """Measurements in cm, or in inches where they say so; None where nothing was given. Raises FieldFault."""
    values: dict[str, float] = {}
    for name, label in PLACES.items():
        text = given.get(name, "").strip()
        negative = name == "ease" and text[:1] in MINUS  # smaller than the body
        if text:
            value = read_length_cm(text[negative:], label, "in" if given.get("unit") == "in" else "cm")
            values[f"{name}_cm"] = -value if negative else value
    return Body(**values) if values else None


def figures_of(pattern: Pattern, given: Mapping[str, str], tables: Tables) -> Figures:
    """Everything about sizes; a body that cannot be read is a fault beside what can be shown."""
    choices: list[Choice] = []
    fault = None
    try:
        body = read_body(given)
        choices = choose_size(pattern, body, tables, bool(given.get("over"))) if body else []
    except FieldFault as raised:
        fault = raised
    ranges = {place: found for place in ("bust", "waist", "hip") if (found := covers(pattern, place))}
    ease = {size.label: own for size in pattern.sizes if (own := eases(size))}
    needed = needed_stretch(pattern, tables) if pattern.structure in (None, "knit") else []
    return Figures(ranges, ease, needed, choices, fault)
