"""Cloths in the store: read all, read one, save, and the version that tells caches to look again."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import asdict, fields
from typing import Any

from sqlalchemy import delete, select, update
from sqlalchemy.dialects.mysql import insert

from nematex.core.cloth import ClothFacts, Print
from nematex.store.database import Work
from nematex.store.models import Base, ClothRow
from nematex.store.records import Bolt, ClothRecord, Colourway
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
    "drape_coefficient_pct",
    "deadstock",
    "known",
)
PRINT = ("direction", "scale_cm", "repeat_length_cm", "repeat_width_cm")
LISTED = ("colours", "colourways", "bolts")
SHOP = tuple(each.name for each in fields(ClothRecord) if each.name not in ("facts", *LISTED))
SHELF_VERSION = "shelf version"


def _record(row: Any) -> ClothRecord:
    printed = Print(**{name: getattr(row, f"print_{name}") for name in PRINT})
    facts = ClothFacts(print=printed, **{name: getattr(row, name) for name in FACTS})
    return ClothRecord(
        facts=facts,
        colours=tuple(row.colours),
        colourways=tuple(Colourway(**{**each, "colours": tuple(each["colours"])}) for each in row.colourways or ()),
        bolts=tuple(Bolt(**each) for each in row.bolts or ()),
        **{name: getattr(row, name) for name in SHOP},
    )


def cloth_values(record: ClothRecord) -> dict[str, Any]:
    """A cloth as the values of its columns."""
    values: dict[str, Any] = {name: getattr(record.facts, name) for name in FACTS}
    values |= {f"print_{name}": getattr(record.facts.print, name) for name in PRINT}
    values |= {name: getattr(record, name) for name in SHOP if name != "id"}
    values["known"] = dict(record.facts.known)
    values["colours"] = list(record.colours)
    values["colourways"] = [{**asdict(each), "colours": list(each.colours)} for each in record.colourways]
    values["bolts"] = [asdict(each) for each in record.bolts]
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
    values = [cloth_values(record) for record in records]
    if values:
        statement = insert(Base.metadata.tables["cloth"])
        changes = {name: statement.inserted[name] for name in values[0] if name != "code"}
        work.execute(statement.on_duplicate_key_update(changes), values)
    bump(work, SHELF_VERSION)


def ids_by_code(work: Work, codes: Iterable[str]) -> dict[str, int]:
    """Article code (folded) → id."""
    wanted = list(codes)
    found: dict[str, int] = {}
    for at in range(0, len(wanted), 2000):
        chosen = select(ClothRow.code, ClothRow.id).where(ClothRow.code.in_(wanted[at : at + 2000]))
        found |= {row.code.casefold(): row.id for row in work.execute(chosen)}
    return found


def change_cloth(work: Work, cloth_id: int, values: dict[str, Any]) -> None:
    """Set some columns of one cloth."""
    change_cloths(work, {cloth_id: values})


def change_cloths(work: Work, values_by_id: Mapping[int, dict[str, Any]]) -> None:
    """Set some columns of each cloth."""
    for cloth_id, values in values_by_id.items():
        if values:
            work.execute(update(ClothRow).where(ClothRow.id == cloth_id).values(**values))
    bump(work, SHELF_VERSION)


def remove_cloths(work: Work, cloth_ids: Iterable[int]) -> None:
    """Take cloths off, with their readings and photos."""
    gone = list(cloth_ids)
    for at in range(0, len(gone), 1000):
        work.execute(delete(ClothRow).where(ClothRow.id.in_(gone[at : at + 1000])))
    bump(work, SHELF_VERSION)
