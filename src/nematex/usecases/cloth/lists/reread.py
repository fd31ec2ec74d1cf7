"""A word told or a row mended on the preview of a list: only the rows that it touches are read again, at once.

Invariant: the list is then understood as if it had been read anew from its first row to its last.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

from nematex.core.codes import code_key
from nematex.core.tables import Tables
from nematex.store.records import Upload
from nematex.usecases.cloth.lists.importing import KIND, Known, in_hand, kept_list, laid_on, question, reading_of
from nematex.usecases.cloth.lists.kept import packed
from nematex.usecases.cloth.lists.preview import Preview
from nematex.usecases.cloth.lists.price_list import ReadRow, read_row
from nematex.usecases.held.shop import Shop
from nematex.usecases.jobs import asking

Touched = Callable[[ReadRow], bool]


def change_and_read(shop: Shop, upload_id: int, change: Callable[[], object], touched: Touched) -> bool:
    """Make a change to what is known of a list, and read the rows that it touches; False where all of it must be read."""
    was, seen = kept_list(shop, upload_id), shop.now()
    before = in_hand(shop, was[0], question(*was, seen)) if was else None
    change()
    both, state = kept_list(shop, upload_id), shop.now()
    if before is None or was is None or both is None:
        return False
    kept, known = both
    if state.shared_version != seen.shared_version or _differ(was, both) > 1:
        return False  # somebody else changed the shelf, or told another word, at the same moment
    found = _read_again(replace(before, upload=kept), known, touched, state.shelf.tables)
    if found is None:
        return False
    read = {row.row for row, was in zip(found.rows, before.rows, strict=True) if row is not was}
    stands = {each.row: each for each in before.changes if each.row not in read}
    asked, made = question(kept, known, state), laid_on(shop, found, state.shelf, stands)
    shop.remember_preview(asked, made)
    if asking.content(shop.database, KIND, asked) is None:
        asking.keep_content(shop.database, KIND, asked, packed(made))
    return True


def _differ(one: tuple[Upload, Known], other: tuple[Upload, Known]) -> int:
    """In how many words, mended rows and other choices two states of what is known of a list differ."""
    said = [
        {("word", kind, word, meant) for kind, words in known.told.items() for word, meant in words.items()}
        | {("row", row, str(cells)) for row, cells in kept.mapping.get("cells", {}).items()}
        | {("other", name, str(value)) for name, value in kept.mapping.items() if name != "cells"}
        | {("heading", heading, name) for heading, name in known.headings.items()}
        for kept, known in (one, other)
    ]
    return len({entry[:3] if entry[0] == "word" else entry[:2] for entry in said[0] ^ said[1]})


def _read_again(before: Preview, known: Known, touched: Touched, tables: Tables) -> Preview | None:
    """None where an article code, or whether a row is taken, changes: then other rows are concerned too."""
    reading = reading_of(before.upload, before.sheet, before.mapping, tables, known.told)
    cells, seen = dict(reading.sheet.rows), dict[str, int]()
    rows = []
    for row in before.rows:
        rows.append(read_row(reading, row.row, cells[row.row], seen) if touched(row) else row)
        if code := _stands_for(rows[-1]):
            seen[code] = row.row
    alike = all(_stands_for(new) == _stands_for(old) for new, old in zip(rows, before.rows, strict=True))
    return replace(before, rows=rows) if alike else None


def _stands_for(row: ReadRow) -> str | None:
    return code_key(row.record.code) if row.record else None
