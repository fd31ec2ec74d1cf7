"""A supplier's price list: each row as a cloth or as faults by row and column, and what it changes on the shelf."""

from __future__ import annotations

import csv
import io
import re
from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from typing import Any

from propcache.api import cached_property
from pydantic import ValidationError

from nematex.core.cloth.estimates import placed_cloth
from nematex.core.cloth.fibres import read_fibres
from nematex.core.codes import code_key
from nematex.core.colour.words import UnknownColours
from nematex.core.errors import FieldFault
from nematex.core.tables import Tables
from nematex.store.records import ClothRecord
from nematex.tables import properties, readable
from nematex.usecases.cloth.lists.cells import column_units, read_values
from nematex.usecases.cloth.lists.describing import LONGEST_TEXT, colour_in, coloured, described, measured, named
from nematex.usecases.cloth.lists.headings import HELPERS, heading_currency, unit_columns, with_unit
from nematex.usecases.cloth.lists.making import make_record
from nematex.usecases.cloth.lists.strange import strange_names
from nematex.usecases.cloth.lists.told import CLOTH, COLOUR, FIBRE, Told, as_told, meant_by
from nematex.usecases.cloth.values import value_of, with_values
from nematex.usecases.files.cells import safe_cell
from nematex.usecases.files.csv_text import SheetText
from nematex.usecases.files.faults import RowFault

NEEDED = ("code", "name")
UNKNOWN_COLOURS = "unknown colours"  # among what a row says
SAYS_ACROSS = re.compile(r"across|cross|width|weft", re.IGNORECASE)  # a bare "stretch" does not say its direction


@dataclass(frozen=True)
class ReadRow:
    """One row of the list: a cloth, or faults, with the cells as they came."""

    row: int
    cells: list[str]
    record: ClothRecord | None
    faults: tuple[RowFault, ...]
    strange: tuple[tuple[str, str], ...] = ()  # kind and word that nobody knows

    @property
    def is_bad(self) -> bool:
        """Whether the row is left out; one that only loses cells is taken."""
        return any(not fault.cell_only for fault in self.faults)


@dataclass(frozen=True)
class Reading:
    """How a list is read: which column is what, the unit of bare numbers, and what somebody has told.

    `told` is what words mean, `cells` are cells mended on the preview: row → column → text.
    """

    sheet: SheetText
    mapping: Mapping[int, str]
    tables: Tables
    supplier: str = ""
    told: Told = field(default_factory=dict)
    cells: Mapping[int, Mapping[int, str]] = field(default_factory=dict)

    @cached_property
    def units(self) -> dict[int, Any]:
        return column_units(self.sheet, self.mapping)

    @cached_property
    def unit_columns(self) -> dict[int, int]:
        return unit_columns(self.mapping)

    @cached_property
    def fields(self) -> dict[int, str]:
        """Column → property, without the columns that only say units."""
        return {at: name for at, name in self.mapping.items() if name not in HELPERS}

    @cached_property
    def currency(self) -> str:
        """What the heading of the price says."""
        at = next((at for at, name in self.mapping.items() if name == "price_per_m"), None)
        return heading_currency(self.sheet.header[at]) if at is not None else ""

    def heading(self, at: int) -> str:
        return self.sheet.header[at] or f"column {at + 1}"

    def mended(self, row: int, cells: list[str]) -> list[str]:
        """A row's cells as they came, but for those that were mended."""
        mended = self.cells.get(row, {})
        return [mended.get(at, cell) for at, cell in enumerate(cells)] if mended else cells


TOLD_IN = {"fibres": FIBRE, "colours": COLOUR, "cloth": CLOTH, "described": CLOTH, "notes": CLOTH}  # column → kind of word


def _cell(reading: Reading, cells: list[str], at: int, name: str) -> str:
    """A cell with the unit of its neighbour, and with words as somebody has told what they mean."""
    text = cells[at] if at < len(cells) else ""
    beside = reading.unit_columns.get(at)
    if beside is not None and beside < len(cells):
        text = with_unit(text, cells[beside].strip(), properties()[name].kind)
    return as_told(text, TOLD_IN[name], reading.told) if name in TOLD_IN and name != "notes" else text


def _values(reading: Reading, cells: list[str], row: int) -> tuple[dict[str, Any], list[RowFault]]:
    """What the cells of a row say, and those that are left out."""
    values: dict[str, Any] = {}
    faults = []
    for at, name in reading.fields.items():
        text, heading = _cell(reading, cells, at, name), reading.heading(at)
        if not text or text.casefold() in ("n/a", "na", "-", "–", "tbc", "?"):
            continue
        try:
            said = read_values(text, heading, properties()[name], reading.tables, reading.units.get(at))
        except UnknownColours as fault:
            faults.append(RowFault(row, heading, text[:60], f"“{fault.value}” {fault.rule}", cell_only=True))
            said = {name: fault.palette} if fault.palette.colours else {}
            values[UNKNOWN_COLOURS] = fault.palette.unknown
        except FieldFault as fault:
            said = {each: value for each, value in described(text).items() if properties()[name].kind == "choice"}
            if not said:
                faults.append(RowFault(row, heading, text[:60], fault.rule, cell_only=name not in NEEDED))
                continue
        values = {**said, **values} if name == "stretch_cross_pct" else {**values, **said}
        if name == "stretch_cross_pct":
            values["stretch_unsaid"] = "stretch_length_pct" not in said and not SAYS_ACROSS.search(f"{heading} {text}")
    _describe(reading, cells, values)
    price = values.get("price_per_m")
    if price and not price[1] and reading.currency:
        values["price_per_m"] = (price[0], reading.currency)
    return values, faults


def _describe(reading: Reading, cells: list[str], values: dict[str, Any]) -> None:
    """What describing columns and the name tell beyond the columns of their own; changes `values`."""
    texts = [_cell(reading, cells, at, name) for at, name in reading.mapping.items() if name == "described" and at < len(cells)]
    for text in [*texts, as_told(str(values.get("notes") or ""), CLOTH, reading.told)]:
        for name, value in {**described(text), **measured(text)}.items():
            values.setdefault(name, value)
    if said := described(str(values.get("fibres") or "")).get("structure"):
        values.setdefault("structure", said)  # '95% polyester 5% elastane, knitted'
    name = as_told(str(values.get("name") or ""), CLOTH, reading.told)
    if not values.get("cloth") and (kind := _kind(reading, values, name, texts)):
        values["cloth"] = kind
    for each, value in {**named(name, values), **measured(name)}.items():
        values.setdefault(each, value)
    if "colours" not in values and (palette := colour_in(name, reading.tables) or coloured(texts)):
        values["colours"] = palette


def _kind(reading: Reading, values: Mapping[str, Any], name: str, texts: list[str]) -> str:
    """What kind of cloth the told words of a name say, or the describing columns where the name says none; "" for none."""
    find = reading.tables.lexicon.find
    told = meant_by(str(values.get("name") or ""), CLOTH, reading.told)
    if meant := next((each for each in reversed(told) if find(each, anywhere=False)), ""):
        return meant
    kinds = (found for text in texts if find(name) is None and (found := find(text[:LONGEST_TEXT])))
    kind = next(kinds, None)
    return kind.name if kind else ""  # 'Autumn leaves', described as a challis


def read_rows(reading: Reading) -> list[ReadRow]:
    """Every row as a cloth or as faults; one bad row never stops the list, and a bad cell that can be missed no row."""
    seen: dict[str, int] = {}
    return [read_row(reading, number, cells, seen) for number, cells in reading.sheet.rows]


def read_row(reading: Reading, number: int, cells: list[str], seen: dict[str, int]) -> ReadRow:
    """One row; `seen` is the row of each article code so far, and learns this one's."""
    cells = reading.mended(number, cells)
    by_field = {name: reading.heading(at) for at, name in reading.fields.items()}
    values, faults = _values(reading, cells, number)
    strange = [(COLOUR, word) for word in values.pop(UNKNOWN_COLOURS, ())]

    def add(field: str, value: object, message: str) -> None:
        faults.append(RowFault(number, by_field.get(field, field), str(value)[:60], message))

    broken = {fault.column for fault in faults}
    for name in NEEDED:
        if name not in values and by_field.get(name, name) not in broken:
            other = values.get("name" if name == "code" else "code")
            if name == "code" and name not in by_field and other:
                values["code"] = other[:80]
            else:
                add(name, "", f"is missing; every row needs {'an article code' if name == 'code' else 'a name'}")
    code = values.get("code", "")
    if code and code_key(code) in seen:
        add("code", code, f"stands in row {seen[code_key(code)]} already; each article code may come once")
    record = None
    if all(fault.cell_only for fault in faults):
        seen[code_key(code)] = number
        record = _made(values, reading.tables, reading.supplier, "cloth" if "cloth" in by_field else "name", add)
    if values.get("fibres"):
        strange += [(FIBRE, word) for word in read_fibres(values["fibres"], reading.tables.fibres).unknown if word]
    if record and (words := _unplaced(record, values, reading)) is not None:
        strange += [(CLOTH, word) for word in words]
        if record.facts.structure is None:
            at = "cloth" if record.facts.cloth else "name"
            said = _TAKEN_FOR.format(placed_cloth(record.facts, reading.tables).structure)
            faults.append(RowFault(number, by_field.get(at, at), str(values[at])[:60], said, cell_only=True))
    return ReadRow(number, cells, record, tuple(faults), tuple(strange))


_TAKEN_FOR = (
    "names no cloth that is known: it is taken for a {}, and is in no proposal until somebody says what the word means, "
    "or woven, knit or net in a column of its own"
)


def _unplaced(record: ClothRecord, values: Mapping[str, Any], reading: Reading) -> tuple[str, ...] | None:
    """Of a cloth that no name of a cloth places the words that might; None of one that is placed."""
    if placed_cloth(record.facts, reading.tables).type is not None:
        return None
    name = as_told(str(values.get("name") or ""), CLOTH, reading.told)
    return strange_names(name, record.facts.cloth or "", reading.tables)


def _made(
    values: dict[str, Any], tables: Tables, supplier: str, kind_stands_in: str, add: Callable[[str, object, str], None]
) -> ClothRecord | None:
    """The row as a cloth; None where it is none, with the faults added."""
    try:
        return make_record(values, tables, supplier, placed_cloth)
    except ValidationError as fault:
        for error in fault.errors(include_url=False):
            add(str(error["loc"][0] if error["loc"] else "row"), error["input"], error["msg"].lower())
    except FieldFault as fault:
        add(kind_stands_in, fault.value, fault.rule)
    except ValueError as fault:
        add("known", values.get("known", ""), f"cannot be read: {fault}")
    return None


def bad_rows_csv(header: list[str], rows: list[ReadRow]) -> str:
    """The rows with faults as they came, with the reasons beside them, to mend and send again."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow([*header, "reason"])
    for row in rows:
        if row.faults:
            reasons = "; ".join(f"{fault.column}: {fault.value} {fault.message}" for fault in row.faults)
            writer.writerow([*(safe_cell(cell) for cell in row.cells), reasons])
    return out.getvalue()


def merge(old: ClothRecord | None, new: ClothRecord, columns: set[str]) -> ClothRecord:
    """What a list leaves out stays as it was: only the fields of mapped columns that say something are replaced."""
    if old is None:
        return new
    said = {name: value for name in columns if (value := value_of(new, properties()[name])) not in (None, "", ())}
    said.pop("code", None)
    changed = {name for name, value in said.items() if name in readable() and value != value_of(old, properties()[name])}
    kept = {name: how for name, how in old.facts.known.items() if name not in changed}
    if "known" not in said:  # a value that the list changes is known as the list knows it
        said["known"] = kept | {name: how for name, how in new.facts.known.items() if name in changed}
    if "price_per_m" in columns and new.currency:
        said["currency"] = new.currency
    if "stretch_cross_pct" in columns and new.facts.stretch_cross_pct is not None:
        said["stretch_unsaid"] = new.stretch_unsaid
    if {"bolts", "colourways"} & columns and new.stock_m is not None:
        said["stock_m"] = new.stock_m
    return with_values(old, said)
