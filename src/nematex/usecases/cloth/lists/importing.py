"""Bringing in a price list: send it, look at what it would do, apply it, and take it back."""

from __future__ import annotations

import json
from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from typing import Any

from nematex.core.codes import code_key
from nematex.core.errors import FieldFault
from nematex.core.tables import Tables
from nematex.store.cloth import uploads
from nematex.store.cloth.cloths import announce_change, binned_cloths, cloth_values, cloths_by_code
from nematex.store.cloth.list_words import told_words
from nematex.store.database import Work
from nematex.store.records import ClothRecord, Upload
from nematex.tables import properties
from nematex.usecases.cloth.exchange import flat_cloth
from nematex.usecases.cloth.lists.guessing import guess_columns, with_heading
from nematex.usecases.cloth.lists.headings import HELPERS
from nematex.usecases.cloth.lists.kept import unpacked
from nematex.usecases.cloth.lists.preview import Change, Preview
from nematex.usecases.cloth.lists.price_list import Reading, ReadRow, bad_rows_csv, merge, read_rows
from nematex.usecases.cloth.lists.told import Told, told_in
from nematex.usecases.cloth.lists.undo import IN_BIN, plain
from nematex.usecases.cloth.precedence import respected
from nematex.usecases.cloth.readings import keep_cloths
from nematex.usecases.files.csv_text import MAX_BYTES, SheetText
from nematex.usecases.files.formats import format_of, sheet_from_file
from nematex.usecases.held.shelf import Shelf
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State
from nematex.usecases.jobs import asking
from nematex.usecases.jobs.running import half_of
from nematex.usecases.judging.ahead import judge_ahead

CHUNK = 500
KIND, READING = "list", "reading"
LONG_BYTES = 60_000  # of a list that only the worker reads: about a thousand rows
Progress = Callable[[int, int], None]


def send(shop: Shop, filename: str, content: bytes, supplier: str = "") -> int:
    """Keep a sent list; raises FieldFault if it is no list at all."""
    if len(content) > MAX_BYTES:
        raise FieldFault(
            "file", filename, f"has {len(content) / 2**20:.0f} MB; at most {MAX_BYTES // 2**20} MB are read: split the list"
        )
    format_of(content).check(content, filename)  # reading a large sheet takes seconds: that is the background's
    with shop.database.work() as work:
        return uploads.add_upload(work, "cloths", filename, content, supplier.strip()[:120])


def _shown(value: object) -> str:
    """A value of the shelf in a table of changes; 0 is 0."""
    return "–" if value in (None, "") else str(value)


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
        (properties()[name].label, _shown(before[name]), _shown(after[name]))
        for name in before
        if not _same(before[name], after[name])
    )
    kind = "back" if old.binned else "changed" if moved else "same"
    return Change(row, merged, kind, moved, tuple(said))


def _mapping(kept: Upload, sheet: SheetText, headings: Mapping[str, str], tables: Tables) -> tuple[dict[int, str], bool]:
    """Column → field: as chosen, else as remembered of the supplier, else as guessed; and whether it was remembered."""
    chosen = kept.mapping.get("columns")
    if chosen is not None:
        return {int(at): name for at, name in chosen.items()}, False
    guessed = guess_columns(sheet, tables)
    known = {at: headings[heading] for at, heading in enumerate(sheet.header) if heading and heading in headings}
    if not known:
        return guessed, False
    taken = set(known.values())
    rest = {at: name for at, name in guessed.items() if at not in known and name not in taken}
    return {at: name for at, name in {**rest, **known}.items() if name in properties() or name in HELPERS}, True


@dataclass(frozen=True)
class Known:
    """What is known of a list before it is read: how its supplier's headings were understood, and words that were told."""

    headings: Mapping[str, str]
    told: Told


def kept_list(shop: Shop, upload_id: int) -> tuple[Upload, Known] | None:
    """A list that was sent, with what is known of it."""
    with shop.database.work() as work:
        kept = uploads.upload(work, upload_id)
        return (kept, Known(uploads.headings_of(work, kept.supplier), told_words(work))) if kept else None


def question(kept: Upload, known: Known, state: State) -> str:
    """What the understanding of a list rests on."""
    rests_on = {
        "act": READING, "upload": kept.id, "mapping": kept.mapping, "headings": known.headings, "told": known.told,
        "shop": state.shared_version,
    }  # fmt: skip
    return json.dumps(rests_on, sort_keys=True)


def asked_of(shop: Shop, upload_id: int) -> str | None:
    """What the worker is asked, to read a list as it is now to be read."""
    found = kept_list(shop, upload_id)
    return question(*found, shop.now()) if found else None


def preview(shop: Shop, upload_id: int, progress: Progress | None = None) -> Preview | None:
    """What a kept list would do to the shelf, as the worker understood it; worked out here where it has not.

    Pages, which say no `progress`, take of a long list what the worker found last, though the shelf has moved on since.
    """
    both = kept_list(shop, upload_id)
    if both is None:
        return None
    kept, known = both
    state = shop.now()
    asked = question(kept, known, state)
    found = in_hand(shop, kept, asked)
    if found is None:
        content = _read_before(shop, kept, asked) if progress is None else None
        found = unpacked(content, kept) if content else _understood(shop, kept, state.shelf, known, progress)
        shop.remember_preview(asked, found)
    return replace(found, upload=kept)


def in_hand(shop: Shop, kept: Upload, asked: str) -> Preview | None:
    """A list as it was understood for exactly this question, if it was."""
    found = shop.previews.get(asked)
    if found is None and (content := asking.content(shop.database, KIND, asked)):
        found = unpacked(content, kept)
        shop.remember_preview(asked, found)
    return found


def is_long(kept: Upload) -> bool:
    """Whether only the worker reads a list."""
    return len(kept.content) > LONG_BYTES


def _read_before(shop: Shop, kept: Upload, asked: str) -> bytes | None:
    """What the worker found for the same reading of a long list on an earlier state of the shelf."""
    job = asking.look(shop.database, kept.job_id) if kept.job_id and is_long(kept) else None
    if job is None or job[0].state != "done" or json.loads(job[0].asked) | {"shop": ""} != json.loads(asked) | {"shop": ""}:
        return None
    return asking.content(shop.database, KIND, job[0].asked)  # None where another program read it


def is_unread(shop: Shop, kept: Upload) -> bool:
    """Whether a long list has to be read anew before it is shown, because the program or its columns are others now."""
    asked = asked_of(shop, kept.id)
    if kept.state == "failed" or not is_long(kept) or asked is None:
        return False
    at_hand = shop.previews.get(asked) or asking.content(shop.database, KIND, asked) or _read_before(shop, kept, asked)
    return at_hand is None


def _understood(shop: Shop, kept: Upload, shelf: Shelf, known: Known, progress: Progress | None) -> Preview:
    progress = progress or (lambda _done, _total: None)
    sheet = with_heading(sheet_from_file(kept.content, kept.filename, kept.mapping.get("sheet", "")), shelf.tables)
    progress(len(sheet.rows) // 3, len(sheet.rows))
    mapping, remembered = _mapping(kept, sheet, known.headings, shelf.tables)
    rows = read_rows(reading_of(kept, sheet, mapping, shelf.tables, known.told))
    progress(len(sheet.rows) * 2 // 3, len(sheet.rows))
    return laid_on(shop, Preview(kept, sheet, mapping, rows, [], [], [], remembered, set()), shelf)


def laid_on(shop: Shop, read: Preview, shelf: Shelf, found: Mapping[int, Change] | None = None) -> Preview:
    """The rows of a list held against the shelf as it is, and the bin; `found` are those that are held against it already."""
    with shop.database.work() as work:
        binned = binned_cloths(work)
    kept, mapping, rows = read.upload, read.mapping, read.rows
    by_code = {**binned, **{code_key(record.code): record for record in shelf.records}}
    columns = set(mapping.values()) - set(HELPERS) | ({"supplier"} if kept.supplier else set())
    columns |= {"stretch_length_pct"} if "stretch_cross_pct" in columns else set()  # one cell may say both
    fresh = {
        each.row: each
        for each in _changes([row for row in rows if row.row not in (found or {})], by_code, columns, kept.filename)
    }
    every = fresh | dict(found or {})
    changes = [every[row.row] for row in rows if row.record]
    listed = {code_key(change.record.code) for change in changes}
    broken = {code_key(cell) for row in rows if row.is_bad for cell in row.cells}  # a row with faults is not gone
    gone = [
        record
        for record in shelf.records
        if kept.supplier and record.supplier == kept.supplier and code_key(record.code) not in listed | broken
    ]
    faults = [fault for row in rows for fault in row.faults]
    return replace(read, changes=changes, faults=faults, gone=gone, columns=columns)


def reading_of(kept: Upload, sheet: SheetText, mapping: Mapping[int, str], tables: Tables, told: Told) -> Reading:
    """The list as it is to be read, with words as they are told and cells as they were mended on the preview."""
    mended = {int(row): {int(at): text for at, text in cells.items()} for row, cells in kept.mapping.get("cells", {}).items()}
    return Reading(sheet, mapping, tables, kept.supplier, told, mended)


def told_here(shop: Shop, found: Preview) -> list[tuple[str, str, str]]:
    """Kind, word and meaning of the words in this list that somebody has told."""
    with shop.database.work() as work:
        told = told_words(work)
    return told_in((row.cells for row in found.rows), told)


def apply(shop: Shop, upload_id: int, sold_out: bool = False, progress: Progress | None = None) -> Preview | None:
    """Put the good rows on the shelf, all or none; `sold_out` sets the stock of the gone to 0. Twice does no more.

    The rows are laid on the cloths as they are at that moment: what somebody typed since the list was looked at stays.
    """
    seen = preview(shop, upload_id)
    if seen is None:
        return None
    codes = [row.record.code for row in seen.rows if row.record]
    foreseen = [change.record for change in seen.changes if change.kind != "same"]
    judge_ahead(shop, foreseen, progress=half_of(progress, 0, len(seen.changes)))
    with shop.database.work() as work:
        announce_change(work)
        now = cloths_by_code(work, codes + [record.code for record in seen.gone])
        found = replace(seen, changes=_changes(seen.rows, now, seen.columns, seen.upload.filename))
        _put_on_shelf(work, found, now, sold_out, half_of(progress, 1, len(seen.changes)))
        if found.upload.supplier:
            headings = {heading: name for column, name in found.mapping.items() if (heading := found.sheet.header[column])}
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
