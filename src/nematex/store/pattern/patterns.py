"""Patterns in the store."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import asdict
from datetime import datetime
from typing import Any

from sqlalchemy import select, update
from sqlalchemy.dialects.mysql import insert

from nematex.core.codes import code_key
from nematex.core.pattern.facts import EdgeFix, Option, Part, Pattern, ReadingFix, Requirement, Size
from nematex.store.database import Work
from nematex.store.models import PatternRow
from nematex.store.records import PatternRecord
from nematex.store.versions import DRAWER, gone_since, next_version, note_gone

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
SHOP = ("code", "house", "difficulty", "season", "notes", "sold_as", "licence", "link", "envelope", "id", "version")
LISTS = ("parts", "requirements", "options", "sizes", "edge_fixes", "reading_fixes")
KIND = "pattern"


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
    values |= {name: getattr(record, name) for name in SHOP if name not in ("id", "version")}
    values["details"] = list(record.facts.details)
    values |= {name: [asdict(each) for each in getattr(record.facts, name)] for name in LISTS}
    return values


def patterns_since(work: Work, version: int | None) -> list[PatternRecord]:
    """The patterns that changed after a version, or every pattern, without those in the bin."""
    chosen = select(*PatternRow.__table__.columns).where(PatternRow.binned_at.is_(None))
    return [_record(row) for row in work.execute(chosen if version is None else chosen.where(PatternRow.version > version))]


def patterns_gone_since(work: Work, version: int) -> set[int]:
    """Ids of the patterns that were removed after a version."""
    return gone_since(work, KIND, version)


def pattern(work: Work, pattern_id: int) -> PatternRecord | None:
    """A pattern as it is in this unit of work; None where there is none, or it is in the bin."""
    chosen = select(*PatternRow.__table__.columns).where(PatternRow.id == pattern_id, PatternRow.binned_at.is_(None))
    row = work.execute(chosen).first()
    return _record(row) if row else None


def ids_of_patterns(work: Work) -> dict[str, int]:
    """Key of the code → number, those in the bin too."""
    return {row.code_key: row.id for row in work.execute(select(PatternRow.code_key, PatternRow.id))}


def patterns_by_code(work: Work) -> dict[str, PatternRecord]:
    """Key of the code → pattern, those in the bin too."""
    return {row.code_key: _record(row) for row in work.execute(select(*PatternRow.__table__.columns))}


def announce_change(work: Work) -> None:
    """Take the drawer's next number before anything is looked at that is then written, so that writers wait in turn."""
    next_version(work, DRAWER)


def save_patterns(work: Work, records: Iterable[PatternRecord]) -> None:
    """Insert or, where the code exists, update; one that was in the bin comes back with all that hung on it."""
    version = next_version(work, DRAWER)
    for record in records:
        values = {**_values(record), "code_key": code_key(record.code), "version": version, "binned_at": None}
        statement = insert(PatternRow).values(values)
        kept = ("code", "code_key")
        work.execute(statement.on_duplicate_key_update({n: statement.inserted[n] for n in values if n not in kept}))


def bin_pattern(work: Work, pattern_id: int) -> None:
    """Take a pattern out of the drawer. What hangs on it stays with it, in the bin."""
    version = next_version(work, DRAWER)
    note_gone(work, KIND, [pattern_id], version)
    values = {"binned_at": datetime.now().replace(microsecond=0), "version": version}
    work.execute(update(PatternRow).where(PatternRow.id == pattern_id).values(values))
