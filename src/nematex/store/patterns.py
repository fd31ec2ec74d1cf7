"""Patterns in the store."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import asdict
from typing import Any

from sqlalchemy import delete, select
from sqlalchemy.dialects.mysql import insert

from nematex.core.pattern import Part, Pattern, Requirement
from nematex.store.database import Work
from nematex.store.models import PatternRow
from nematex.store.records import PatternRecord, SizeRow
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
)
SHOP = ("code", "house", "difficulty", "season", "notions", "notes", "id")
DRAWER_VERSION = "drawer version"


def _record(row: Any) -> PatternRecord:
    facts = Pattern(
        details=tuple(row.details),
        parts=tuple(Part(part["name"], part["fit"], tuple(part["details"])) for part in row.parts),
        requirements=tuple(Requirement(**{**need, "sizes": tuple(need["sizes"])}) for need in row.requirements),
        **{name: getattr(row, name) for name in FACTS},
    )
    sizes = tuple(SizeRow(**size) for size in row.sizes)
    return PatternRecord(facts=facts, sizes=sizes, **{name: getattr(row, name) for name in SHOP})


def _values(record: PatternRecord) -> dict[str, Any]:
    values: dict[str, Any] = {name: getattr(record.facts, name) for name in FACTS}
    values |= {name: getattr(record, name) for name in SHOP if name != "id"}
    values["details"] = list(record.facts.details)
    values["parts"] = [asdict(part) for part in record.facts.parts]
    values["requirements"] = [asdict(need) for need in record.facts.requirements]
    values["sizes"] = [asdict(size) for size in record.sizes]
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
