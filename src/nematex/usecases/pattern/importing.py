"""Bringing patterns in from a file."""

from __future__ import annotations

from dataclasses import replace

from nematex.core.codes import code_key
from nematex.store.pattern import patterns as pattern_store
from nematex.store.records import PatternRecord
from nematex.usecases.files.faults import RowFault
from nematex.usecases.held.shop import Shop
from nematex.usecases.pattern.exchange import read_patterns


def _with_corrections(record: PatternRecord, kept: PatternRecord | None) -> PatternRecord:
    """A file that says nothing of corrections leaves the shop's own as they are."""
    if kept is None:
        return record
    facts, old = record.facts, kept.facts
    return replace(
        record,
        facts=replace(
            facts,
            edge_fixes=facts.edge_fixes or old.edge_fixes,
            reading_fixes=facts.reading_fixes or old.reading_fixes,
        ),
    )


def import_patterns(shop: Shop, filename: str, content: bytes) -> tuple[int, list[RowFault]]:
    """Save the good patterns of a file; returns how many, and the faults of the others."""
    state = shop.now()
    records, faults = read_patterns(content, filename, state.tables)
    if records:
        with shop.database.work() as work:
            pattern_store.announce_change(work)
            known = pattern_store.patterns_by_code(work)
            records = [_with_corrections(record, known.get(code_key(record.code))) for record in records]
            pattern_store.save_patterns(work, records)
    return len(records), faults
