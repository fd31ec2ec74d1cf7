"""How long a film takes: the words that are said at each place, at a speaker's pace, and the time to show what is shown.

Pace: about 160 words a minute in British radio monologues (Tauroza and Allison, Speech rates in British English, Applied
Linguistics 11, 1990; from memory). The other seconds stand in data/judging.toml (common practice, no source). Times in s.
"""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass, replace

from nematex.core.air.pace import PLACE, Pace
from nematex.core.rules.reckoning import RunRules

_BESIDE = re.compile(r"\([^()]*\)")  # the other unit, in brackets: shown, not said


@dataclass(frozen=True)
class Said:
    """Something that is said: what it is, its words, and whether it can go where time is short."""

    name: str
    text: str
    can_go: bool = False

    @property
    def words(self) -> int:
        return len(_BESIDE.sub(" ", self.text).split())


@dataclass(frozen=True)
class Part:
    """A part of a film: opening, a place, closing; what is said in it, how many cloths are shown, of which picks."""

    title: str
    said: tuple[Said, ...]
    cloths: int = 0
    least_s: float = 0.0
    worth: float = 1.0  # of a place beside the others: what is left out first is worth least
    kind: str = PLACE
    picks: tuple[int, ...] = ()


@dataclass(frozen=True)
class Timed:
    """A part with when it begins and how long it takes."""

    part: Part
    start_s: float
    seconds: float


@dataclass(frozen=True)
class Shorter:
    """What would make it shorter: something that is said at every place, or a whole place; and by how much."""

    what: str
    seconds: float
    place: bool = False


@dataclass(frozen=True)
class RunSheet:
    """The parts in order, how long all of it takes, by how much it is over its target (0: it fits), what to shorten."""

    timed: tuple[Timed, ...]
    total_s: float
    over_s: float
    shorter: tuple[Shorter, ...]


def seconds_of(part: Part, rule: RunRules) -> float:
    """The time to say it and to show its cloths."""
    return max(_speaking_s(sum(each.words for each in part.said), rule) + part.cloths * rule.showing_s, part.least_s)


def _speaking_s(words: int, rule: RunRules) -> float:
    return 60.0 * words / rule.words_per_min


def run_sheet(parts: Sequence[Part], target_s: float | None, rule: RunRules, pace: Pace = Pace()) -> RunSheet:  # noqa: B008
    """The parts one after the other, at the shop's own pace; what to shorten is proposed until it would fit."""
    timed, at = [], 0.0
    for part in parts:
        seconds = seconds_of(part, rule) * pace.of(part.kind)
        timed.append(Timed(part, at, seconds))
        at += seconds
    over = max(0.0, at - target_s) if target_s else 0.0
    return RunSheet(tuple(timed), at, over, tuple(_shorter(parts, over, rule, pace.of(PLACE))))


def _shorter(parts: Sequence[Part], over_s: float, rule: RunRules, times: float) -> list[Shorter]:
    """What can go everywhere, the longest first; then whole places, those worth least first, until what is over is saved."""
    spoken: dict[str, float] = {}
    for part in parts:
        for each in part.said:
            if each.can_go:
                spoken[each.name] = spoken.get(each.name, 0.0) + _speaking_s(each.words, rule) * times
    found: list[Shorter] = []
    for name in sorted(spoken, key=lambda one: -spoken[one]):
        if over_s <= sum(one.seconds for one in found):
            return found
        found.append(Shorter(name, spoken[name]))
    places = sorted((part for part in parts if part.cloths), key=lambda part: part.worth)
    for part in places[:-1]:
        if over_s <= sum(one.seconds for one in found):
            break
        bare = replace(part, said=tuple(each for each in part.said if not each.can_go))  # what can go is counted already
        found.append(Shorter(part.title, seconds_of(bare, rule) * times, place=True))
    return found


def clock(seconds: float) -> str:
    """'4:05', or '1:02:09' from an hour on."""
    whole = round(seconds)
    minutes, rest = divmod(whole, 60)
    hours, minutes = divmod(minutes, 60)
    return f"{hours}:{minutes:02}:{rest:02}" if hours else f"{minutes}:{rest:02}"
