"""Cloths out as CSV, XLSX and JSON. What goes out comes in the same."""

from __future__ import annotations

import json
from typing import Any

from nematex.store.records import ClothRecord
from nematex.tables import properties
from nematex.usecases.cloth.colourways import say_bolts, say_colourways
from nematex.usecases.cloth.values import value_of
from nematex.usecases.files.cells import csv_text, sheet_cells
from nematex.usecases.files.xlsx_text import xlsx_bytes


def flat_cloth(record: ClothRecord) -> dict[str, Any]:
    """A cloth as one flat row, under the names that the import knows."""
    row = {name: value_of(record, prop) for name, prop in properties().items()}
    for name in ("price_per_m", "sale_price_per_m"):
        price = row[name]
        row[name] = format(price.normalize(), "f") if price is not None else None
    row["colours"] = " ".join(record.colours)
    row["colourways"], row["bolts"] = say_colourways(record.colourways), say_bolts(record.bolts)
    row["arrived"] = record.arrived.isoformat() if record.arrived else None
    row["known"] = json.dumps(dict(record.facts.known)) if record.facts.known else None
    return row


def cloths_csv(records: list[ClothRecord]) -> str:
    return csv_text(list(properties()), [flat_cloth(record) for record in records])


def cloths_json(records: list[ClothRecord]) -> str:
    return json.dumps([flat_cloth(record) for record in records], ensure_ascii=False, indent=1)


def cloths_xlsx(records: list[ClothRecord]) -> bytes:
    """The same columns as the CSV; numbers stay numbers."""
    columns = list(properties())
    return xlsx_bytes(columns, sheet_cells(columns, [flat_cloth(record) for record in records]), "cloths")
