"""Bringing in a price list in three steps: send it, look at what it would do, apply it."""

from __future__ import annotations

from dataclasses import dataclass

from nematex.core.errors import FieldFault, UnknownChoice
from nematex.store import cloths as cloth_store
from nematex.store import patterns as pattern_store
from nematex.store import uploads
from nematex.store.records import ClothRecord, Upload
from nematex.usecases.csv_text import SheetText
from nematex.usecases.exchange import flat_cloth, read_patterns, sheet_from_file
from nematex.usecases.list_columns import guess_mapping, import_fields
from nematex.usecases.price_list import ReadRow, RowFault, bad_rows_csv, merge, read_rows
from nematex.usecases.shelf import Shop


@dataclass(frozen=True)
class Change:
    """What a good row does: new, changed (field, old, new) or the same."""

    row: int
    record: ClothRecord
    kind: str
    fields: tuple[tuple[str, str, str], ...] = ()


@dataclass(frozen=True)
class Preview:
    """A price list as it was understood."""

    upload: Upload
    sheet: SheetText
    mapping: dict[int, str]
    rows: list[ReadRow]
    changes: list[Change]
    faults: list[RowFault]

    def count(self, kind: str) -> int:
        return sum(change.kind == kind for change in self.changes)

    @property
    def bad_rows(self) -> int:
        return sum(bool(row.faults) for row in self.rows)


def send(shop: Shop, filename: str, content: bytes, supplier: str = "") -> int:
    """Keep a sent list; raises FieldFault if it is no list at all."""
    sheet_from_file(content, filename)
    with shop.database.work() as work:
        return uploads.add_upload(work, "cloths", filename, content, supplier.strip()[:120])


def _same(one: object, other: object) -> bool:
    return str(one if one not in (None, "", False) else "") == str(other if other not in (None, "", False) else "")


def _change(row: int, old: ClothRecord | None, new: ClothRecord, columns: set[str]) -> Change:
    merged = merge(old, new, columns)
    if old is None:
        return Change(row, merged, "new")
    before, after = flat_cloth(old), flat_cloth(merged)
    moved = tuple(
        (import_fields()[name].label, str(before[name] or "–"), str(after[name] or "–"))
        for name in before
        if not _same(before[name], after[name])
    )
    return Change(row, merged, "changed" if moved else "same", moved)


def preview(shop: Shop, upload_id: int) -> Preview | None:
    """What a kept list would do to the shelf."""
    with shop.database.work() as work:
        kept = uploads.upload(work, upload_id)
    if kept is None:
        return None
    sheet = sheet_from_file(kept.content, kept.filename)
    chosen = kept.mapping.get("columns")
    mapping = {int(at): name for at, name in chosen.items()} if chosen is not None else guess_mapping(sheet.header)
    rows = read_rows(sheet, mapping, kept.supplier)
    on_shelf = {record.code.casefold(): record for record in shop.shelf().records}
    columns = set(mapping.values()) | ({"supplier"} if kept.supplier else set())
    changes = [_change(row.row, on_shelf.get(row.record.code.casefold()), row.record, columns) for row in rows if row.record]
    return Preview(kept, sheet, mapping, rows, changes, [fault for row in rows for fault in row.faults])


def choose_columns(shop: Shop, upload_id: int, chosen: dict[int, str]) -> None:
    """Keep a corrected mapping; raises FieldFault if a field is taken twice."""
    taken: dict[str, int] = {}
    for at, name in chosen.items():
        if name not in import_fields():
            raise UnknownChoice("column", name, import_fields(), "field")
        if name in taken:
            label = import_fields()[name].label
            raise FieldFault("columns", label, f"is chosen for column {taken[name] + 1} and column {at + 1}; choose it once")
        taken[name] = at
    with shop.database.work() as work:
        uploads.remember_mapping(work, upload_id, {"columns": {str(at): name for at, name in chosen.items()}})


def apply(shop: Shop, upload_id: int) -> Preview | None:
    """Put the good rows on the shelf; a second time does nothing new."""
    found = preview(shop, upload_id)
    if found is None:
        return None
    moved = [change.record for change in found.changes if change.kind != "same"]
    with shop.database.work() as work:
        if moved:
            cloth_store.save_cloths(work, moved)
        uploads.mark_applied(work, upload_id)
    return found


def bad_rows(shop: Shop, upload_id: int) -> str | None:
    found = preview(shop, upload_id)
    return bad_rows_csv(found.sheet.header, found.rows) if found else None


def import_patterns(shop: Shop, filename: str, content: bytes) -> tuple[int, list[RowFault]]:
    """Save the good patterns of a file; returns how many, and the faults of the others."""
    records, faults = read_patterns(content, filename)
    if records:
        with shop.database.work() as work:
            pattern_store.save_patterns(work, records)
    return len(records), faults
