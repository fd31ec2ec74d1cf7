"""One change to many cloths: seen before it is made, kept as readings like every other change."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from nematex.core.errors import FieldFault, UnknownChoice
from nematex.store.records import ClothRecord
from nematex.usecases.cloth.form import CHOICES, FIELDS, form_values, record_from_form
from nematex.usecases.cloth.readings import keep_cloths
from nematex.usecases.shop import Shop

ONE_BY_ONE = ("code", "name", "stock_m", "colourways", "bolts")  # what only makes sense for a single cloth
BULK_FIELDS = {each.name: each for _, group in FIELDS for each in group if each.name not in ONE_BY_ONE}


@dataclass(frozen=True)
class BulkChange:
    """What would become of one cloth: its field before and after."""

    old: ClothRecord
    new: ClothRecord
    before: str
    after: str


def bulk_changes(records: Sequence[ClothRecord], field: str, text: str) -> list[BulkChange]:
    """The changes to those that are not so already; an empty text empties the field. Raises FieldFault."""
    if field not in BULK_FIELDS:
        raise UnknownChoice("field", field, [each.label for each in BULK_FIELDS.values()], "field")
    choices = CHOICES.get(field)
    if text and choices and text not in choices:
        raise UnknownChoice(BULK_FIELDS[field].label, text, choices, "choice")
    found = []
    for record in records:
        values = form_values(record)
        before = values.get(field, "")
        new = record_from_form({**values, field: text}, record, {record.code.casefold()})
        after = form_values(new).get(field, "")
        if after != before:
            found.append(BulkChange(record, new, before, after))
    return found


def apply_bulk(shop: Shop, changes: Sequence[BulkChange], by: str) -> None:
    if not changes:
        raise FieldFault("cloths", "", "are all so already; nothing was changed")
    with shop.database.work() as work:
        before = {each.old.code.casefold(): each.old for each in changes}
        keep_cloths(work, [each.new for each in changes], before, by, "changed together")
