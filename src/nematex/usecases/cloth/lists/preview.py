"""A price list as it was understood: what each row does to the shelf."""

from __future__ import annotations

from dataclasses import dataclass

from nematex.core.tables import Tables
from nematex.store.records import ClothRecord, ReadingRecord, Upload
from nematex.usecases.cloth.lists.price_list import ReadRow
from nematex.usecases.cloth.lists.strange import Strange, strange_words
from nematex.usecases.files.csv_text import SheetText
from nematex.usecases.files.faults import RowFault


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
    def bad(self) -> list[ReadRow]:
        """The rows that are left out."""
        return [row for row in self.rows if row.is_bad]

    @property
    def left_out_cells(self) -> list[RowFault]:
        """The cells that are left out of rows that are taken."""
        return [fault for row in self.rows if not row.is_bad for fault in row.faults]

    def strange(self, tables: Tables) -> list[Strange]:
        """The words that nobody knows, with what may be meant."""
        rows = ((row.strange, row.record, row.record.facts.name if row.record else "") for row in self.rows if row.strange)
        return strange_words(rows, tables)

    @property
    def only_said(self) -> list[Change]:
        """Rows that state something less well known than what is on the shelf."""
        return [change for change in self.changes if change.said]
