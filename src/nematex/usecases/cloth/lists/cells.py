"""A cell of a list, or a field of the form, as a value."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable, Mapping
from datetime import date
from typing import Any

from nematex.core.cloth.facts import STRUCTURES
from nematex.core.cloth.lexicon import key
from nematex.core.cloth.measuring.typed import read_bending_length_cm, read_stretch_pct, read_stretches_pct
from nematex.core.cloth.properties import Property
from nematex.core.colour.words import read_colours
from nematex.core.errors import FieldFault, UnknownChoice
from nematex.core.links import read_link
from nematex.core.quantity.money import read_price
from nematex.core.quantity.reader import read_length_cm, read_percent, read_weight_gsm, read_width_cm, read_yes, to_number
from nematex.core.quantity.units import CM_PER_YARD
from nematex.core.signs import without_controls
from nematex.core.sources import read_sources
from nematex.core.tables import Tables
from nematex.tables import colour_words, properties
from nematex.usecases.cloth.colourways import read_bolts, read_colourways
from nematex.usecases.cloth.lists.headings import HELPERS, heading_unit
from nematex.usecases.files.csv_text import SheetText

LONGEST_CELL = 2000  # letters
WEIGHT_WORD = "weight word"  # among what a row says: a word instead of a number
HOW_MUCH = re.compile(r"\b(?:super|very|really|quite|fairly|rather|lovely and|nice and|extra|so)\b", re.IGNORECASE)


def _choice(choices: Iterable[str], kind: str) -> Callable[[str, str], str]:
    known = list(choices)

    def read(text: str, field: str) -> str:
        said = " ".join(text.casefold().replace("_", " ").split())
        for word in (said, " ".join(HOW_MUCH.sub(" ", said).split())):
            for choice in known:
                if word == choice.casefold().replace("_", " "):
                    return choice
        raise UnknownChoice(field, text, known, kind)

    return read


def _structure(text: str, field: str) -> str:
    word = text.casefold().strip().removesuffix("s").removesuffix("ted")
    return _choice(STRUCTURES, "structure")("knit" if word in ("knit", "knitt", "jersey") else word, field)


def _text(text: str, field: str, longest: int) -> str:
    text = without_controls(text).strip()
    if len(text) > longest:
        raise FieldFault(field, f"{text[:30]}…", f"is {len(text)} letters long; at most {longest} are kept")
    return text


SOLD_OUT = frozenset(
    key(words)
    for words in (
        *("sold out", "soldout", "out of stock", "none", "none left", "nil", "no stock", "gone"),
        *("ausverkauft", "vergriffen", "nicht vorrätig", "nicht mehr vorrätig", "leer"),
    )
)
_ABOUT_STOCK = re.compile(
    r"^\s*(?:yes|ja|only|just|last|about|approx\.?|ca\.?|circa|over|more than|nur noch|nur|noch|rest|etwa|über|mehr als)\s+|"
    r"\s*(?:left|remaining|in stock|available|vorrätig|übrig|auf lager|\+)\s*$",
    re.IGNORECASE,
)


def read_stock_m(text: str, field: str, bare: str = "m") -> float:
    """Metres in stock: a length, also with 'only … left' or '25+' about it, or words for none. Raises FieldFault."""
    if key(text) in SOLD_OUT or key(re.split(r"[,;:(–-]", text, maxsplit=1)[0]) in SOLD_OUT:
        return 0.0  # 'sold out, back in May'
    plain = _ABOUT_STOCK.sub("", _ABOUT_STOCK.sub("", text)).strip()
    return read_length_cm(plain or text, field, bare) / 100


def _date(text: str, field: str) -> date:
    """A date as 2026-11-24, 24.11.2026 or 24/11/2026: day before month where the year comes last."""
    try:
        found = re.fullmatch(r"(\d{1,2})[./-](\d{1,2})[./-](\d{4})", text.strip())
        return date(int(found[3]), int(found[2]), int(found[1])) if found else date.fromisoformat(text.strip()[:10])
    except ValueError:
        raise FieldFault(field, text, "is not a date; write it like 2026-11-24") from None


def _sources(text: str, field: str) -> str:
    read_sources(text, field)
    return text


# Bare numbers above these cannot be inches or ounces, and then no number of their column is.
METRIC_ABOVE = {"width": (72.0, "cm"), "weight": (20.0, "gsm")}


def column_units(sheet: SheetText, mapping: Mapping[int, str]) -> dict[int, Any]:
    """Column → unit of its bare numbers: from its heading, else from its largest bare number."""
    units: dict[int, Any] = {}
    for at, name in mapping.items():
        if name in HELPERS:
            continue
        kind = properties()[name].kind
        units[at] = heading_unit(sheet.header[at], kind)
        if units[at] is None and kind in METRIC_ABOVE:
            short = (row[at] for _, row in sheet.rows if len(row[at]) < 12)
            bare = [float(cell.replace(",", ".")) for cell in short if re.fullmatch(r"\d+(?:[.,]\d+)?", cell)]
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
    "price": lambda cell, heading, _, bare: read_price(cell, heading, bare or 100.0),
    "stock": lambda cell, heading, _, bare: read_stock_m(cell, heading, "yd" if bare == CM_PER_YARD else "m"),
    "yes": lambda cell, heading, *_: read_yes(cell, heading),
    "structure": lambda cell, heading, *_: _structure(cell, heading),
    "choice": lambda cell, heading, prop, _: _choice(prop.words, f"word for {prop.label}")(cell, heading),
    "date": lambda cell, heading, *_: _date(cell, heading),
    "colours": lambda cell, heading, *_: read_colours(cell, heading, colour_words()),
    "colourways": lambda cell, heading, *_: read_colourways(cell, heading),
    "bolts": lambda cell, heading, *_: read_bolts(cell, heading),
    "link": lambda cell, heading, *_: read_link(cell, heading),
    "day": lambda cell, heading, *_: _date(cell, heading).isoformat(),
    "sources": lambda cell, heading, prop, _: _sources(_text(cell, heading, prop.longest), heading),
    "text": lambda cell, heading, prop, _: _text(cell.removeprefix("'"), heading, prop.longest),
}


def read_values(text: str, heading: str, prop: Property, tables: Tables, bare: Any = None) -> dict[str, Any]:
    """What one cell says, by property: a stretch may say both directions, a weight may be a word. Raises FieldFault."""
    if prop.name == "weight_gsm" and key(text) in tables.weight_keys:
        return {WEIGHT_WORD: tables.weight_keys[key(text)]}
    if prop.name == "stretch_cross_pct":
        across, along = read_stretches_pct(text, heading)
        said = {"stretch_cross_pct": across, "stretch_length_pct": along}
        return {name: value for name, value in said.items() if value is not None}
    return {prop.name: read_cell(text, heading, prop, bare)}


def read_cell(text: str, heading: str, prop: Property, bare: Any = None) -> Any:
    """One cell as a value; `bare` is the unit of a number without one; raises FieldFault."""
    if len(text) > LONGEST_CELL:
        raise FieldFault(heading, f"{text[:30]}…", f"is {len(text)} letters long; at most {LONGEST_CELL} are read")
    if re.match(r"[=@]|[+-](?![\d.,])", text):
        raise FieldFault(heading, text[:40], "looks like a spreadsheet formula; put its value instead")
    return READERS[prop.kind](text, heading, prop, bare or heading_unit(heading, prop.kind))
