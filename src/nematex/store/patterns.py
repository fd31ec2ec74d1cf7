"""Patterns in the store."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import asdict
from typing import Any

from sqlalchemy import delete, select
from sqlalchemy.dialects.mysql import insert

from nematex.core.pattern import EdgeFix, Option, Part, Pattern, ReadingFix, Requirement, Size
from nematex.store.database import Work
from nematex.store.models import PatternRow
from nematex.store.records import PatternRecord
from nematex.store.settings import bump

FACTS = (
    "name",
    "garment",
    "structure",
    "recommended",
    "avoid",
    "min_stretch_cross_pct",
    "min_stretch_length_pct",
    "lined",
    "nightwear",
    "wearer",
    "widest_piece_cm",
    "notions",
)
SHOP = ("code", "house", "difficulty", "season", "notes", "sold_as", "licence", "envelope", "id")
LISTS = ("parts", "requirements", "options", "sizes", "edge_fixes", "reading_fixes")
DRAWER_VERSION = "drawer version"


def _record(row: Any) -> PatternRecord:
    facts = Pattern(
        details=tuple(row.details),
        parts=tuple(Part(part["name"], part["fit"], tuple(part["details"])) for part in row.parts),
        requirements=tuple(Requirement(**{**need, "sizes": tuple(need["sizes"])}) for need in row.requirements),
        options=tuple(Option(each["name"], each["part"], tuple(each["views"]), tuple(each["details"])) for each in row.options),
        sizes=tuple(Size(**size) for size in row.sizes),
        edge_fixes=tuple(EdgeFix(**fix) for fix in row.edge_fixes),
        reading_fixes=tuple(ReadingFix(**{**fix, "cloths": tuple(fix["cloths"])}) for fix in row.reading_fixes),
        **{name: getattr(row, name) for name in FACTS},
    )
    return PatternRecord(facts=facts, **{name: getattr(row, name) for name in SHOP})


def _values(record: PatternRecord) -> dict[str, Any]:
    values: dict[str, Any] = {name: getattr(record.facts, name) for name in FACTS}
    values |= {name: getattr(record, name) for name in SHOP if name != "id"}
    values["details"] = list(record.facts.details)
    values |= {name: [asdict(each) for each in getattr(record.facts, name)] for name in LISTS}
    return values


def all_patterns(work: Work) -> list[PatternRecord]:
    """Every pattern, by name."""
    columns = PatternRow.__table__.columns
    return [_record(row) for row in work.execute(select(*columns).order_by(PatternRow.name, PatternRow.id))]


def pattern(work: Work, pattern_id: int) -> PatternRecord | None:
    row = work.get(PatternRow, pattern_id)
    return _record(row) if row else None


def save_patterns(work: Work, records: Iterable[PatternRecord]) -> None:
    """Insert or, where the code exists, update."""
    for record in records:
        values = _values(record)
        statement = insert(PatternRow).values(values)
        work.execute(statement.on_duplicate_key_update({n: statement.inserted[n] for n in values if n != "code"}))
    bump(work, DRAWER_VERSION)


def remove_pattern(work: Work, pattern_id: int) -> None:
    work.execute(delete(PatternRow).where(PatternRow.id == pattern_id))
    bump(work, DRAWER_VERSION)
