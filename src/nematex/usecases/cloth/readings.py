"""Keeping what was read: every reading stays, and the cloth's own columns hold the one in force."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import replace
from datetime import datetime
from typing import Any

from nematex.core.cloth.properties import Home, Property
from nematex.core.cloth.readings import in_force
from nematex.core.codes import code_key
from nematex.core.errors import FieldFault
from nematex.core.quantity.estimate import Known
from nematex.store.cloth import cloths as cloth_store
from nematex.store.cloth import readings as reading_store
from nematex.store.database import Work
from nematex.store.records import ClothRecord, ReadingRecord
from nematex.store.settings import DEMO, settings
from nematex.tables import readable
from nematex.usecases.cloth.values import value_of


def how_known(name: str, known: Mapping[str, str]) -> str:
    """How a value counts as known: as said, or as such a property commonly is."""
    return known.get(name) or (readable()[name].known or Known.STATED).word


def as_reading(prop: Property, value: Any) -> tuple[float | None, str | None]:
    """A value as the number or the words of a reading."""
    if prop.name == "colours":
        return None, " ".join(value) or None
    return (float(value), None) if prop.reading == "number" else (None, str(value))


def new_readings(
    old: ClothRecord | None,
    new: ClothRecord,
    cloth_id: int,
    by: str,
    instrument: str,
    when: datetime,
    upload_id: int | None = None,
) -> list[ReadingRecord]:
    """A reading for every property whose value is new or changed."""
    found = []
    for name, prop in readable().items():
        value = value_of(new, prop)
        if value in (None, "", [], ()) or (old and value == value_of(old, prop)):
            continue
        number, word = as_reading(prop, value)
        how = how_known(name, new.facts.known)
        found.append(ReadingRecord(cloth_id, name, number, word, how, by, instrument, when, upload_id=upload_id))
    return found


def keep_cloths(
    work: Work,
    records: Iterable[ClothRecord],
    old_by_code: Mapping[str, ClothRecord],
    by: str,
    instrument: str,
    extra: Iterable[tuple[str, ReadingRecord]] = (),
    upload_id: int | None = None,
) -> None:
    """Save cloths with a reading for each changed property; `extra` are (code, reading) that are kept but not in force."""
    kept = list(records)
    cloth_store.save_cloths(work, kept)
    ids = cloth_store.ids_by_code(work, [each.code for each in kept])
    when = datetime.now().replace(microsecond=0)
    found = []
    for record in kept:
        code = code_key(record.code)
        found += new_readings(old_by_code.get(code), record, ids[code], by, instrument, when, upload_id)
    found += [
        replace(reading, cloth_id=ids[code], taken_at=when, upload_id=upload_id) for code, reading in extra if code in ids
    ]
    reading_store.add_readings(work, found)


def simulated_count(work: Work) -> bool:
    """Whether readings of simulated instruments may be in force: in the made-up shop, and nowhere else."""
    return DEMO in settings(work)


def keep_readings(work: Work, record: ClothRecord, readings: Iterable[ReadingRecord]) -> None:
    """Add readings to a cloth on the shelf and bring the columns of their properties up to date. Raises FieldFault."""
    added = list(readings)
    cloth_store.announce_change(work)
    current = cloth_store.cloth(work, record.id)  # as it is now, not as the page that was typed on knew it
    if current is None:
        raise FieldFault("cloth", record.facts.name, "was put into the bin meanwhile: put it back, then keep this again")
    reading_store.add_readings(work, added)
    made_up = simulated_count(work)
    known, more = dict(current.facts.known), dict(current.more)
    by_property: dict[str, list[ReadingRecord]] = {}
    for reading in reading_store.readings_of(work, record.id):
        by_property.setdefault(reading.property, []).append(reading)
    values: dict[str, Any] = {}
    for name in dict.fromkeys(reading.property for reading in added):
        best = in_force(by_property[name])
        if best is None or (best.known == Known.SIMULATED.word and not made_up):
            continue
        value = best.number if best.word is None else best.word.split() if name == "colours" else best.word
        if readable()[name].home is Home.MORE:
            more[name] = value
        else:
            values[name] = value
        known[name] = best.known
    cloth_store.change_cloth(work, record.id, {**values, "known": known, "more": more})
