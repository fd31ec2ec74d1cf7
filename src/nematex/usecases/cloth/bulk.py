"""One change to many cloths: seen before it is made, kept as readings like every other change."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass

from nematex.core.cloth.properties import Property
from nematex.core.errors import FieldFault, UnknownChoice
from nematex.core.tables import Tables
from nematex.store.cloth.cloths import announce_change, cloths_by_code
from nematex.store.records import ClothRecord
from nematex.usecases.cloth.form import choices_of, form_groups, form_values, record_from_form
from nematex.usecases.cloth.readings import keep_cloths
from nematex.usecases.forms.stale import sign_of
from nematex.usecases.held.shop import Shop

SHOWN = 100
Progress = Callable[[int, int], None]
ONE_BY_ONE = ("code", "name", "stock_m", "colourways", "bolts")  # what only makes sense for a single cloth


def bulk_fields() -> dict[str, Property]:
    """What can be changed for many cloths together."""
    return {prop.name: prop for group in form_groups().values() for prop in group if prop.name not in ONE_BY_ONE}


@dataclass(frozen=True)
class BulkChange:
    """What would become of one cloth: its field before and after."""

    old: ClothRecord
    new: ClothRecord
    before: str
    after: str


def check_field(field: str, text: str) -> None:
    """Raises FieldFault for a field that is no such, or a text that it does not know."""
    fields = bulk_fields()
    if field not in fields:
        raise UnknownChoice("field", field, [prop.form_label for prop in fields.values()], "field")
    choices = choices_of(fields[field])
    if text and choices and text not in choices:
        raise UnknownChoice(fields[field].form_label, text, choices, "choice")


def bulk_changes(
    records: Sequence[ClothRecord], field: str, text: str, tables: Tables, progress: Progress | None = None
) -> list[BulkChange]:
    """The changes to those that are not so already; an empty text empties the field. Raises FieldFault."""
    check_field(field, text)
    found = []
    for done, record in enumerate(records):
        if progress:
            progress(done, len(records))
        values = form_values(record)
        before = values.get(field, "")
        new = record_from_form({**values, field: text}, record, tables)
        after = form_values(new).get(field, "")
        if after != before:
            found.append(BulkChange(record, new, before, after))
    return found


@dataclass(frozen=True)
class Seen:
    """What a page shows of a change before it is made: of how many cloths, the first (code, name, before, after), a sign."""

    count: int
    first: list[list[str]]
    sign: str


def seen(changes: Sequence[BulkChange]) -> Seen:
    first = [[each.old.code, each.old.facts.name, each.before, each.after] for each in changes[:SHOWN]]
    return Seen(len(changes), first, sign_of_changes(changes))


def sign_of_changes(changes: Sequence[BulkChange]) -> str:
    """What a page showed of them, as a short sign."""
    return sign_of(sorted((each.old.id, each.before) for each in changes))


def apply_bulk(
    shop: Shop,
    records: Sequence[ClothRecord],
    field: str,
    text: str,
    tables: Tables,
    by: str,
    shown: str | None = None,
    progress: Progress | None = None,
) -> None:
    """Make the change on these cloths as they are now; what else somebody changed meanwhile stays.

    `shown` is the sign of what the page showed of this field. Raises FieldFault.
    """
    with shop.database.work() as work:
        announce_change(work)
        now = {code: each for code, each in cloths_by_code(work, [r.code for r in records]).items() if not each.binned}
        changes = bulk_changes(list(now.values()), field, text, tables, progress)
        if not changes:
            raise FieldFault("cloths", "", "are all so already; nothing was changed")
        if shown is not None and shown != sign_of_changes(changes):
            rule = "was changed by somebody else for some of these cloths; what would change now stands below"
            raise FieldFault(bulk_fields()[field].form_label, text, rule)
        keep_cloths(work, [each.new for each in changes], now, by, "changed together")
