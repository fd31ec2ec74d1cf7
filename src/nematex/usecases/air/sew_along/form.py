"""The form of a sew-along: what is typed, and what it says."""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import date, time, timedelta
from itertools import pairwise

from nematex.core.air.sew_along.parts import Dated, PartOf, back_from, from_start, usual_parts
from nematex.core.amount.sizes import sizes_of
from nematex.core.errors import FieldFault
from nematex.core.pattern.chosen import view_meant, view_shown
from nematex.core.rules.reckoning import SewAlongRules
from nematex.core.signs import on_one_line, without_controls
from nematex.store.air.sew_alongs import SewAlong
from nematex.store.records import ClothRecord, PatternRecord
from nematex.usecases.air.named import named
from nematex.usecases.forms.days import read_day
from nematex.usecases.held.state import State
from nematex.usecases.kit.kit import read_mix

FIELDS = {
    "name": "name",
    "pattern": "pattern",
    "cloths": "cloths",
    "view": "view",
    "intro": "what it is about",
    "start": "first part on",
    "event": "for a party on",
    "every": "days between parts",
    "sewing": "parts of sewing",
    "hour": "hour",
    "parts": "parts",
    "makers": "makers expected",
    "mix": "sizes",
}
OVER_LINES = ("what it is about", "parts")  # everything else is a line
LONGEST = 4000
MOST_CLOTHS, MOST_MAKERS, MOST_PARTS = 12, 5000, 20


Mix = tuple[tuple[str, float], ...]


@dataclass(frozen=True)
class Asked:
    """A sew-along as its form says it."""

    name: str
    pattern: PatternRecord
    cloths: tuple[ClothRecord, ...]
    view: str | None
    intro: str
    parts: tuple[Dated, ...]
    hour: time
    event: date | None
    makers: int
    mix: Mix
    lost: tuple[str, ...] = ()  # what was chosen and is gone

    @property
    def cutting(self) -> Dated | None:
        """The part for which cloth must be there."""
        return next((each for each in self.parts if each.part.cuts), None)


def read_form(state: State, given: Mapping[str, str]) -> Asked:
    """What is typed; raises FieldFault naming the field."""
    texts = {name: _text(FIELDS[name], given.get(name, "")) for name in FIELDS}
    if not texts["name"] or len(texts["name"]) > 120:
        raise FieldFault("name", texts["name"][:40], "is missing, or longer than 120 letters")
    pattern = named(texts["pattern"], "pattern", state.drawer.records)
    cloths = [named(each, "cloth", state.shelf.records) for each in texts["cloths"].split(";") if each.strip()]
    if not 0 < len(cloths) <= MOST_CLOTHS:
        raise FieldFault("cloths", texts["cloths"][:60], f"must be 1 to {MOST_CLOTHS}, one after a semicolon")
    view = texts["view"] or None
    if view is not None:
        known, asked = ", ".join(pattern.facts.views) or "none", view
        view = view_meant(asked, pattern.facts.views)
        if view is None:
            raise FieldFault("view", asked[:40], f"is none of this pattern; choose from {known}")
    return _asked(state, texts, pattern, cloths, view, read_mix(texts["mix"], sizes_of(pattern.facts, view)))


def read_kept(state: State, kept: SewAlong, texts: Mapping[str, str]) -> Asked:
    """One that was kept, as it can still be shown: what its pattern or the shelf has no more is left out, and said in `lost`.

    Raises FieldFault where nothing is left to show: its pattern, or every cloth of it, is put away.
    """
    pattern = state.pattern(kept.pattern_id)
    found = [cloth[0] for cloth_id in kept.cloth_ids if (cloth := state.cloth(cloth_id))]
    if pattern is None or not found:
        what, named_as = ("pattern", texts["pattern"]) if pattern is None else ("cloths", texts["cloths"])
        raise FieldFault(what, named_as[:60], "is put away: put it back from the bin, or choose another here")
    lost = []
    if gone := len(kept.cloth_ids) - len(found):
        lost.append(f"{gone} of its {len(kept.cloth_ids)} cloths {'is' if gone == 1 else 'are'} put away, and not shown")
    view = texts["view"] or None
    if view is not None and not view_shown(pattern.facts, view):
        lost.append(f"view {view[:40]} is not in this pattern any more; all of it is shown")
        view = None
    try:
        mix = read_mix(texts["mix"], sizes_of(pattern.facts, view))
    except FieldFault as fault:
        lost.append(f"{fault}; all sizes are reckoned alike")
        mix = read_mix("", sizes_of(pattern.facts, view))
    return replace(_asked(state, texts, pattern, found, view, mix), lost=tuple(lost))


def _asked(
    state: State, texts: Mapping[str, str], pattern: PatternRecord, cloths: Sequence[ClothRecord], view: str | None, mix: Mix
) -> Asked:
    event = read_day(texts["event"], FIELDS["event"])
    once = {each.id: each for each in cloths}
    return Asked(
        texts["name"], pattern, tuple(once.values()), view, texts["intro"],
        tuple(_parts(texts, event, state.tables.judging.sew_along)), read_hour(texts["hour"]), event,
        _number(texts["makers"], "makers expected", 0, MOST_MAKERS, 0), mix,
    )  # fmt: skip


def _text(label: str, text: str) -> str:
    kept = without_controls(text).strip() if label in OVER_LINES else on_one_line(text)
    if len(kept) > LONGEST:
        raise FieldFault(label, f"{kept[:40]}…", f"is {len(kept)} letters long; at most {LONGEST} are kept")
    return kept


def read_hour(text: str) -> time:
    """'19:00'; seven in the evening where nothing is said. Raises FieldFault."""
    if not text:
        return time(19)
    found = re.fullmatch(r"(\d{1,2})[:.](\d{2})", text)
    if not found or int(found[1]) > 23 or int(found[2]) > 59:
        raise FieldFault("hour", text[:20], "is no hour; write it like 19:00")
    return time(int(found[1]), int(found[2]))


def _number(text: str, field: str, low: int, high: int, otherwise: int) -> int:
    if not text:
        return otherwise
    if not (text.isdecimal() and text.isascii() and len(text) <= 6 and low <= int(text) <= high):
        raise FieldFault(field, text[:20], f"must be a whole number from {low} to {high}")
    return int(text)


def _parts(texts: Mapping[str, str], event: date | None, rule: SewAlongRules) -> list[Dated]:
    """The parts as typed, else the usual ones from the start on or back from the event."""
    if texts["parts"]:
        return read_parts(texts["parts"])
    every = _number(texts["every"], FIELDS["every"], 1, 60, rule.every_days)
    usual = usual_parts(_number(texts["sewing"], FIELDS["sewing"], 1, 4, 3))
    start = read_day(texts["start"], FIELDS["start"])
    if start:
        return from_start(usual, start, every)
    if event:
        return back_from(usual, event, every, rule.before_event_days)
    raise FieldFault(FIELDS["start"], "", "is missing: a first day, or the day of a party, is needed")


def read_parts(text: str) -> list[Dated]:
    """A line for each part, '2026-10-17 Wash and cut: lay the pieces; cut and mark', in the order of days.

    The first whose title says "cut" is the one for which cloth must be there. Raises FieldFault.
    """
    found: list[Dated] = []
    for number, line in enumerate((each.strip() for each in text.splitlines()), 1):
        if not line:
            continue
        day_text, _, rest = line.partition(" ")
        title, _, tasks = rest.partition(":")
        day = read_day(day_text, f"parts, line {number}")
        if day is None or not title.strip():
            raise FieldFault(
                f"parts, line {number}", line[:60], "must read like: 2026-10-17 Wash and cut: lay the pieces; cut and mark"
            )
        cuts = bool(re.search(r"\bcut", title, re.IGNORECASE)) and not any(each.part.cuts for each in found)
        found.append(Dated(PartOf(title.strip(), tuple(each.strip() for each in tasks.split(";") if each.strip()), cuts), day))
    if not 0 < len(found) <= MOST_PARTS:
        raise FieldFault("parts", f"{len(found)}", f"must be 1 to {MOST_PARTS}")
    for one, other in pairwise(found):
        if other.day < one.day:
            raise FieldFault("parts", other.day.isoformat(), f"stands after {one.day.isoformat()}: put the days in order")
    return found


def write_parts(parts: Sequence[Dated]) -> str:
    """Parts as they are typed."""
    return "\n".join(
        f"{each.day.isoformat()} {each.part.title}{': ' if each.part.tasks else ''}{'; '.join(each.part.tasks)}"
        for each in parts
    )


def ahead(today: date, event: date | None, rule: SewAlongRules) -> str:
    """What to say of the time that is left to a party."""
    if event is None or event < today:
        return ""
    left = (event - today) / timedelta(days=1)
    if left <= rule.emergency_days:
        return f"{left:.0f} days to the party: an emergency. Choose a simple make, and cloth that is at home already."
    return f"{left:.0f} days to the party: short. Order today." if left <= rule.short_days else ""
