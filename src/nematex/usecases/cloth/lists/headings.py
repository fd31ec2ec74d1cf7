"""The headings of a list: which field each means, which columns hold units, and the unit that a heading gives."""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Mapping
from typing import Any

from nematex.core.errors import FieldFault
from nematex.core.quantity.money import currency_in, per_cm_in
from nematex.core.quantity.scan import unit_of
from nematex.core.quantity.units import CM_PER_YARD
from nematex.tables import properties

LONGEST_HEADING = 120  # letters that are looked at
# What a column can be that is no property: it says the unit of another.
HELPERS = {"price_unit": "unit of the price", "unit": "unit of the column before it", "described": "describes it in words"}
HELPER_HEADINGS = {
    "price_unit": ("price unit", "unit of price", "price per", "per", "sold by", "preiseinheit", "pro", "je", "basis"),
    "described": (
        "description",
        "describe",
        "product description",
        "details",
        "characteristics",
        "about",
        "beschreibung",
        "produktbeschreibung",
        "eigenschaften",
        "muster",
        "design",
        "dessin",
    ),
    "unit": ("unit", "units", "uom", "unit of measure", "einheit", "unite", "unidad", "unita", "eenheid"),
}
SEVERAL = ("unit", "described")  # of which a list may have several columns
QUANTITIES = ("weight", "width", "length", "bend", "price", "stock")  # kinds that have a unit


def plain(text: str) -> str:
    """A heading as it is compared: small letters without accents, signs and brackets."""
    folded = unicodedata.normalize("NFKD", text[:LONGEST_HEADING].casefold()).replace("_", " ")
    kept = "".join(letter for letter in folded if not unicodedata.combining(letter))
    kept = re.sub(r"\([^()]*\)|\[[^][]*\]", " ", kept)
    return " ".join(re.sub(r"[^a-z0-9/%]+", " ", kept).split())


def _known() -> dict[str, str]:
    """Heading → field or helper."""
    helpers = {name: helper for helper, names in HELPER_HEADINGS.items() for name in names}
    return helpers | {plain(name): prop.name for prop in properties().values() for name in (prop.name, *prop.headings)}


def guess_mapping(header: list[str]) -> dict[int, str]:
    """Column number → field, by the many names a heading goes by; each field is taken once."""
    exact = _known()
    mapping: dict[int, str] = {}
    words_of_name = (words for heading in header if exact.get(words := plain(heading)) == "name")
    named = any(words not in HELPER_HEADINGS["described"] for words in words_of_name)
    for exactly in (True, False):
        for at, heading in enumerate(header):
            if at in mapping:
                continue
            words = plain(heading)
            found = exact.get(words) if exactly else _contained(words, exact)
            if words in HELPER_HEADINGS["described"] and (found in mapping.values() or named):
                found = "described"  # 'Description' beside a name of its own, before it or behind
            if found and (found not in mapping.values() or found in SEVERAL):
                mapping[at] = found
    if "name" not in mapping.values():
        # A column 'Fabric' without one for the name holds both: the kind of cloth is read from the name.
        mapping = {at: "name" if field == "cloth" else field for at, field in mapping.items()}
    return mapping


def _contained(words: str, exact: dict[str, str]) -> str | None:
    """A heading that holds a known name as whole words: 'fabric width in cm approx'."""
    hits = [name for name, field in exact.items() if len(name) > 3 and field not in HELPERS and f" {name} " in f" {words} "]
    return exact[max(hits, key=len)] if hits else None


def unit_columns(mapping: Mapping[int, str]) -> dict[int, int]:
    """Column of a quantity → column that says its unit."""
    found: dict[int, int] = {}
    price = next((at for at, name in mapping.items() if name == "price_per_m"), None)
    for at, name in mapping.items():
        before = mapping.get(at - 1, "")
        if name == "unit" and before not in HELPERS and before and properties()[before].kind in QUANTITIES:
            found[at - 1] = at
        elif name in HELPERS and price is not None:
            found.setdefault(price, at)
    return found


def heading_unit(heading: str, kind: str) -> Any:
    """The unit that a column's heading gives to bare numbers: a word, for a price the cm it is for; None without one."""
    heading = heading[:LONGEST_HEADING]
    if kind == "price":
        return _priced_by(heading)
    words = re.findall(r"[a-z²/0-9\"]+", heading.casefold())
    if kind == "stock":
        return CM_PER_YARD if {"yd", "yds", "yard", "yards", "/yd"} & set(words) else None
    if kind == "weight":
        if any(word.startswith("oz") for word in words):
            return "oz"
        return "gsm" if any("g/" in word or word == "gsm" for word in words) else None
    if kind in ("width", "length"):
        return "in" if {"in", "inch", "inches", '"'} & set(words) else "cm" if "cm" in words else None
    return None


def _priced_by(heading: str) -> float | None:
    """For how many cm a heading says that its prices are; less than nothing where it says what is no length."""
    try:
        return per_cm_in(heading)
    except FieldFault:
        return -1.0 if re.search(r"/|\b(?:per|pro|je|par|por)\b", heading.casefold()) else None


def heading_currency(heading: str) -> str:
    """The currency that a column's heading names; empty where it names none."""
    return currency_in(heading[:LONGEST_HEADING])[0]


def with_unit(cell: str, unit: str, kind: str) -> str:
    """A cell with the unit of its neighbour, where it has none of its own."""
    if not unit or not cell:
        return cell
    if kind == "price":
        return cell if re.search(r"/|\bper\b|\bpro\b", cell.casefold()) else f"{cell} per {unit}"
    bare = re.fullmatch(r"[\d\s.,\u00a0-]+", cell)
    return f"{cell} {unit}" if bare and (unit_of(unit) or kind == "weight") else cell
