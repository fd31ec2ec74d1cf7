"""Takes: what a camera view sends is kept, once; the pace, the chapters and the slips that come of it."""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field, StringConstraints, ValidationError

from nematex.core.air.pace import CLOSING, OPENING, PLACE, Filmed, Pace, learned
from nematex.core.air.take import (
    AGAIN,
    NOTE,
    SAID,
    SLIP,
    Event,
    chapters,
    film_s,
    filmed_again,
    is_over,
    length_s,
    seconds_by_part,
    taken_out,
)
from nematex.core.errors import FieldFault
from nematex.core.quantity.reader import to_number
from nematex.core.rules.reckoning import RunRules
from nematex.core.sent_json import read_sent
from nematex.core.signs import without_controls
from nematex.store.air import takes as store
from nematex.store.air.takes import Take
from nematex.store.programme.programmes import programme as stored_programme
from nematex.usecases.held.shop import Shop

MOST_PARTS, MOST_EVENTS, LONGEST_S = 200, 500, 24 * 3600.0
LEARNED_FROM = 12  # the last takes of the shop
MOST_SHIFT_S = 3600.0

Key = Annotated[str, StringConstraints(pattern=r"^[A-Za-z0-9-]{8,40}$")]


class _Sent(BaseModel):
    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)


class SentPart(_Sent):
    """A part as the camera view showed it."""

    title: Annotated[str, StringConstraints(max_length=300)]
    kind: Literal["opening", "place", "closing"]
    seconds: Annotated[float, Field(ge=0, le=LONGEST_S)]
    picks: Annotated[list[Annotated[int, Field(ge=0, le=2**31 - 1)]], Field(max_length=60)] = []


class SentEvent(_Sent):
    """Something that happened, in s since the take began."""

    key: Key
    kind: Literal["open", "said", "slip", "note", "pause", "go", "again", "end"]
    at: Annotated[float, Field(ge=0, le=LONGEST_S)]
    part: Annotated[int, Field(ge=0, lt=MOST_PARTS)]
    fact: Annotated[str, StringConstraints(max_length=60)] = ""
    text: Annotated[str, StringConstraints(max_length=2000)] = ""


class SentTake(_Sent):
    """A take, or what is new of it. `started` in ms since 1970 by the device's clock."""

    key: Key
    started: Annotated[int, Field(ge=0, le=4_102_444_800_000)]
    plan: Annotated[list[SentPart], Field(min_length=1, max_length=MOST_PARTS)]
    events: Annotated[list[SentEvent], Field(max_length=MOST_EVENTS)]


def read_take(content: bytes) -> SentTake:
    """A take as JSON; raises FieldFault."""
    try:
        return SentTake.model_validate(read_sent(content))
    except ValidationError as fault:
        first = fault.errors(include_url=False)[0]
        where = ".".join(map(str, first["loc"])) or "take"
        raise FieldFault(where[:80], repr(first.get("input"))[:60], first["msg"]) from None
    except (ValueError, RecursionError):
        raise FieldFault("take", repr(content[:40]), "is not JSON") from None


def keep_sent(shop: Shop, programme_id: int, sent: SentTake) -> list[str]:
    """Keep what was sent; the keys of the events that are kept now. Raises FieldFault where the programme is gone."""
    started = datetime.fromtimestamp(sent.started / 1000).replace(microsecond=0)
    plan = [each.model_dump() for each in sent.plan]
    events = {
        each.key: Event(each.kind, each.at, min(each.part, len(plan) - 1), each.fact, without_controls(each.text).strip())
        for each in sent.events
    }
    with shop.database.work() as work:
        if stored_programme(work, programme_id) is None:
            raise FieldFault("programme", str(programme_id), "is in the bin: put it back, and the take is kept")
        take_id = store.keep_take(work, programme_id, sent.key, started, plan)
        if take_id is None:
            raise FieldFault("take", sent.key, "belongs to another programme")
        store.add_events(work, take_id, events)
    return list(events)


@dataclass(frozen=True)
class Slip:
    """A slip or a note of a take: at which part, when in the film, and what was typed of it."""

    kind: str
    title: str
    at_s: float
    text: str
    picks: tuple[int, ...]
    replaced: bool  # its part was filmed again after it


@dataclass(frozen=True)
class TakenPart:
    """A part of a take: how long it was estimated and took, how many facts were said, how often it was filmed again."""

    title: str
    planned_s: float
    real_s: float
    said: int
    again: int


@dataclass(frozen=True)
class Logged:
    """A take as it is read: how long, where its chapters are, what slipped, how long each part took beside the plan."""

    take: Take
    number: int
    length_s: float
    over: bool
    chapters: tuple[tuple[float, str], ...]
    starts: Mapping[int, float]  # pick → where the chapter begins that shows it
    slips: tuple[Slip, ...]
    parts: tuple[TakenPart, ...]

    @property
    def is_long(self) -> bool:
        """Whether there is anything to publish of it."""
        return len(self.chapters) > 1


def takes_of(shop: Shop, programme_id: int) -> list[Logged]:
    """The takes of a programme as they are read, in the order filmed."""
    with shop.database.work() as work:
        return [_logged(each, number) for number, each in enumerate(store.takes_of(work, programme_id), 1)]


def chosen_take(shop: Shop, programme_id: int) -> Logged | None:
    """The take that is published: the one chosen, else of those with chapters the last one ended, else the last."""
    found = takes_of(shop, programme_id)
    return max(found, key=lambda one: (one.take.chosen, one.is_long, one.over, one.number), default=None)


def _title(take: Take, part: int) -> str:
    return str(take.plan[part]["title"]) if 0 <= part < len(take.plan) else ""


def _picks(take: Take, part: int) -> tuple[int, ...]:
    return tuple(take.plan[part].get("picks", ())) if 0 <= part < len(take.plan) else ()


def _logged(take: Take, number: int) -> Logged:
    events = take.events
    spent = seconds_by_part(events)
    told = Counter((each.part, each.kind) for each in events)
    parts = tuple(
        TakenPart(str(each["title"]), float(each["seconds"]), spent.get(at, 0.0), told[at, SAID], told[at, AGAIN])
        for at, each in enumerate(take.plan)
    )
    found = chapters(events, take.offset_s)
    marks = tuple((each.start_s, " · ".join(_title(take, part) for part in each.parts)) for each in found)
    starts = {pick: each.start_s for each in found for part in each.parts for pick in _picks(take, part)}
    return Logged(take, number, length_s(events), is_over(events), marks, starts, tuple(_slips(take)), parts)


def _slips(take: Take) -> list[Slip]:
    out, again = taken_out(take.events), filmed_again(take.events)
    return [
        Slip(
            each.kind,
            _title(take, each.part),
            max(0.0, film_s(each.at_s, out) + take.offset_s),
            each.text,
            _picks(take, each.part),
            any(low <= each.at_s < high for low, high in again),
        )
        for each in take.events
        if each.kind in (SLIP, NOTE)
    ]


def shops_pace(shop: Shop, rule: RunRules) -> Pace:
    """The pace of the shop's last takes beside the estimate."""
    with shop.database.work() as work:
        return learned(filmed(store.last_takes(work, LEARNED_FROM)), rule)


def filmed(takes: Sequence[Take]) -> list[Filmed]:
    """The parts of takes with how long they were estimated and how long they took."""
    found = []
    for take in takes:
        spent = seconds_by_part(take.events)
        for at, each in enumerate(take.plan):
            if at in spent and each.get("kind") in (OPENING, PLACE, CLOSING):
                found.append(Filmed(str(each["kind"]), float(each["seconds"]), spent[at]))
    return found


ACTS = ("choose", "shift", "remove")


def change_take(shop: Shop, programme_id: int, take_id: int, act: str, offset: str = "") -> None:
    """Choose a take, say by how many s the edit shifts it, or take it away; raises FieldFault."""
    with shop.database.work() as work:
        if act == "choose":
            store.choose_take(work, programme_id, take_id)
        elif act == "remove":
            store.drop_take(work, programme_id, take_id)
        else:
            store.shift_take(work, programme_id, take_id, read_shift(offset))


def read_shift(text: str) -> float:
    """Seconds by which the edit shifts a film, below 0 where it cut something away; raises FieldFault."""
    plain = text.strip().replace("−", "-")
    value = to_number(plain.removeprefix("-") or "0", "shift")
    if value > MOST_SHIFT_S:
        raise FieldFault("shift", text[:40], f"must be up to {MOST_SHIFT_S:.0f} seconds either way")
    return -value if plain.startswith("-") else value
