"""How the shelf is narrowed and sorted: read from an address, with the units people type."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from datetime import date
from typing import Any

from nematex.core.cloth.print_scale import scale_words
from nematex.core.colour.difference import read_hex
from nematex.core.colour.words import read_colours
from nematex.core.errors import FieldFault, UnknownChoice
from nematex.core.quantity.money import read_price
from nematex.core.quantity.reader import read_length_cm, read_percent, read_weight_gsm, read_width_cm
from nematex.core.tables import Tables
from nematex.tables import colour_words

SEASONS = ("spring", "summer", "autumn", "winter", "occasion")
SORTS = (
    "name",
    "lightest",
    "heaviest",
    "softest",
    "stiffest",
    "widest",
    "cheapest",
    "most in stock",
    "newest",
    "nearest colour",
)
FILTERED = {name: name for name in ("structure", "hand", "sheer", "print_kind")} | {"direction": "print_direction"}


def filter_choices(tables: Tables) -> dict[str, Sequence[str]]:
    """Filter → the words that can be chosen."""
    words: dict[str, Sequence[str]] = {name: tables.properties[prop].words for name, prop in FILTERED.items()}
    return {**words, "scale": scale_words(tables), "season": SEASONS, "sort": SORTS}


LABELS = {
    "structure": "structure", "hand": "handle", "sheer": "see-through", "print_kind": "print", "direction": "direction",
    "scale": "print size", "season": "season", "sort": "sorted", "weight_from": "weight from", "weight_to": "weight to",
    "stretch_from": "stretch from", "width_from": "width from", "near": "colour near", "fibre": "fibre",
    "price_to": "price up to",
    "stock_from": "in stock at least", "new_since": "new since", "needs": "needs measuring", "q": "search",
}  # fmt: skip


@dataclass(frozen=True)
class ShelfFilter:
    """What is asked of the shelf. Weights in g/m², widths in cm, stock in m, price per m, stretch in % across."""

    q: str = ""
    words: Mapping[str, str] = field(default_factory=dict)
    weight_from: float | None = None
    weight_to: float | None = None
    stretch_from: float | None = None
    width_from: float | None = None
    stock_from: float | None = None
    price_to: float | None = None
    near: tuple[int, int, int] | None = None
    fibre: str = ""
    needs: bool = False
    codes: frozenset[str] | None = None  # keys of article codes: those that a list brought
    new_since: date | None = None
    page: int = 1

    @property
    def sort(self) -> str:
        return self.words.get("sort") or ("nearest colour" if self.near else "name")


def _date(text: str, name: str) -> date:
    try:
        return date.fromisoformat(text)
    except ValueError:
        raise FieldFault(name, text, "is not a date; write it like 2026-11-24") from None


def _colour(text: str, name: str) -> tuple[int, int, int]:
    """A colour word that is known here, or a hex colour."""
    if text.startswith("#"):
        return read_hex(text, name)
    found = read_colours(text, name, colour_words()).colours
    if not found:
        raise FieldFault(name, text, "names no colour; write a word like rust, or a code like #24404a")
    return read_hex(found[0], name)


def _fibre(text: str, name: str, tables: Tables) -> str:
    fibre = tables.fibres.find(text)
    if fibre is None:
        raise UnknownChoice(name, text, tables.fibres.by_alias, "fibre")
    return fibre.name


READERS: dict[str, Callable[[str, str, Tables], Any]] = {
    "weight_from": lambda text, name, _: read_weight_gsm(text, name),
    "weight_to": lambda text, name, _: read_weight_gsm(text, name),
    "stretch_from": lambda text, name, _: read_percent(text, name),
    "width_from": lambda text, name, _: read_width_cm(text, name),
    "stock_from": lambda text, name, _: read_length_cm(text, name, "m") / 100,
    "price_to": lambda text, name, _: float(read_price(text, name)[0]),
    "near": lambda text, name, _: _colour(text, name),
    "fibre": _fibre,
    "new_since": lambda text, name, _: _date(text, name),
}


def read_filter(given: Mapping[str, str], tables: Tables) -> tuple[ShelfFilter, list[FieldFault]]:
    """The filter in an address, and what in it could not be read; the rest of it still narrows."""
    faults: list[FieldFault] = []
    words: dict[str, str] = {}
    for name, choices in filter_choices(tables).items():
        if text := given.get(name, ""):
            if text in choices:
                words[name] = text
            else:
                faults.append(UnknownChoice(LABELS[name], text, choices, LABELS[name]))
    read: dict[str, Any] = {}
    for name, reader in READERS.items():
        if text := given.get(name, "").strip():
            try:
                read[name] = reader(text, LABELS[name], tables)
            except FieldFault as fault:
                faults.append(fault)
    page = given.get("page", "1")
    number = int(page) if page.isdecimal() and page.isascii() and len(page) < 7 else 1
    return ShelfFilter(given.get("q", "")[:200], words, needs="needs" in given, page=number, **read), faults
