"""Cloths in the store: read all, read one, save, and the version that tells caches to look again."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import asdict, fields
from datetime import datetime
from typing import Any

from sqlalchemy import select, update
from sqlalchemy.dialects.mysql import insert

from nematex.core.cloth.facts import ClothFacts, Print
from nematex.core.codes import code_key
from nematex.store.database import Work
from nematex.store.models import Base, ClothRow
from nematex.store.records import Bolt, ClothRecord, Colourway
from nematex.store.versions import SHELF, gone_since, next_version, note_gone

FACTS = tuple(each.name for each in fields(ClothFacts) if each.name != "print")
PRINT = tuple(each.name for each in fields(Print))
LISTED = ("colours", "colourways", "bolts")
SHOP = tuple(each.name for each in fields(ClothRecord) if each.name not in ("facts", "binned", *LISTED))
KIND = "cloth"
# In the order in which a row is read, by place and not by name: ten thousand of them are read at once.
READ = (*(f"print_{name}" for name in PRINT), *FACTS, *SHOP, *LISTED, "binned_at", "code_key")
COLUMNS = tuple(ClothRow.__table__.c[name] for name in READ)


def _record(row: Any) -> ClothRecord:
    """A cloth from a row of COLUMNS."""
    printed, of_print, of_facts = row[: len(PRINT)], len(PRINT), len(PRINT) + len(FACTS)
    of_shop = of_facts + len(SHOP)
    colours, colourways, bolts, binned_at = row[of_shop : of_shop + 4]
    return ClothRecord(
        facts=ClothFacts(print=Print(*printed), **dict(zip(FACTS, row[of_print:of_facts], strict=True))),
        colours=tuple(colours),
        colourways=tuple(Colourway(**{**each, "colours": tuple(each["colours"])}) for each in colourways or ()),
        bolts=tuple(Bolt(**each) for each in bolts or ()),
        binned=binned_at is not None,
        **dict(zip(SHOP, row[of_facts:of_shop], strict=True)),
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
    """The cloths that changed after a version, or every cloth, without those in the bin. No ORM objects are built."""
    chosen = select(*COLUMNS).where(ClothRow.binned_at.is_(None))
    return [_record(row) for row in work.execute(chosen if version is None else chosen.where(ClothRow.version > version))]


def cloths_gone_since(work: Work, version: int) -> set[int]:
    """Ids of the cloths that were removed after a version."""
    return gone_since(work, KIND, version)


def cloth(work: Work, cloth_id: int) -> ClothRecord | None:
    """A cloth as it is in this unit of work; None where there is none, or it is in the bin."""
    row = work.execute(select(*COLUMNS).where(ClothRow.id == cloth_id, ClothRow.binned_at.is_(None))).first()
    return _record(row) if row else None


def save_cloths(work: Work, records: Iterable[ClothRecord]) -> None:
    """Insert or, where the article code exists, update; one that was in the bin comes back with all that hung on it."""
    version = next_version(work, SHELF)
    new = {"version": version, "binned_at": None}
    values = [{**cloth_values(record), "code_key": code_key(record.code), **new} for record in records]
    if values:
        statement = insert(Base.metadata.tables["cloth"])
        changes = {name: statement.inserted[name] for name in values[0] if name not in ("code", "code_key")}
        work.execute(statement.on_duplicate_key_update(changes), values)


def announce_change(work: Work) -> None:
    """Take the shelf's next number before anything is written that belongs to a cloth, so that writers wait in turn."""
    next_version(work, SHELF)


def _by_code(work: Work, codes: Iterable[str], *columns: Any) -> Iterator[Any]:
    """The rows of these codes, some thousands at a time."""
    wanted = [code_key(code) for code in codes]
    for start in range(0, len(wanted), 2000):
        yield from work.execute(select(*columns).where(ClothRow.code_key.in_(wanted[start : start + 2000])))


def ids_by_code(work: Work, codes: Iterable[str]) -> dict[str, int]:
    """Key of the article code → id, those in the bin too."""
    return {row.code_key: row.id for row in _by_code(work, codes, ClothRow.code_key, ClothRow.id)}


def cloths_by_code(work: Work, codes: Iterable[str]) -> dict[str, ClothRecord]:
    """Key of the article code → the cloth as it is in this unit of work, in the bin or not."""
    return {row.code_key: _record(row) for row in _by_code(work, codes, *COLUMNS)}


def binned_cloths(work: Work) -> dict[str, ClothRecord]:
    """Key of the article code → cloth in the bin."""
    rows = work.execute(select(*COLUMNS).where(ClothRow.binned_at.is_not(None)))
    return {row.code_key: _record(row) for row in rows}


def change_cloth(work: Work, cloth_id: int, values: dict[str, Any]) -> None:
    """Set some columns of one cloth."""
    change_cloths(work, {cloth_id: values})


def change_cloths(work: Work, values_by_id: Mapping[int, dict[str, Any]]) -> None:
    """Set some columns of each cloth."""
    version = next_version(work, SHELF)
    for cloth_id, values in values_by_id.items():
        work.execute(update(ClothRow).where(ClothRow.id == cloth_id).values(**values, version=version))


def bin_cloths(work: Work, cloth_ids: Iterable[int]) -> None:
    """Take cloths off the shelf. What hangs on them stays with them, in the bin."""
    gone = list(cloth_ids)
    version = next_version(work, SHELF)
    note_gone(work, KIND, gone, version)
    values = {"binned_at": datetime.now().replace(microsecond=0), "version": version}
    for start in range(0, len(gone), 1000):
        work.execute(update(ClothRow).where(ClothRow.id.in_(gone[start : start + 1000])).values(values))
