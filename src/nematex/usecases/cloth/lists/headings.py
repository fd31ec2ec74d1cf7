"""The columns of a list: which field a heading means, which unit its bare numbers have, and a cell as a value."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable, Mapping
from datetime import date
from typing import Any

from nematex.core.cloth.facts import STRUCTURES
from nematex.core.cloth.measuring.typed import read_bending_length_cm, read_stretch_pct
from nematex.core.cloth.properties import Property
from nematex.core.errors import FieldFault, UnknownChoice
from nematex.core.quantity.money import read_price
from nematex.core.quantity.reader import read_length_cm, read_percent, read_weight_gsm, read_width_cm, read_yes, to_number
from nematex.core.quantity.units import CM_PER_YARD
from nematex.tables import properties
from nematex.usecases.cloth.colourways import read_bolts, read_colourways
from nematex.usecases.files.csv_text import SheetText


def _plain(text: str) -> str:
    text = re.sub(r"\(.*?\)|\[.*?\]", " ", text.casefold().replace("_", " "))
    return " ".join(re.sub(r"[^a-z0-9/%²]+", " ", text).split())


def guess_mapping(header: list[str]) -> dict[int, str]:
    """Column number → field, by the many names a heading goes by; each field is taken once."""
    exact = {name: prop.name for prop in properties().values() for name in map(_plain, (prop.name, *prop.headings))}
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


def _choice(choices: Iterable[str], kind: str) -> Callable[[str, str], str]:
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


def _text(text: str, field: str, longest: int) -> str:
    if len(text) > longest:
        raise FieldFault(field, f"{text[:30]}…", f"is {len(text)} letters long; at most {longest} are kept")
    return text


def _date(text: str, field: str) -> date:
    """A date as 2026-11-24, 24.11.2026 or 24/11/2026: day before month where the year comes last."""
    try:
        found = re.fullmatch(r"(\d{1,2})[./-](\d{1,2})[./-](\d{4})", text.strip())
        return date(int(found[3]), int(found[2]), int(found[1])) if found else date.fromisoformat(text.strip()[:10])
    except ValueError:
        raise FieldFault(field, text, "is not a date; write it like 2026-11-24") from None


# Bare numbers above these cannot be inches or ounces, and then no number of their column is.
METRIC_ABOVE = {"width": (72.0, "cm"), "weight": (20.0, "gsm")}


def column_units(sheet: SheetText, mapping: Mapping[int, str]) -> dict[int, Any]:
    """Column → unit of its bare numbers: from its heading, else from its largest bare number."""
    units: dict[int, Any] = {}
    for at, name in mapping.items():
        kind = properties()[name].kind
        units[at] = _bare_unit(sheet.header[at], kind)
        if units[at] is None and kind in METRIC_ABOVE:
            bare = [float(row[at].replace(",", ".")) for _, row in sheet.rows if re.fullmatch(r"\d+(?:[.,]\d+)?", row[at])]
            above, unit = METRIC_ABOVE[kind]
            units[at] = unit if bare and max(bare) > above else None
    return units


Reader = Callable[[str, str, Property, Any], Any]  # cell, heading, property, unit of a bare number → value

# How a cell of each kind is read: the one place for a new kind of property.
READERS: dict[str, Reader] = {
    "weight": lambda cell, heading, _, bare: read_weight_gsm(cell, heading, bare),
    "width": lambda cell, heading, _, bare: read_width_cm(cell, heading, bare),
    "length": lambda cell, heading, _, bare: read_length_cm(cell, heading, bare or "cm"),
    "bend": lambda cell, heading, *_: read_bending_length_cm(cell, heading),
    "stretch": lambda cell, heading, *_: read_stretch_pct(cell, heading),
    "percent": lambda cell, heading, *_: read_percent(cell, heading),
    "number": lambda cell, heading, prop, _: to_number(cell.casefold().removesuffix(prop.unit).strip(), heading),
    "price": lambda cell, heading, _, bare: read_price(cell, heading, bare),
    "stock": lambda cell, heading, _, bare: read_length_cm(cell, heading, "yd" if bare == CM_PER_YARD else "m") / 100,
    "yes": lambda cell, heading, *_: read_yes(cell, heading),
    "structure": lambda cell, heading, *_: _structure(cell, heading),
    "choice": lambda cell, heading, prop, _: _choice(prop.words, f"word for {prop.label}")(cell, heading),
    "date": lambda cell, heading, *_: _date(cell, heading),
    "colourways": lambda cell, heading, *_: read_colourways(cell, heading),
    "bolts": lambda cell, heading, *_: read_bolts(cell, heading),
    "text": lambda cell, heading, prop, _: _text(cell.removeprefix("'"), heading, prop.longest),
}


def read_cell(text: str, heading: str, prop: Property, bare: Any = None) -> Any:
    """One cell as a value; `bare` is the unit of a number without one; raises FieldFault."""
    if re.match(r"[=@]|[+-](?![\d.,])", text):
        raise FieldFault(heading, text[:40], "looks like a spreadsheet formula; put its value instead")
    return READERS[prop.kind](text, heading, prop, bare or _bare_unit(heading, prop.kind))
