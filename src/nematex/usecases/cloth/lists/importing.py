"""Bringing in a price list: send it, look at what it would do, apply it, and take it back."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Any

from nematex.core.errors import FieldFault, UnknownChoice
from nematex.core.pattern.facts import Pattern
from nematex.store.cloth import uploads
from nematex.store.cloth.cloths import cloth_values
from nematex.store.pattern import patterns as pattern_store
from nematex.store.records import ClothRecord, PatternRecord, ReadingRecord, Upload
from nematex.tables import properties
from nematex.usecases.cloth.exchange import flat_cloth
from nematex.usecases.cloth.lists.headings import guess_mapping
from nematex.usecases.cloth.lists.price_list import ReadRow, bad_rows_csv, merge, read_rows
from nematex.usecases.cloth.lists.undo import plain
from nematex.usecases.cloth.precedence import respected
from nematex.usecases.cloth.readings import keep_cloths
from nematex.usecases.files.csv_text import MAX_BYTES, SheetText
from nematex.usecases.files.faults import RowFault
from nematex.usecases.files.formats import format_of, sheet_from_file
from nematex.usecases.held.shelf import Shelf
from nematex.usecases.held.shop import Shop
from nematex.usecases.pattern.exchange import read_patterns

CHUNK = 500
Progress = Callable[[int, int], None]


@dataclass(frozen=True)
class Change:
    """What a good row does: new, changed (field, old, new) or the same; and what it says without being put in force."""

    row: int
    record: ClothRecord
    kind: str
    fields: tuple[tuple[str, str, str], ...] = ()
    said: tuple[ReadingRecord, ...] = ()


@dataclass(frozen=True)
class Preview:
    """A price list as it was understood."""

    upload: Upload
    sheet: SheetText
    mapping: dict[int, str]
    rows: list[ReadRow]
    changes: list[Change]
    faults: list[RowFault]
    gone: list[ClothRecord]
    remembered: bool

    def count(self, kind: str) -> int:
        return sum(change.kind == kind for change in self.changes)

    @property
    def bad_rows(self) -> int:
        return sum(bool(row.faults) for row in self.rows)

    @property
    def only_said(self) -> list[Change]:
        """Rows that state something less well known than what is on the shelf."""
        return [change for change in self.changes if change.said]


def send(shop: Shop, filename: str, content: bytes, supplier: str = "") -> int:
    """Keep a sent list; raises FieldFault if it is no list at all."""
    if len(content) > MAX_BYTES:
        raise FieldFault(
            "file", filename, f"has {len(content) / 2**20:.0f} MB; at most {MAX_BYTES // 2**20} MB are read: split the list"
        )
    format_of(content).check(content, filename)  # reading a large sheet takes seconds: that is the background's
    with shop.database.work() as work:
        return uploads.add_upload(work, "cloths", filename, content, supplier.strip()[:120])


def _same(one: object, other: object) -> bool:
    return str(one if one not in (None, "", False) else "") == str(other if other not in (None, "", False) else "")


def _change(row: int, old: ClothRecord | None, new: ClothRecord, columns: set[str], source: str) -> Change:
    merged = merge(old, new, columns)
    if old is None:
        return Change(row, merged, "new")
    merged, said = respected(old, merged, dict(new.facts.known), source)
    before, after = flat_cloth(old), flat_cloth(merged)
    moved = tuple(
        (properties()[name].label, str(before[name] or "–"), str(after[name] or "–"))
        for name in before
        if not _same(before[name], after[name])
    )
    return Change(row, merged, "changed" if moved else "same", moved, tuple(said))


def _mapping(kept: Upload, sheet: SheetText, headings: dict[str, str]) -> tuple[dict[int, str], bool]:
    """Column → field: as chosen, else as remembered of the supplier, else as guessed; and whether it was remembered."""
    chosen = kept.mapping.get("columns")
    if chosen is not None:
        return {int(at): name for at, name in chosen.items()}, False
    guessed = guess_mapping(sheet.header)
    known = {at: headings[heading] for at, heading in enumerate(sheet.header) if heading in headings}
    if not known:
        return guessed, False
    taken = set(known.values())
    rest = {at: name for at, name in guessed.items() if at not in known and name not in taken}
    return {at: name for at, name in {**rest, **known}.items() if name in properties()}, True


def preview(shop: Shop, upload_id: int, progress: Progress | None = None) -> Preview | None:
    """What a kept list would do to the shelf; remembered until the list, its columns or the shelf change."""
    with shop.database.work() as work:
        kept = uploads.upload(work, upload_id)
        headings = uploads.headings_of(work, kept.supplier) if kept else {}
    if kept is None:
        return None
    shelf = shop.now().shelf
    key = (upload_id, str(kept.mapping), str(headings), shelf.version)
    found = shop.previews.get(key)
    if found is None:
        found = _preview(kept, shelf, headings, progress or (lambda _done, _total: None))
        shop.remember_preview(key, found)
    return replace(found, upload=kept)


def _preview(kept: Upload, shelf: Shelf, headings: dict[str, str], progress: Progress) -> Preview:
    sheet = sheet_from_file(kept.content, kept.filename)
    progress(len(sheet.rows) // 3, len(sheet.rows))
    mapping, remembered = _mapping(kept, sheet, headings)
    rows = read_rows(sheet, mapping, shelf.tables, kept.supplier)
    progress(len(sheet.rows) * 2 // 3, len(sheet.rows))
    by_code = {record.code.casefold(): record for record in shelf.records}
    columns = set(mapping.values()) | ({"supplier"} if kept.supplier else set())
    changes = [
        _change(row.row, by_code.get(row.record.code.casefold()), row.record, columns, kept.filename)
        for row in rows
        if row.record
    ]
    listed = {change.record.code.casefold() for change in changes}
    broken = {cell.casefold() for row in rows if row.faults for cell in row.cells}  # a row with faults is not gone
    gone = [
        record
        for record in shelf.records
        if kept.supplier and record.supplier == kept.supplier and record.code.casefold() not in listed | broken
    ]
    faults = [fault for row in rows for fault in row.faults]
    return Preview(kept, sheet, mapping, rows, changes, faults, gone, remembered)


def latest_lists(shop: Shop) -> list[Upload]:
    """The lists that were sent last."""
    with shop.database.work() as work:
        return uploads.recent_uploads(work)


def choose_columns(shop: Shop, upload_id: int, chosen: dict[int, str]) -> None:
    """Keep a corrected mapping; raises FieldFault if a field is taken twice."""
    taken: dict[str, int] = {}
    for at, name in chosen.items():
        if name not in properties():
            raise UnknownChoice("column", name, properties(), "field")
        if name in taken:
            label = properties()[name].label
            raise FieldFault("columns", label, f"is chosen for column {taken[name] + 1} and column {at + 1}; choose it once")
        taken[name] = at
    with shop.database.work() as work:
        uploads.remember_mapping(work, upload_id, {"columns": {str(at): name for at, name in chosen.items()}})


def apply(shop: Shop, upload_id: int, sold_out: bool = False, progress: Progress | None = None) -> Preview | None:
    """Put the good rows on the shelf, all or none; `sold_out` sets the stock of the gone to 0. Twice does no more."""
    found = preview(shop, upload_id)
    if found is None:
        return None
    moved = [change for change in found.changes if change.kind != "same" or change.said]
    records = [change.record for change in moved]
    if sold_out:
        records += [_sold_out(record) for record in found.gone if record.stock_m != 0]
    on_shelf = {record.code.casefold(): record for record in shop.now().shelf.records}
    said = {change.record.code.casefold(): change.said for change in moved if change.said}
    with shop.database.work() as work:
        for at in range(0, len(records), CHUNK):
            part = records[at : at + CHUNK]
            extra = [(code, reading) for each in part for code in [each.code.casefold()] for reading in said.get(code, ())]
            keep_cloths(work, part, on_shelf, "price list", found.upload.filename, extra, upload_id)
            uploads.add_steps(work, upload_id, [_step(on_shelf.get(each.code.casefold()), each) for each in part])
            if progress:
                progress(at + len(part), len(records))
        if found.upload.supplier:
            headings = {found.sheet.header[column]: name for column, name in found.mapping.items()}
            uploads.remember_headings(work, found.upload.supplier, headings)
        uploads.set_state(work, upload_id, applied=True)
    return found


def _sold_out(record: ClothRecord) -> ClothRecord:
    ways = tuple(replace(each, stock_m=0.0 if each.stock_m is not None else None) for each in record.colourways)
    return replace(record, stock_m=0.0, bolts=(), colourways=ways)


def _step(old: ClothRecord | None, new: ClothRecord) -> tuple[str, dict[str, Any] | None, dict[str, Any]]:
    return new.code, plain(cloth_values(old)) if old else None, plain(cloth_values(new))


def bad_rows(shop: Shop, upload_id: int) -> str | None:
    found = preview(shop, upload_id)
    return bad_rows_csv(found.sheet.header, found.rows) if found else None


def _with_corrections(record: PatternRecord, old: Pattern | None) -> PatternRecord:
    """A file that says nothing of corrections leaves the shop's own as they are."""
    if old is None:
        return record
    facts = record.facts
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
    known = {record.code.casefold(): record.facts for record in state.drawer.records}
    records = [_with_corrections(record, known.get(record.code.casefold())) for record in records]
    if records:
        with shop.database.work() as work:
            pattern_store.save_patterns(work, records)
    return len(records), faults
