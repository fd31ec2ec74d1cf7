"""Bringing in a price list: send it, look at what it would do, apply it, and take it back."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from typing import Any

from nematex.core.codes import code_key
from nematex.core.errors import FieldFault, UnknownChoice
from nematex.store.cloth import uploads
from nematex.store.cloth.cloths import announce_change, binned_cloths, cloth_values, cloths_by_code
from nematex.store.database import Work
from nematex.store.pattern import patterns as pattern_store
from nematex.store.records import ClothRecord, PatternRecord, ReadingRecord, Upload
from nematex.tables import properties
from nematex.usecases.cloth.exchange import flat_cloth
from nematex.usecases.cloth.lists.headings import guess_mapping
from nematex.usecases.cloth.lists.price_list import ReadRow, bad_rows_csv, merge, read_rows
from nematex.usecases.cloth.lists.undo import IN_BIN, plain
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
    """What a good row does: new, back (from the bin), changed (field, old, new) or the same; what it says without effect."""

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
    columns: set[str]

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


def _changes(rows: list[ReadRow], by_code: Mapping[str, ClothRecord], columns: set[str], source: str) -> list[Change]:
    """What each good row does to the cloths as they are."""
    return [_change(row.row, by_code.get(code_key(row.record.code)), row.record, columns, source) for row in rows if row.record]


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
    kind = "back" if old.binned else "changed" if moved else "same"
    return Change(row, merged, kind, moved, tuple(said))


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
        binned = binned_cloths(work)
    if kept is None:
        return None
    shelf = shop.now().shelf
    key = (upload_id, str(kept.mapping), str(headings), shelf.version)
    found = shop.previews.get(key)
    if found is None:
        found = _preview(kept, shelf, binned, headings, progress or (lambda _done, _total: None))
        shop.remember_preview(key, found)
    return replace(found, upload=kept)


def _preview(
    kept: Upload, shelf: Shelf, binned: Mapping[str, ClothRecord], headings: dict[str, str], progress: Progress
) -> Preview:
    sheet = sheet_from_file(kept.content, kept.filename)
    progress(len(sheet.rows) // 3, len(sheet.rows))
    mapping, remembered = _mapping(kept, sheet, headings)
    rows = read_rows(sheet, mapping, shelf.tables, kept.supplier)
    progress(len(sheet.rows) * 2 // 3, len(sheet.rows))
    by_code = {**binned, **{code_key(record.code): record for record in shelf.records}}
    columns = set(mapping.values()) | ({"supplier"} if kept.supplier else set())
    changes = _changes(rows, by_code, columns, kept.filename)
    listed = {code_key(change.record.code) for change in changes}
    broken = {code_key(cell) for row in rows if row.faults for cell in row.cells}  # a row with faults is not gone
    gone = [
        record
        for record in shelf.records
        if kept.supplier and record.supplier == kept.supplier and code_key(record.code) not in listed | broken
    ]
    faults = [fault for row in rows for fault in row.faults]
    return Preview(kept, sheet, mapping, rows, changes, faults, gone, remembered, columns)


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
    """Put the good rows on the shelf, all or none; `sold_out` sets the stock of the gone to 0. Twice does no more.

    The rows are laid on the cloths as they are at that moment: what somebody typed since the list was looked at stays.
    """
    seen = preview(shop, upload_id)
    if seen is None:
        return None
    codes = [row.record.code for row in seen.rows if row.record]
    with shop.database.work() as work:
        announce_change(work)
        now = cloths_by_code(work, codes + [record.code for record in seen.gone])
        found = replace(seen, changes=_changes(seen.rows, now, seen.columns, seen.upload.filename))
        _put_on_shelf(work, found, now, sold_out, progress)
        if found.upload.supplier:
            headings = {found.sheet.header[column]: name for column, name in found.mapping.items()}
            uploads.remember_headings(work, found.upload.supplier, headings)
        uploads.set_state(work, upload_id, applied=True)
    return found


def _put_on_shelf(
    work: Work, found: Preview, now: Mapping[str, ClothRecord], sold_out: bool, progress: Progress | None
) -> None:
    moved = [change for change in found.changes if change.kind != "same" or change.said]
    records = [change.record for change in moved]
    if sold_out:
        gone = [now.get(code_key(record.code)) for record in found.gone]
        records += [_sold_out(record) for record in gone if record and record.stock_m != 0 and not record.binned]
    said = {code_key(change.record.code): change.said for change in moved if change.said}
    for at in range(0, len(records), CHUNK):
        part = records[at : at + CHUNK]
        extra = [(code, reading) for each in part for code in [code_key(each.code)] for reading in said.get(code, ())]
        keep_cloths(work, part, now, "price list", found.upload.filename, extra, found.upload.id)
        uploads.add_steps(work, found.upload.id, [_step(now.get(code_key(each.code)), each) for each in part])
        if progress:
            progress(at + len(part), len(records))


def _sold_out(record: ClothRecord) -> ClothRecord:
    ways = tuple(replace(each, stock_m=0.0 if each.stock_m is not None else None) for each in record.colourways)
    return replace(record, stock_m=0.0, bolts=(), colourways=ways)


def _step(old: ClothRecord | None, new: ClothRecord) -> tuple[str, dict[str, Any] | None, dict[str, Any]]:
    before = plain(cloth_values(old)) | ({IN_BIN: True} if old.binned else {}) if old else None
    return new.code, before, plain(cloth_values(new))


def bad_rows(shop: Shop, upload_id: int) -> str | None:
    found = preview(shop, upload_id)
    return bad_rows_csv(found.sheet.header, found.rows) if found else None


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
