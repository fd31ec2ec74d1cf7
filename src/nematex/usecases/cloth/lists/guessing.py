"""What a column means by what stands in it, where its heading says nothing: '125 g/m2' is a weight in any language."""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import replace

from nematex.core.cloth.fibres import read_fibres
from nematex.core.colour.words import read_palette
from nematex.core.quantity.money import currency_in
from nematex.core.quantity.scan import TO_CM, scan
from nematex.core.tables import Tables
from nematex.tables import colour_words
from nematex.usecases.cloth.lists.headings import guess_mapping
from nematex.usecases.files.csv_text import SheetText

LOOKED_AT = 40  # cells of a column
LONGEST = 200  # letters of a cell that are looked at
MOST = 0.6  # share of the cells that must say the same
WIDTHS_CM = (60.0, 330.0)
Tell = Callable[[str], bool]


def _has_unit(cell: str, *units: str) -> bool:
    return any(figure.unit in units for figure in scan(cell))


def _is_width(cell: str) -> bool:
    low, high = WIDTHS_CM
    return any(f.unit in ("cm", "in") and low <= f.value * TO_CM[f.unit] <= high for f in scan(cell)) and "#" not in cell


def _is_colours(cell: str) -> bool:
    found = read_palette(cell, colour_words())
    return bool(found.colours) and not found.unknown


def _is_code(cell: str) -> bool:
    return len(cell) <= 24 and any(map(str.isdigit, cell)) and re.fullmatch(r"[\w./-]+(?: [\w./-]+)?", cell) is not None


def _is_kind(cell: str, tables: Tables) -> bool:
    return tables.lexicon.find(cell, anywhere=False) is not None


def _tells(tables: Tables) -> dict[str, Tell]:
    """Field → whether a cell looks like it; the surest first."""
    return {
        "fibres": lambda cell: any(map(str.isdigit, cell)) and bool(read_fibres(cell, tables.fibres).shares),
        "weight_gsm": lambda cell: _has_unit(cell, "gsm", "oz"),
        "price_per_m": lambda cell: bool(currency_in(cell)[0]) and any(map(str.isdigit, cell)),
        "width_cm": _is_width,
        "stock_m": lambda cell: _has_unit(cell, "m", "yd"),
        "colours": _is_colours,
    }


def _column(sheet: SheetText, at: int) -> list[str]:
    """The cells of a column that hold something."""
    return [row[at][:LONGEST] for _, row in sheet.rows[: 4 * LOOKED_AT] if row[at]][:LOOKED_AT]


def _share(cells: list[str], tell: Tell) -> float:
    return sum(map(tell, cells)) / len(cells) if cells else 0.0


def _named(columns: dict[int, list[str]], mapping: dict[int, str]) -> dict[int, str]:
    """The columns of article code and name, among those that are left, where no heading names them."""
    found: dict[int, str] = {}
    taken = set(mapping.values())
    distinct = {at: len(set(cells)) / len(cells) for at, cells in columns.items() if cells and at not in mapping}
    if "code" not in taken:
        codes = [at for at, share in distinct.items() if share == 1 and _share(columns[at], _is_code) >= MOST]
        found |= dict.fromkeys(codes[:1], "code")
    if "name" not in taken:
        words = {at: _share(columns[at], lambda cell: sum(map(str.isalpha, cell)) > 3) for at in distinct if at not in found}
        names = [at for at, share in words.items() if share >= MOST and distinct[at] >= MOST]
        found |= dict.fromkeys(names[:1], "name")
    return found


def guess_columns(sheet: SheetText, tables: Tables) -> dict[int, str]:
    """Column → field: by its heading, else by its cells; each field is taken once."""
    columns = {at: _column(sheet, at) for at in range(len(sheet.header))}
    kinds = [at for at, cells in columns.items() if _share(cells, lambda cell: _is_kind(cell, tables)) >= MOST]
    by_heading = guess_mapping(sheet.header).items()
    mapping = {at: name for at, name in by_heading if not (name == "code" and at in kinds)}  # "Art" may head either
    for name, tell in _tells(tables).items():
        if name in mapping.values():
            continue
        shares = {at: _share(cells, tell) for at, cells in columns.items() if at not in mapping}
        best = max(shares, key=lambda at: shares[at], default=None)
        if best is not None and shares[best] >= MOST:
            mapping[best] = name
    mapping |= _named(columns, mapping)
    free = [at for at in kinds if at not in mapping]
    return mapping | (dict.fromkeys(free[:1], "cloth") if "cloth" not in mapping.values() else {})


def with_heading(sheet: SheetText, tables: Tables) -> SheetText:
    """The sheet as it is, or with its first line among its rows where that holds data and no names of columns."""
    tells = [tell for name, tell in _tells(tables).items() if name not in ("stock_m", "colours")]
    data = sum(any(tell(cell[:LONGEST]) for tell in tells) for cell in sheet.header)
    if data < 2:
        return sheet
    first = sheet.rows[0][0] - 1 if sheet.rows else 1
    return replace(sheet, header=[""] * len(sheet.header), rows=[(first, sheet.header), *sheet.rows])
