"""Whether a row of a price list is read as the corpus says it means."""

from __future__ import annotations

from typing import Any

from means import TABLES, Entry

from nematex.core.cloth.contradictions import contradictions
from nematex.core.cloth.estimates import Cloth, known_cloth
from nematex.core.cloth.print_scale import scale_word
from nematex.core.colour.difference import nearest_name, read_hex
from nematex.store.records import ClothRecord
from nematex.tables import colour_names
from nematex.usecases.cloth.lists.guessing import with_heading
from nematex.usecases.cloth.lists.headings import guess_mapping
from nematex.usecases.cloth.lists.price_list import Reading, read_rows
from nematex.usecases.files.csv_text import read_sheet

NAMES = colour_names()


def missed_row(entry: Entry) -> list[str]:
    """The checks of a list of one row that do not hold; a row that is refused misses them all."""
    sheet = with_heading(read_sheet(entry.text.encode(), "list.csv"), TABLES)
    (row,) = read_rows(Reading(sheet, guess_mapping(sheet.header), TABLES))
    if row.record is None:
        return list(entry.checks)
    cloth = known_cloth(row.record.facts, TABLES)
    return [check for check in entry.checks if not _holds(check, row.record, cloth)]


def _holds(check: str, record: ClothRecord, cloth: Cloth) -> bool:
    name, _, wanted = check.partition("=")
    found: Any = {
        "cloth": lambda: cloth.type.name if cloth.type else None,
        "structure": lambda: cloth.structure,
        "gsm": lambda: record.facts.weight_gsm and round(record.facts.weight_gsm),
        "width": lambda: record.facts.width_cm and round(record.facts.width_cm),
        "stock": lambda: record.stock_m,
        "colour": lambda: [nearest_name(read_hex(each), NAMES).name for each in record.colours],
        "colours": lambda: len(record.colours),
        "sheer": lambda: record.facts.sheer,
        "print": lambda: record.print_kind,
        "scale": lambda: (
            scale_word(record.facts.print.scale_cm, TABLES) if record.facts.print and record.facts.print.scale_cm else None
        ),
        "direction": lambda: record.facts.print.direction if record.facts.print else None,
        "contradiction": lambda: "yes" if contradictions(cloth) else "no",
    }[name]()
    if name in ("gsm", "width", "stock", "colours"):
        return found is not None and abs(float(found) - float(wanted)) < 0.6
    return wanted in found if isinstance(found, list) else found == wanted
