"""The cloth form: the same readers as the price list, so '150cm/59"' works here too."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from functools import cache
from typing import Any

from pydantic import ValidationError

from nematex.core.cloth.properties import Property
from nematex.core.errors import FieldFault
from nematex.core.quantity.estimate import Known
from nematex.core.tables import Tables
from nematex.store.records import ClothRecord, Colourway
from nematex.tables import colour_words, properties, readable
from nematex.usecases.cloth.exchange import flat_cloth
from nematex.usecases.cloth.lists.cells import read_values
from nematex.usecases.cloth.lists.making import make_record

YES_NO = ("yes", "no")


@cache
def form_groups() -> dict[str, list[Property]]:
    """The groups of the form with their fields, in the order of the table."""
    groups: dict[str, list[Property]] = {}
    for prop in properties().values():
        if prop.group:
            groups.setdefault(prop.group, []).append(prop)
    return groups


def choices_of(prop: Property) -> tuple[str, ...]:
    """What can be chosen for a property; empty where it is typed."""
    return YES_NO if prop.kind == "yes" else prop.words


# Written with its unit, so that a narrow width is not taken for inches when it is read again.
UNITS = {"weight": " g/m²", "width": " cm", "length": " cm", "percent": " %", "bend": " cm", "stretch": " %", "stock": " m"}


def _text(value: object, kind: str) -> str:
    if isinstance(value, bool):
        return "yes" if value else "no"
    return f"{value:.6g}{UNITS.get(kind, '')}" if isinstance(value, float) else str(value)


def form_values(record: ClothRecord) -> dict[str, str]:
    """A record as the texts of its form."""
    values = {
        name: _text(value, properties()[name].kind)
        for name, value in flat_cloth(record).items()
        if value is not None and name != "known"
    }
    by_word = record.facts.known.get("colours") == Known.TYPICAL.word
    if by_word and (words := colour_words().said(record.colours)):
        values["colours"] = words
    return values


def record_from_form(values: Mapping[str, str], old: ClothRecord | None, tables: Tables) -> ClothRecord:
    """The record typed; raises FieldFault naming field, value and choices."""
    fields = properties()
    read: dict[str, Any] = {}
    for name, text in values.items():
        if name in fields and text:
            said = read_values(text, fields[name].label, fields[name], tables)
            read |= {other: value for other, value in said.items() if other == name or not values.get(other)}
    for name in ("code", "name"):
        if name not in read:
            raise FieldFault(fields[name].label, "", "is missing; every cloth needs one")
    if old and read["code"] != old.code:
        raise FieldFault("article code", read["code"], f"cannot be changed: it is how price lists find the cloth ({old.code})")
    try:
        record = make_record(read, tables)
    except ValidationError as fault:
        first = fault.errors(include_url=False)[0]
        name = str(first["loc"][-1]) if first["loc"] else "cloth"
        raise FieldFault(fields[name].label if name in fields else name, first["input"], first["msg"].lower()) from None
    if old:
        # How a value is known stays for values that were not touched.
        before = form_values(old)
        untouched = {name: before.get(name) == values.get(name) for name in readable()}
        known = {name: how for name, same in untouched.items() if (how := _kept_known(name, old, same)) is not None}
        record = replace(
            record,
            id=old.id,
            photo_id=old.photo_id,
            stretch_unsaid=old.stretch_unsaid and before.get("stretch_cross_pct") == values.get("stretch_cross_pct"),
            colourways=_with_photos(record.colourways, old.colourways),
            currency=record.currency or old.currency,
            facts=replace(record.facts, known=known),
        )
    return record


def _with_photos(now: tuple[Colourway, ...], before: tuple[Colourway, ...]) -> tuple[Colourway, ...]:
    """Colourways as typed, with the photos that those of the same name had."""
    photos = {each.name.casefold(): each.photo_id for each in before}
    return tuple(replace(each, photo_id=photos.get(each.name.casefold())) for each in now)


def _kept_known(name: str, old: ClothRecord, untouched: bool) -> str | None:
    """How a value is known after an edit: as before, and a corrected value counts no less than the one it corrects."""
    held = old.facts.known.get(name)
    if untouched or held is None:
        return held
    return max(Known.from_word(held), readable()[name].known or Known.STATED).word


def cloth_names(tables: Tables) -> list[str]:
    """Every cloth name, for the form's suggestions."""
    return [kind.name for kind in tables.lexicon.types]
