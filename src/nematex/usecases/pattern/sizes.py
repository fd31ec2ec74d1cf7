"""Sizes and figures: which size for these measurements, what a pattern covers, what each size asks of a knit; and which
other pattern of that look reaches a body that this one does not."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from nematex.core.errors import FieldFault
from nematex.core.pattern.ease import Ease, NeededStretch, eases, needed_stretch
from nematex.core.pattern.facts import Pattern
from nematex.core.pattern.look import look_of
from nematex.core.pattern.sizing import Body, Choice, choose_size, covers
from nematex.core.quantity.reader import read_length_cm
from nematex.core.set.copy_look import distance, steps_to
from nematex.core.tables import Tables
from nematex.store.records import PatternRecord

PLACES = {"bust": "Full bust", "high_bust": "High bust", "waist": "Waist", "hip": "Hip", "ease": "Ease wanted"}
MINUS = ("-", "−", "–")
LOOKED_AT = frozenset(("length", "sleeve", "neck", "collar", "skirt", "leg", "waist"))
SHOWN = 3


@dataclass(frozen=True)
class Figures:
    """The body range, ease per size, what a knit must give, and the answer for a body if one was given."""

    covers: dict[str, tuple[float, float]]
    ease: dict[str, list[Ease]]
    needed: list[NeededStretch]
    choices: list[Choice]
    fault: FieldFault | None
    body: Body | None = None

    @property
    def out_of_reach(self) -> bool:
        """Whether a body was given that no size of it reaches."""
        return bool(self.choices) and not any(choice.size for choice in self.choices)


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


@dataclass(frozen=True)
class Reaches:
    """Another pattern that reaches a body: its sizes, and how its look differs (respect, what it has)."""

    record: PatternRecord
    sizes: tuple[str, ...]
    differs: tuple[tuple[str, str], ...]


def others_reaching(records: Sequence[PatternRecord], own: PatternRecord, body: Body, tables: Tables) -> list[Reaches]:
    """Patterns of the same sort that reach this body, the nearest in look first; none that does not reach it."""
    rule, want = tables.judging.copy_look, look_of(own.facts, tables)
    found: list[tuple[float, Reaches]] = []
    for record in records:
        has = look_of(record.facts, tables)
        if record.id == own.id or has.kind != want.kind or record.facts.wearer != own.facts.wearer:
            continue
        sizes = _sizes_for(record.facts, body, tables)
        steps = steps_to(want, has, LOOKED_AT, rule) if sizes else None
        if steps is not None:
            differs = tuple((step.respect, step.has) for step in steps)
            found.append((distance(steps, rule), Reaches(record, sizes, differs)))
    return [each for _, each in sorted(found, key=lambda each: each[0])][:SHOWN]


def _sizes_for(pattern: Pattern, body: Body, tables: Tables) -> tuple[str, ...]:
    """The sizes that reach a body; none where the pattern has no table, or nothing that decides was measured."""
    try:
        return tuple(each.size for each in choose_size(pattern, body, tables) if each.size)
    except FieldFault:
        return ()


def figures_of(pattern: Pattern, given: Mapping[str, str], tables: Tables) -> Figures:
    """Everything about sizes; a body that cannot be read is a fault beside what can be shown."""
    choices: list[Choice] = []
    fault, body = None, None
    try:
        body = read_body(given)
        choices = choose_size(pattern, body, tables, bool(given.get("over"))) if body else []
    except FieldFault as raised:
        fault = raised
    ranges = {place: found for place in ("bust", "waist", "hip") if (found := covers(pattern, place))}
    ease = {size.label: own for size in pattern.sizes if (own := eases(size))}
    needed = needed_stretch(pattern, tables) if pattern.structure in (None, "knit") else []
    return Figures(ranges, ease, needed, choices, fault, body)
