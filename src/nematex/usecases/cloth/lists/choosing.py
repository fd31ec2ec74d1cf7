"""What is chosen and mended on the preview of a list, before it is put on the shelf."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from nematex.core.errors import FieldFault, UnknownChoice
from nematex.store.cloth import uploads
from nematex.tables import properties
from nematex.usecases.cloth.lists.headings import HELPERS
from nematex.usecases.held.shop import Shop

LONGEST_MENDED = 2000  # letters of a cell


def choose_columns(shop: Shop, upload_id: int, chosen: dict[int, str]) -> None:
    """Keep a corrected mapping; raises FieldFault if a field is taken twice."""
    taken: dict[str, int] = {}
    labels = {name: prop.label for name, prop in properties().items()} | HELPERS
    for at, name in chosen.items():
        if name not in labels:
            raise UnknownChoice("column", name, labels, "field")
        if name in taken and name != "unit":
            where = f"is chosen for column {taken[name] + 1} and column {at + 1}; choose it once"
            raise FieldFault("columns", labels[name], where)
        taken[name] = at
    _keep(shop, upload_id, columns={str(at): name for at, name in chosen.items()})


def choose_sheet(shop: Shop, upload_id: int, name: str) -> None:
    """Read another sheet of the workbook; what was chosen for the one before is let go."""
    with shop.database.work() as work:
        uploads.remember_mapping(work, upload_id, {"sheet": name[:LONGEST_MENDED]})


def mend_row(shop: Shop, upload_id: int, row: int, cells: Mapping[int, str]) -> None:
    """Keep the mended cells of a row of the list."""
    _keep(shop, upload_id, cells={str(row): {str(at): text.strip()[:LONGEST_MENDED] for at, text in cells.items()}})


def _keep(shop: Shop, upload_id: int, **more: dict[str, Any]) -> None:
    """Add to what is remembered of a kept list."""
    with shop.database.work() as work:
        kept = uploads.upload(work, upload_id)
        before = kept.mapping if kept else {}
        columns = {"columns": more["columns"]} if "columns" in more else {}
        merged: dict[str, Any] = {name: {**before.get(name, {}), **more[name]} for name in ("cells",) if name in more}
        uploads.remember_mapping(work, upload_id, {**before, **columns, **merged})
