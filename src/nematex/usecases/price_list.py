"""A supplier's price list: which column means what, and each row as a cloth or as faults by row and column."""

from __future__ import annotations

import csv
import io
import json
import re
from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from functools import cache
from importlib.resources import files
from typing import Any

from pydantic import ValidationError

from nematex.core.cloth import DIRECTIONS, SHEERNESS, STRUCTURES, known_cloth
from nematex.core.errors import FieldFault, UnknownChoice
from nematex.core.quantities import (
    read_bending_length_cm,
    read_length_cm,
    read_percent,
    read_price,
    read_stretch_pct,
    read_weight_gsm,
    read_width_cm,
    read_yes,
    to_number,
)
from nematex.core.units import CM_PER_YARD
from nematex.store.records import ClothRecord
from nematex.tables import trade_tables
from nematex.usecases.assess import cloth_facts
from nematex.usecases.assess_schema import ClothIn
from nematex.usecases.csv_text import SheetText

PRINT_KINDS = ("solid", "stripe", "check", "motif", "border")
LONGEST = {"code": 80, "name": 120, "cloth": 120, "fibres": 300, "supplier": 120, "currency": 3, "notes": 2000}
HANDS = ("fluid", "soft", "moderate", "crisp", "stiff")


@dataclass(frozen=True, slots=True)
class ImportField:
    """A field that a column can mean."""

    name: str
    kind: str
    names: tuple[str, ...]
    label: str


@dataclass(frozen=True, slots=True)
class RowFault:
    """What is wrong in one cell: row number in the file, column heading, the cell and the rule."""

    row: int
    column: str
    value: str
    message: str


@dataclass(frozen=True)
class ReadRow:
    """One row of the list: a cloth, or faults, with the cells as they came."""

    row: int
    cells: list[str]
    record: ClothRecord | None
    faults: tuple[RowFault, ...]


@cache
def import_fields() -> dict[str, ImportField]:
    text = files("nematex.data").joinpath("import_columns.csv").read_text(encoding="utf-8")
    rows = csv.DictReader(text.splitlines())
    return {row["field"]: ImportField(row["field"], row["kind"], tuple(row["names"].split("|")), row["label"]) for row in rows}


def _plain(text: str) -> str:
    text = re.sub(r"\(.*?\)|\[.*?\]", " ", text.casefold().replace("_", " "))
    return " ".join(re.sub(r"[^a-z0-9/%²]+", " ", text).split())


def guess_mapping(header: list[str]) -> dict[int, str]:
    """Column number → field, by the many names a heading goes by; each field is taken once."""
    fields = import_fields()
    exact = {name: field.name for field in fields.values() for name in (_plain(field.name), *map(_plain, field.names))}
    mapping: dict[int, str] = {}
    for exactly in (True, False):
        for at, heading in enumerate(header):
            if at in mapping:
                continue
            plain = _plain(heading)
            found = exact.get(plain) if exactly else _contained(plain, exact)
            if found and found not in mapping.values():
                mapping[at] = found
    if "name" not in mapping.values():
        # A column 'Fabric' without one for the name holds both: the kind of cloth is read from the name.
        mapping = {at: "name" if field == "cloth" else field for at, field in mapping.items()}
    return mapping


def _contained(plain: str, exact: dict[str, str]) -> str | None:
    """A heading that holds a known name as whole words: 'fabric width in cm approx'."""
    hits = [name for name in exact if len(name) > 3 and re.search(rf"\b{re.escape(name)}\b", plain)]
    return exact[max(hits, key=len)] if hits else None


def _bare_unit(heading: str, kind: str) -> Any:
    """The unit that a column's heading gives to bare numbers."""
    words = re.findall(r"[a-z²/\"]+", heading.casefold())
    if kind == "weight":
        return (
            "oz"
            if any(word.startswith("oz") for word in words)
            else "gsm"
            if any("g/" in w or w == "gsm" for w in words)
            else None
        )
    if kind in ("width", "length"):
        return "in" if {"in", "inch", "inches", '"'} & set(words) else "cm" if "cm" in words else None
    yards = {"yd", "yds", "yard", "yards", "/yd", "/yard"} & set(words)
    return CM_PER_YARD if yards else 100.0


def _choice(choices: tuple[str, ...], kind: str) -> Callable[[str, str], str]:
    def read(text: str, field: str) -> str:
        word = " ".join(text.casefold().replace("_", " ").split())
        for choice in choices:
            if word in (choice, choice.replace("-", " "), choice.replace(" ", "-")):
                return choice
        raise UnknownChoice(field, text, choices, kind)

    return read


def _structure(text: str, field: str) -> str:
    word = text.casefold().strip().removesuffix("s").removesuffix("ted")
    return _choice(STRUCTURES, "structure")("knit" if word in ("knit", "knitt", "jersey") else word, field)


def _text(text: str, field: str, name: str) -> str:
    limit = LONGEST.get(name, 300)
    if len(text) > limit:
        raise FieldFault(field, f"{text[:30]}…", f"is {len(text)} letters long; at most {limit} are kept")
    return text


# Bare numbers above these cannot be inches or ounces, and then no number of their column is.
METRIC_ABOVE = {"width": (72.0, "cm"), "weight": (20.0, "gsm")}


def column_units(sheet: SheetText, mapping: Mapping[int, str]) -> dict[int, Any]:
    """Column → unit of its bare numbers: from its heading, else from its largest bare number."""
    units: dict[int, Any] = {}
    for at, name in mapping.items():
        kind = import_fields()[name].kind
        units[at] = _bare_unit(sheet.header[at], kind)
        if units[at] is None and kind in METRIC_ABOVE:
            bare = [float(row[at].replace(",", ".")) for _, row in sheet.rows if re.fullmatch(r"\d+(?:[.,]\d+)?", row[at])]
            above, unit = METRIC_ABOVE[kind]
            units[at] = unit if bare and max(bare) > above else None
    return units


def read_cell(text: str, heading: str, field: ImportField, bare: Any = None) -> Any:
    """One cell as a value; `bare` is the unit of a number without one; raises FieldFault."""
    if re.match(r"[=@]|[+-](?![\d.,])", text):
        raise FieldFault(heading, text[:40], "looks like a spreadsheet formula; put its value instead")
    bare = bare or _bare_unit(heading, field.kind)
    readers: dict[str, Callable[[str], Any]] = {
        "weight": lambda cell: read_weight_gsm(cell, heading, bare),
        "width": lambda cell: read_width_cm(cell, heading, bare),
        "length": lambda cell: read_length_cm(cell, heading, bare or "cm"),
        "bend": lambda cell: read_bending_length_cm(cell, heading),
        "stretch": lambda cell: read_stretch_pct(cell, heading),
        "percent": lambda cell: read_percent(cell, heading),
        "number": lambda cell: to_number(cell.casefold().removesuffix("mm").strip(), heading),
        "price": lambda cell: read_price(cell, heading, bare),
        "stock": lambda cell: read_length_cm(cell, heading, "yd" if bare == CM_PER_YARD else "m") / 100,
        "yes": lambda cell: read_yes(cell, heading),
        "structure": lambda cell: _structure(cell, heading),
        "hand": lambda cell: _choice(HANDS, "handle")(cell, heading),
        "sheer": lambda cell: _choice(SHEERNESS, "level of see-through")(cell, heading),
        "direction": lambda cell: _choice(DIRECTIONS, "print direction")(cell, heading),
        "kind": lambda cell: _choice(PRINT_KINDS, "kind of print")(cell, heading),
        "text": lambda cell: _text(cell.removeprefix("'"), heading, field.name),
    }
    return readers[field.kind](text)


def _values(
    cells: list[str], header: list[str], mapping: Mapping[int, str], units: Mapping[int, Any], row: int
) -> tuple[dict[str, Any], list[RowFault]]:
    values: dict[str, Any] = {}
    faults = []
    fields = import_fields()
    for at, name in mapping.items():
        text = cells[at] if at < len(cells) else ""
        if not text or text.casefold() in ("n/a", "na", "-", "tbc", "?"):
            continue
        try:
            values[name] = read_cell(text, header[at], fields[name], units.get(at))
        except FieldFault as fault:
            faults.append(RowFault(row, header[at], text[:60], fault.rule))
    return values, faults


def _colours(text: str) -> tuple[str, ...]:
    return tuple(word.casefold() for word in re.findall(r"#[0-9a-fA-F]{6}\b", text))


def make_record(values: dict[str, Any], supplier: str = "") -> ClothRecord:
    """A cloth record from read values; raises FieldFault or pydantic's ValidationError."""
    printed = {
        name.removeprefix("print_"): value
        for name, value in values.items()
        if name.startswith("print_") and name != "print_kind"
    }
    facts = {name: value for name, value in values.items() if name in ClothIn.model_fields and name != "print"}
    if isinstance(facts.get("known"), str):
        facts["known"] = json.loads(facts["known"] or "{}")
    checked = cloth_facts(ClothIn.model_validate({**facts, "print": printed or None}))
    known_cloth(checked, trade_tables())  # so that a cloth nobody can place is refused here and not on a page
    price, currency = values.get("price_per_m") or (None, "")
    return ClothRecord(
        code=values["code"],
        facts=checked,
        price_per_m=price,
        currency=(values.get("currency") or currency).upper(),
        stock_m=values.get("stock_m"),
        supplier=values.get("supplier") or supplier,
        colours=_colours(values.get("colours") or ""),
        print_kind=values.get("print_kind") or "",
        notes=values.get("notes") or "",
    )


def read_rows(sheet: SheetText, mapping: Mapping[int, str], supplier: str = "") -> list[ReadRow]:
    """Every row as a cloth or as faults; one bad row never stops the list."""
    seen: dict[str, int] = {}
    units = column_units(sheet, mapping)
    return [_read_row(number, cells, sheet, mapping, units, seen, supplier) for number, cells in sheet.rows]


def _read_row(
    number: int,
    cells: list[str],
    sheet: SheetText,
    mapping: Mapping[int, str],
    units: Mapping[int, Any],
    seen: dict[str, int],
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
    if code and code.casefold() in seen:
        add("code", code, f"stands in row {seen[code.casefold()]} already; each article code may come once")
    record = None
    if not faults:
        seen[code.casefold()] = number
        try:
            record = make_record(values, supplier)
        except ValidationError as fault:
            for error in fault.errors(include_url=False):
                add(str(error["loc"][0] if error["loc"] else "row"), error["input"], error["msg"].lower())
        except FieldFault as fault:
            place = "cloth" if "cloth" in by_field else "name"
            add(place, fault.value, f"{fault.rule}. Or say woven, knit or net in a column of its own")
        except ValueError as fault:
            add("known", values.get("known", ""), f"cannot be read: {fault}")
    return ReadRow(number, cells, record, tuple(faults))


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


def safe_cell(cell: str) -> str:
    """A cell that a spreadsheet would run as a formula is quoted."""
    return f"'{cell}" if cell[:1] in ("=", "+", "-", "@", "\t") and not re.fullmatch(r"[+-]?[\d.,]+", cell) else cell


def merge(old: ClothRecord | None, new: ClothRecord, columns: set[str]) -> ClothRecord:
    """What a list leaves out stays as it was: only the fields of mapped columns are replaced."""
    if old is None:
        return new
    facts = {name: getattr(new.facts, name) for name in ClothIn.model_fields if name in columns and name != "print"}
    printed = {
        name.removeprefix("print_"): getattr(new.facts.print, name.removeprefix("print_"))
        for name in columns
        if name.startswith("print_") and name != "print_kind"
    }
    shop = {
        name: getattr(new, name)
        for name in ("price_per_m", "currency", "stock_m", "supplier", "colours", "print_kind", "notes")
        if name in columns and getattr(new, name) not in (None, "", ())
    }
    if "price_per_m" in columns and new.currency:
        shop["currency"] = new.currency
    facts = {name: value for name, value in facts.items() if value is not None and value != ""}
    printed = {name: value for name, value in printed.items() if value is not None}
    return replace(old, facts=replace(old.facts, print=replace(old.facts.print, **printed), **facts), **shop)
