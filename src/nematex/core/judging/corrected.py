"""The trade's tables with the numbers that a shop has set in them.

Each correction names a table, a row and a field as a window's edge names its origin. Units are those of the field.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, replace
from typing import Any

from nematex.core.cloth.lexicon import ClothType, Lexicon
from nematex.core.errors import FieldFault
from nematex.core.quantity.estimate import Range
from nematex.core.rules import Rules
from nematex.core.tables import Detail, HandWord, Named, Tables, WeightWord

Numbers = Mapping[tuple[str, str], float]  # (row, field) → value


@dataclass(frozen=True, slots=True)
class Correction:
    """One number set: in which table, row and field."""

    table: str
    row: str
    field: str
    value: float


def _range(span: Range, row: str, stem: str, unit: str, numbers: Numbers) -> Range:
    low = numbers.get((row, f"{stem}_lo_{unit}"), span.low)
    high = numbers.get((row, f"{stem}_hi_{unit}"), span.high)
    if low > high:
        raise FieldFault(f"{row}, {stem}", f"{low:g} to {high:g}", "would end before it begins")
    return Range(low, high)


def _cloth(kind: ClothType, numbers: Numbers) -> ClothType:
    return replace(
        kind,
        weight_gsm=_range(kind.weight_gsm, kind.name, "weight", "gsm", numbers),
        bend_cm=_range(kind.bend_cm, kind.name, "bend", "cm", numbers),
        stretch_cross_pct=_range(kind.stretch_cross_pct, kind.name, "stretch_cross", "pct", numbers),
    )


def _lexicon(tables: Tables, numbers: Numbers) -> Lexicon:
    old = tables.lexicon
    names = {row for row, _ in numbers}
    types = [_cloth(kind, numbers) if kind.name in names else kind for kind in old.types]
    groups = {word: tuple(kind.name for kind in kinds) for word, kinds in old.groups.items()}
    return Lexicon(types, groups, dict(old.knits), old.step, old.abroad)


def _details(named: Named[Detail], numbers: Numbers) -> Named[Detail]:
    changed = {}
    for detail in named.rows:
        own: dict[str, Any] = {field: value for (row, field), value in numbers.items() if row == detail.name}
        changed[detail.name] = replace(detail, **own)
    return Named(tuple(changed.values()), {alias: changed[detail.name] for alias, detail in named.by_key.items()})


def _hand(word: HandWord, numbers: Numbers) -> HandWord:
    return replace(word, bend_cm=_range(word.bend_cm, word.word, "bend", "cm", numbers))


def _judging(rules: Rules, numbers: Numbers) -> Rules:
    for (row, field), value in numbers.items():
        section: Any = getattr(rules, row)
        changed: Any = {row: replace(section, **{field: value})}
        rules = replace(rules, **changed)
    return rules


def corrected(tables: Tables, corrections: Iterable[Correction]) -> Tables:
    """The tables with every correction in force; those that name no known place change nothing."""
    by_table: dict[str, dict[tuple[str, str], float]] = {}
    for each in corrections:
        if shipped(tables, each.table, each.row, each.field) is not None:
            by_table.setdefault(each.table, {})[each.row, each.field] = each.value
    if not by_table:
        return tables
    hands, ruled_out = by_table.get("hand words", {}), by_table.get("hand words ruled out", {})
    words = by_table.get("weight words", {})
    return replace(
        tables,
        lexicon=_lexicon(tables, by_table["cloth names"]) if "cloth names" in by_table else tables.lexicon,
        weight_words=tuple(
            replace(
                row,
                pattern_gsm=_range(row.pattern_gsm, f"{row.word} ({row.structure})", "pattern", "gsm", words),
                cloth_gsm=_range(row.cloth_gsm, f"{row.word} ({row.structure})", "cloth", "gsm", words),
            )
            for row in tables.weight_words
        ),
        pattern_hands={name: _hand(word, hands) for name, word in tables.pattern_hands.items()},
        avoid_hands={name: _hand(word, ruled_out) for name, word in tables.avoid_hands.items()},
        details=_details(tables.details, by_table.get("details", {})),
        judging=_judging(tables.judging, by_table.get("judging", {})),
    )


def shipped(tables: Tables, table: str, row: str, field: str) -> float | None:
    """The number that stands in these tables at this place; None where there is none."""
    if table not in PLACES:
        return None
    record = PLACES[table](tables, row)
    low, _, of_low = field.partition("_lo_")
    high, _, of_high = field.partition("_hi_")
    span = getattr(record, f"{low}_{of_low}" if of_low else f"{high}_{of_high}", None)
    if isinstance(span, Range):
        return span.low if of_low else span.high
    number = getattr(record, field, None) if table in ("details", "judging") else None
    return number if isinstance(number, float) else None


def _weight_word(tables: Tables, row: str) -> WeightWord | None:
    return next((word for word in tables.weight_words if f"{word.word} ({word.structure})" == row), None)


PLACES: Mapping[str, Callable[[Tables, str], object]] = {
    "cloth names": lambda tables, row: tables.lexicon.get(row) if row in tables.lexicon.index else None,
    "hand words": lambda tables, row: tables.pattern_hands.get(row),
    "hand words ruled out": lambda tables, row: tables.avoid_hands.get(row),
    "weight words": _weight_word,
    "details": lambda tables, row: next((detail for detail in tables.details.rows if detail.name == row), None),
    "judging": lambda tables, row: getattr(tables.judging, row, None),
}
