"""Cloths in the store: read all, read one, save, and the version that tells caches to look again."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import asdict, fields
from typing import Any

from sqlalchemy import delete, func, select, update
from sqlalchemy.dialects.mysql import insert

from nematex.core.cloth.facts import ClothFacts, Print
from nematex.store.database import Work
from nematex.store.models import Base, ClothRow
from nematex.store.records import Bolt, ClothRecord, Colourway
from nematex.store.versions import SHELF, gone_since, next_version, note_gone

FACTS = tuple(each.name for each in fields(ClothFacts) if each.name != "print")
PRINT = tuple(each.name for each in fields(Print))
LISTED = ("colours", "colourways", "bolts")
SHOP = tuple(each.name for each in fields(ClothRecord) if each.name not in ("facts", *LISTED))
KIND = "cloth"


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
    values |= {name: getattr(record, name) for name in SHOP if name not in ("id", "version")}
    values["known"] = dict(record.facts.known)
    values["more"] = dict(record.more)
    values["colours"] = list(record.colours)
    values["colourways"] = [{**asdict(each), "colours": list(each.colours)} for each in record.colourways]
    values["bolts"] = [asdict(each) for each in record.bolts]
    return values


def cloths_since(work: Work, version: int | None) -> list[ClothRecord]:
    """The cloths that changed after a version, or every cloth. Plain rows: no ORM objects are built."""
    chosen = select(*ClothRow.__table__.columns)
    return [_record(row) for row in work.execute(chosen if version is None else chosen.where(ClothRow.version > version))]


def count_since(work: Work, version: int) -> int:
    """How many cloths changed after a version."""
    return work.scalar(select(func.count()).select_from(ClothRow).where(ClothRow.version > version)) or 0


def cloths_gone_since(work: Work, version: int) -> set[int]:
    """Ids of the cloths that were removed after a version."""
    return gone_since(work, KIND, version)


def cloth(work: Work, cloth_id: int) -> ClothRecord | None:
    row = work.get(ClothRow, cloth_id)
    return _record(row) if row else None


def save_cloths(work: Work, records: Iterable[ClothRecord]) -> None:
    """Insert or, where the article code exists, update."""
    version = next_version(work, SHELF)
    values = [{**cloth_values(record), "version": version} for record in records]
    if values:
        statement = insert(Base.metadata.tables["cloth"])
        changes = {name: statement.inserted[name] for name in values[0] if name != "code"}
        work.execute(statement.on_duplicate_key_update(changes), values)


def announce_change(work: Work) -> None:
    """Take the shelf's next number before anything is written that belongs to a cloth, so that writers wait in turn."""
    next_version(work, SHELF)


def ids_by_code(work: Work, codes: Iterable[str]) -> dict[str, int]:
    """Article code (folded) → id."""
    wanted = list(codes)
    found: dict[str, int] = {}
    for at in range(0, len(wanted), 2000):
        chosen = select(ClothRow.code, ClothRow.id).where(ClothRow.code.in_(wanted[at : at + 2000]))
        found |= {row.code.casefold(): row.id for row in work.execute(chosen)}
    return found


def cloths_by_code(work: Work, codes: Iterable[str]) -> dict[str, ClothRecord]:
    """Article code (folded) → the cloth as it is in this unit of work."""
    wanted = list(codes)
    by_code: dict[str, ClothRecord] = {}
    for start in range(0, len(wanted), 2000):
        chosen = select(*ClothRow.__table__.columns).where(ClothRow.code.in_(wanted[start : start + 2000]))
        by_code |= {row.code.casefold(): _record(row) for row in work.execute(chosen)}
    return by_code


def change_cloth(work: Work, cloth_id: int, values: dict[str, Any]) -> None:
    """Set some columns of one cloth."""
    change_cloths(work, {cloth_id: values})


def change_cloths(work: Work, values_by_id: Mapping[int, dict[str, Any]]) -> None:
    """Set some columns of each cloth."""
    version = next_version(work, SHELF)
    for cloth_id, values in values_by_id.items():
        work.execute(update(ClothRow).where(ClothRow.id == cloth_id).values(**values, version=version))


def remove_cloths(work: Work, cloth_ids: Iterable[int]) -> None:
    """Take cloths off, with their readings and photos."""
    gone = list(cloth_ids)
    note_gone(work, KIND, gone, next_version(work, SHELF))
    for start in range(0, len(gone), 1000):
        work.execute(delete(ClothRow).where(ClothRow.id.in_(gone[start : start + 1000])))
