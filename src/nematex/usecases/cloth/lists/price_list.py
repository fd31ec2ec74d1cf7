"""A supplier's price list: each row as a cloth or as faults by row and column, and what it changes on the shelf."""

from __future__ import annotations

import csv
import io
import json
import re
from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from typing import Any

from pydantic import ValidationError

from nematex.core.cloth.estimates import known_cloth
from nematex.core.cloth.properties import Home, Property
from nematex.core.codes import code_key
from nematex.core.errors import FieldFault
from nematex.core.tables import Tables
from nematex.store.records import ClothRecord
from nematex.tables import properties
from nematex.usecases.assess.pairing import cloth_facts
from nematex.usecases.assess.schema import ClothIn
from nematex.usecases.cloth.lists.headings import column_units, read_cell
from nematex.usecases.cloth.values import value_of, with_values
from nematex.usecases.files.cells import safe_cell
from nematex.usecases.files.csv_text import SheetText
from nematex.usecases.files.faults import RowFault

SAYS_ACROSS = re.compile(r"across|cross|width|weft", re.IGNORECASE)  # a bare "stretch" does not say its direction


@dataclass(frozen=True)
class ReadRow:
    """One row of the list: a cloth, or faults, with the cells as they came."""

    row: int
    cells: list[str]
    record: ClothRecord | None
    faults: tuple[RowFault, ...]


def _values(
    cells: list[str], header: list[str], mapping: Mapping[int, str], units: Mapping[int, Any], row: int
) -> tuple[dict[str, Any], list[RowFault]]:
    values: dict[str, Any] = {}
    faults = []
    fields = properties()
    for at, name in mapping.items():
        text = cells[at] if at < len(cells) else ""
        if not text or text.casefold() in ("n/a", "na", "-", "tbc", "?"):
            continue
        try:
            values[name] = read_cell(text, header[at], fields[name], units.get(at))
            if name == "stretch_cross_pct":
                values["stretch_unsaid"] = not SAYS_ACROSS.search(header[at])
        except FieldFault as fault:
            faults.append(RowFault(row, header[at], text[:60], fault.rule))
    return values, faults


def _colours(text: str) -> tuple[str, ...]:
    return tuple(word.casefold() for word in re.findall(r"#[0-9a-fA-F]{6}\b", text))


def make_record(values: dict[str, Any], tables: Tables, supplier: str = "") -> ClothRecord:
    """A cloth record from read values; raises FieldFault or pydantic's ValidationError."""
    of = {home: {name: value for name, value in values.items() if properties()[name].home is home} for home in Home}
    facts, printed = of[Home.FACTS], {name.removeprefix("print_"): value for name, value in of[Home.PRINT].items()}
    if isinstance(facts.get("known"), str):
        facts["known"] = json.loads(facts["known"] or "{}")
    checked = cloth_facts(ClothIn.model_validate({**facts, "print": printed or None}))
    known_cloth(checked, tables)  # so that a cloth nobody can place is refused here and not on a page
    shop = {name: value for name, value in of[Home.SHOP].items() if value is not None}
    for name, prop in properties().items():
        if name in shop and prop.reading == "number":
            prop.checked(shop[name])
    price, currency = shop.pop("price_per_m", None) or (None, "")
    sale, sale_currency = shop.pop("sale_price_per_m", None) or (None, "")
    shop |= {"price_per_m": price, "sale_price_per_m": sale, "supplier": values.get("supplier") or supplier}
    shop |= {"currency": (values.get("currency") or currency or sale_currency).upper()}
    shop |= {"colours": _colours(values.get("colours") or "")}
    more = {name: _checked(properties()[name], value) for name, value in of[Home.MORE].items() if value is not None}
    return counted(ClothRecord(facts=checked, more=more, **shop))


def _checked(prop: Property, value: Any) -> Any:
    return prop.checked(value) if prop.reading == "number" else value


def counted(record: ClothRecord) -> ClothRecord:
    """The stock as the sum of the bolts, or else of the colourways, where each says its own."""
    if record.bolts:
        return replace(record, stock_m=round(sum(each.length_m for each in record.bolts), 3))
    lengths = [each.stock_m for each in record.colourways if each.stock_m is not None]
    return replace(record, stock_m=round(sum(lengths), 3)) if lengths else record


def read_rows(sheet: SheetText, mapping: Mapping[int, str], tables: Tables, supplier: str = "") -> list[ReadRow]:
    """Every row as a cloth or as faults; one bad row never stops the list."""
    seen: dict[str, int] = {}
    units = column_units(sheet, mapping)
    return [_read_row(number, cells, sheet, mapping, units, seen, tables, supplier) for number, cells in sheet.rows]


def _read_row(
    number: int,
    cells: list[str],
    sheet: SheetText,
    mapping: Mapping[int, str],
    units: Mapping[int, Any],
    seen: dict[str, int],
    tables: Tables,
    supplier: str,
) -> ReadRow:
    by_field = {name: sheet.header[at] for at, name in mapping.items()}
    values, faults = _values(cells, sheet.header, mapping, units, number)

    def add(field: str, value: object, message: str) -> None:
        faults.append(RowFault(number, by_field.get(field, field), str(value)[:60], message))

    broken = {fault.column for fault in faults}
    for field in ("code", "name"):
        if field not in values and by_field.get(field, field) not in broken:
            other = values.get("name" if field == "code" else "code")
            if field == "code" and field not in by_field and other:
                values["code"] = other[:80]
            else:
                add(field, "", f"is missing; every row needs {'an article code' if field == 'code' else 'a name'}")
    code = values.get("code", "")
    if code and code_key(code) in seen:
        add("code", code, f"stands in row {seen[code_key(code)]} already; each article code may come once")
    record = None
    if not faults:
        seen[code_key(code)] = number
        record = _made(values, tables, supplier, "cloth" if "cloth" in by_field else "name", add)
    return ReadRow(number, cells, record, tuple(faults))


def _made(
    values: dict[str, Any], tables: Tables, supplier: str, kind_stands_in: str, add: Callable[[str, object, str], None]
) -> ClothRecord | None:
    """The row as a cloth; None where it is none, with the faults added."""
    try:
        return make_record(values, tables, supplier)
    except ValidationError as fault:
        for error in fault.errors(include_url=False):
            add(str(error["loc"][0] if error["loc"] else "row"), error["input"], error["msg"].lower())
    except FieldFault as fault:
        add(kind_stands_in, fault.value, f"{fault.rule}. Or say woven, knit or net in a column of its own")
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
    if "price_per_m" in columns and new.currency:
        said["currency"] = new.currency
    if "stretch_cross_pct" in columns and new.facts.stretch_cross_pct is not None:
        said["stretch_unsaid"] = new.stretch_unsaid
    if {"bolts", "colourways"} & columns and new.stock_m is not None:
        said["stock_m"] = new.stock_m
    return with_values(old, said)
