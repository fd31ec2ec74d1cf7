"""A swatch photo: kept, read by the worker, confirmed or corrected by the user, and only then put in force."""

from __future__ import annotations

import json
from collections.abc import Mapping
from dataclasses import dataclass, replace
from datetime import datetime
from typing import Any

from nematex.core.cloth.facts import DIRECTIONS
from nematex.core.colour.difference import to_hex
from nematex.core.errors import FieldFault, UnknownChoice
from nematex.core.photo.swatch import REPORTED, check_swatch
from nematex.core.quantity.estimate import Known
from nematex.core.quantity.reader import to_number
from nematex.store.cloth import cloths as cloth_store
from nematex.store.cloth import readings as reading_store
from nematex.store.records import ClothRecord, Job, Photo, ReadingRecord
from nematex.tables import properties
from nematex.usecases.cloth.readings import keep_readings
from nematex.usecases.files.photo_file import open_photo, taken
from nematex.usecases.held.shop import Shop
from nematex.usecases.jobs import asking
from nematex.usecases.jobs.running import Handle, Stopped
from nematex.usecases.photo.interpretation import swatch_json

LENGTHS = {
    "scale_cm": "print_scale_cm",
    "repeat_length_cm": "print_repeat_length_cm",
    "repeat_width_cm": "print_repeat_width_cm",
}
WORDS = {"kind": ("print_kind", properties()["print_kind"].words), "direction": ("print_direction", DIRECTIONS)}
NOT_SURE = "not sure"
SURE = 0.85  # from here on "sure"; from what is reported at all on, "fairly sure"
INSTRUMENT = "swatch photo"


@dataclass(frozen=True)
class Answer:
    """One thing the photo says: its value or None, confidence 0–1, and whether it is offered as the answer."""

    name: str
    value: Any
    confidence: float

    @property
    def word(self) -> str:
        return "sure" if self.confidence >= SURE else "fairly sure" if self.confidence >= REPORTED else NOT_SURE

    @property
    def offered(self) -> Any:
        return self.value if self.confidence >= REPORTED and self.value != "unsure" else None


JOB = "photo"
SWATCH = "swatch"  # kind of photo
SIMULATED = "simulated"  # among what is said of a photo: the made-up camera took it


def keep_photo(shop: Shop, record: ClothRecord, content: bytes, px_per_cm: str, wide_cm: str, simulated: bool = False) -> int:
    """Keep a photo that can be read; returns its number. Raises FieldFault."""
    sent = taken(content)
    scale = sent.opened.px_per_cm(px_per_cm, wide_cm)
    check_swatch(sent.opened.linear, scale * sent.opened.reduced)
    with shop.database.work() as work:
        found = {SIMULATED: True} if simulated else {}
        return reading_store.add_photo(work, Photo(0, record.id, SWATCH, sent.copy, scale * sent.reduced, found))


def photo_by_id(shop: Shop, photo_id: int) -> Photo | None:
    with shop.database.work() as work:
        return reading_store.photo(work, photo_id)


def swatch_photos(shop: Shop, cloth_id: int) -> list[Photo]:
    """The swatch photos of a cloth without their content, the newest first."""
    with shop.database.work() as work:
        return reading_store.photos_of(work, cloth_id, SWATCH)


def swatch_photo(shop: Shop, cloth_id: int, photo_id: int) -> Photo | None:
    """One swatch photo of this cloth, read or not yet."""
    photo = photo_by_id(shop, photo_id)
    return photo if photo and photo.cloth_id == cloth_id and photo.kind == SWATCH else None


def is_read(photo: Photo) -> bool:
    return bool(set(photo.found) - {SIMULATED})


def ask_reading(shop: Shop, photo: Photo) -> Job:
    """The job that reads a photo, when it is done or a moment has gone by."""
    job_id = asking.ask(shop.database, shop.enqueue, JOB, json.dumps({"photo": photo.id}), {"cloth": photo.cloth_id}, 0)
    asking.await_end(shop.database, job_id)
    found = asking.look(shop.database, job_id)
    if found is None:
        raise FieldFault("photo", photo.id, "is not being read any more; open it again")
    return found[0]


def reading_of(shop: Shop, job_id: int) -> Job | None:
    """The job of this number, if it reads a photo."""
    found = asking.look(shop.database, job_id)
    return found[0] if found and found[0].kind == JOB else None


def run_photo(shop: Shop, handle: Handle) -> str:
    """The worker's part: read a photo that was kept; raises FieldFault."""
    photo = photo_by_id(shop, json.loads(handle.job.asked)["photo"])
    if photo is None:
        raise Stopped("The photo is gone with its cloth.")
    found = dict(photo.found) | swatch_json(open_photo(photo.content), photo.px_per_cm)
    with shop.database.work() as work:
        reading_store.keep_found(work, photo.id, found)
    return ""


def answers(found: Mapping[str, Any]) -> dict[str, Answer]:
    """What a reading says, one by one."""
    return {name: Answer(name, found[name], found["confidence"][name]) for name in (*WORDS, *LENGTHS)}


def _word(values: Mapping[str, str], name: str) -> str | None:
    """A word as confirmed or corrected: somebody has seen it, which is as good as measured."""
    column, choices = WORDS[name]
    text = values.get(name, NOT_SURE)
    if text == NOT_SURE:
        return None
    if text not in choices:
        raise UnknownChoice(properties()[column].label, text, (*choices, NOT_SURE), "choice")
    return text


def _length(values: Mapping[str, str], name: str) -> float | None:
    text = values.get(name, "").strip()
    prop = properties()[LENGTHS[name]]
    return prop.checked(to_number(text.removesuffix("cm"), prop.label)) if text else None


def _chosen_colours(values: Mapping[str, str], found: Mapping[str, Any]) -> list[str]:
    """The ticked colours as hex, the ground first."""
    ground = values.get("ground", str(found["ground"]))
    order = sorted(range(len(found["palette"])), key=lambda at: (str(at) != ground, -found["palette"][at]["share"]))
    return [to_hex(found["palette"][at]["srgb"]) for at in order if f"colour-{at}" in values]


def confirmed(photo: Photo, values: Mapping[str, str], by: str) -> list[ReadingRecord]:
    """The readings the user lets stand; raises FieldFault naming the field."""
    when = datetime.now().replace(microsecond=0)
    kept, simulated = [], bool(photo.found.get(SIMULATED))
    known = (Known.SIMULATED if simulated else Known.MEASURED).word
    camera = f"simulated {INSTRUMENT}" if simulated else INSTRUMENT

    def keep(column: str, number: float | None, word: str | None, corrected: bool = False) -> None:
        note = f"photo {photo.id}{', corrected by eye' if corrected else ''}"
        kept.append(ReadingRecord(photo.cloth_id, column, number, word, known, by, camera, when, note=note))

    for name, (column, _) in WORDS.items():
        if found := _word(values, name):
            keep(column, None, found, found != photo.found[name])
    for name, column in LENGTHS.items():
        length = _length(values, name)
        if length is not None:
            keep(column, length, None, length != photo.found[name])
    colours = _chosen_colours(values, photo.found)
    if colours:
        keep("colours", None, " ".join(colours))
    if not kept:
        raise FieldFault("reading", "", "is empty; let at least one answer stand, or leave without keeping")
    return kept


def put_in_force(shop: Shop, record: ClothRecord, photo: Photo, readings: list[ReadingRecord], colourway: str) -> None:
    """Save the readings; photo and colours go to the named colourway, or to the cloth."""
    colours = next((each.word for each in readings if each.property == "colours"), None)
    with shop.database.work() as work:
        cloth_store.announce_change(work)
        record = cloth_store.cloth(work, record.id) or record  # as it is now; one in the bin is refused below
        names = [each.name for each in record.colourways]
        if colourway and colourway not in names:
            raise UnknownChoice("colourway", colourway, names, "colourway")
        if colourway:
            readings = [each for each in readings if each.property != "colours"]
            ways = [
                replace(each, photo_id=photo.id, colours=tuple(colours.split()) if colours else each.colours)
                if each.name == colourway
                else each
                for each in record.colourways
            ]
            changed = cloth_store.cloth_values(replace(record, colourways=tuple(ways)))
            cloth_store.change_cloth(work, record.id, {"colourways": changed["colourways"]})
        if not colourway or record.photo_id is None:
            cloth_store.change_cloth(work, record.id, {"photo_id": photo.id})
        keep_readings(work, record, readings)
