"""Cloths in the store: read all, read one, save, and the version that tells caches to look again."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

from sqlalchemy import delete, select
from sqlalchemy.dialects.mysql import insert

from nematex.core.cloth import ClothFacts, Print
from nematex.store.database import Work
from nematex.store.models import Base, ClothRow
from nematex.store.records import ClothRecord
from nematex.store.settings import bump

FACTS = (
    "name",
    "cloth",
    "fibres",
    "structure",
    "weight_gsm",
    "width_cm",
    "bending_length_cm",
    "hand",
    "stretch_cross_pct",
    "stretch_length_pct",
    "recovery_pct",
    "thickness_mm",
    "sheer",
    "nap",
    "shrink_length_pct",
    "deadstock",
    "known",
)
PRINT = ("direction", "scale_cm", "repeat_length_cm", "repeat_width_cm")
SHOP = ("code", "price_per_m", "currency", "stock_m", "supplier", "print_kind", "notes", "id")
SHELF_VERSION = "shelf version"


def _record(row: Any) -> ClothRecord:
    printed = Print(**{name: getattr(row, f"print_{name}") for name in PRINT})
    facts = ClothFacts(print=printed, **{name: getattr(row, name) for name in FACTS})
    return ClothRecord(facts=facts, colours=tuple(row.colours), **{name: getattr(row, name) for name in SHOP})


def _values(record: ClothRecord) -> dict[str, Any]:
    values: dict[str, Any] = {name: getattr(record.facts, name) for name in FACTS}
    values |= {f"print_{name}": getattr(record.facts.print, name) for name in PRINT}
    values |= {name: getattr(record, name) for name in SHOP if name != "id"}
    values["known"] = dict(record.facts.known)
    values["colours"] = list(record.colours)
    return values


def all_cloths(work: Work) -> list[ClothRecord]:
    """Every cloth, by name. Plain rows: ten thousand are read without building ORM objects."""
    columns = ClothRow.__table__.columns
    return [_record(row) for row in work.execute(select(*columns).order_by(ClothRow.name, ClothRow.id))]


def cloth(work: Work, cloth_id: int) -> ClothRecord | None:
    row = work.get(ClothRow, cloth_id)
    return _record(row) if row else None


def save_cloths(work: Work, records: Iterable[ClothRecord]) -> None:
    """Insert or, where the article code exists, update."""
    values = [_values(record) for record in records]
    if values:
        statement = insert(Base.metadata.tables["cloth"])
        changes = {name: statement.inserted[name] for name in values[0] if name != "code"}
        work.execute(statement.on_duplicate_key_update(changes), values)
    bump(work, SHELF_VERSION)


def remove_cloth(work: Work, cloth_id: int) -> None:
    work.execute(delete(ClothRow).where(ClothRow.id == cloth_id))
    bump(work, SHELF_VERSION)
