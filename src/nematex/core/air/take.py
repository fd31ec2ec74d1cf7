"""A take as it was filmed: what was opened, said and slipped at which second; and the chapters that come of it.

The film's clock stands while a take pauses, and what is filmed once more replaces what was filmed before it. Times in s since
the take began, by the clock of the device that filmed it.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

OPEN, SAID, SLIP, NOTE, PAUSE, GO, AGAIN, END = "open", "said", "slip", "note", "pause", "go", "again", "end"
KINDS = (OPEN, SAID, SLIP, NOTE, PAUSE, GO, AGAIN, END)
LEAST_CHAPTER_S = 10.0  # what film services take for a chapter: common practice, no source


@dataclass(frozen=True)
class Event:
    """Something that happened during a take, at which part (0: the opening); `fact` by its name, `text` as typed."""

    kind: str
    at_s: float
    part: int
    fact: str = ""
    text: str = ""


@dataclass(frozen=True)
class Chapter:
    """A part of the film: where it begins, which parts of the take it holds (two where one was too short for itself)."""

    start_s: float
    parts: tuple[int, ...]


@dataclass(frozen=True)
class Stretch:
    """A stretch of the film's time spent at a part."""

    part: int
    start_s: float
    seconds: float


def in_order(events: Sequence[Event]) -> list[Event]:
    """By time; what came in late stands where it happened."""
    return sorted(events, key=lambda each: each.at_s)


def filmed_again(events: Sequence[Event]) -> list[tuple[float, float]]:
    """What was filmed of a part before it was filmed once more, from–to in s."""
    found: list[tuple[float, float]] = []
    began = 0.0
    for each in in_order(events):
        if each.kind == AGAIN:
            found.append((began, each.at_s))
        if each.kind in (OPEN, AGAIN):
            began = each.at_s
    return found


def pauses(events: Sequence[Event]) -> list[tuple[float, float]]:
    """When the film stood, from–to in s: what goes on, opens another part or ends, ends a pause too."""
    found: list[tuple[float, float]] = []
    since: float | None = None
    for each in in_order(events):
        if each.kind == PAUSE:
            since = each.at_s if since is None else since
        elif since is not None and each.kind in (GO, END, OPEN, AGAIN):
            found.append((since, each.at_s))
            since = None
    return found


def taken_out(events: Sequence[Event]) -> list[tuple[float, float]]:
    """What the film does not show, from–to in s: pauses, and of a part that was filmed again what came before."""
    return _joined([*pauses(events), *filmed_again(events)])


def _joined(spans: list[tuple[float, float]]) -> list[tuple[float, float]]:
    """Spans that overlap made one."""
    found: list[tuple[float, float]] = []
    for low, high in sorted(spans):
        if found and low <= found[-1][1]:
            found[-1] = (found[-1][0], max(high, found[-1][1]))
        else:
            found.append((low, high))
    return found


def film_s(at_s: float, out: Sequence[tuple[float, float]]) -> float:
    """The film's time at a time of the take."""
    return at_s - sum(max(0.0, min(high, at_s) - low) for low, high in out if low < at_s)


def stretches(events: Sequence[Event]) -> list[Stretch]:
    """How long the film stays at each part, in the order filmed; the last one up to the last event."""
    ordered = in_order(events)
    out = taken_out(ordered)
    opened = [each for each in ordered if each.kind == OPEN]
    ends = [each.at_s for each in opened[1:]] + ([ordered[-1].at_s] if ordered else [])
    found = []
    for each, end in zip(opened, ends, strict=False):
        start = film_s(each.at_s, out)
        found.append(Stretch(each.part, start, film_s(end, out) - start))
    return found


def seconds_by_part(events: Sequence[Event]) -> dict[int, float]:
    """How long the film shows each part, all its stretches together."""
    found: dict[int, float] = {}
    for each in stretches(events):
        found[each.part] = found.get(each.part, 0.0) + each.seconds
    return found


def chapters(events: Sequence[Event], offset_s: float = 0.0) -> list[Chapter]:
    """Where each part begins in the film, shifted by what the edit put before it (or, below 0, cut away).

    The first begins at 0; each lasts at least 10 s: a shorter one goes into the one before it.
    """
    found: list[Chapter] = []
    seen: set[int] = set()
    for each in stretches(events):
        if each.part in seen or (each.seconds <= 0 and found):
            continue
        seen.add(each.part)
        start = max(0.0, each.start_s + offset_s) if found else 0.0
        if found and start < found[-1].start_s + LEAST_CHAPTER_S:
            found[-1] = Chapter(found[-1].start_s, (*found[-1].parts, each.part))
        else:
            found.append(Chapter(start, (each.part,)))
    if len(found) > 1 and length_s(events) + offset_s - found[-1].start_s < LEAST_CHAPTER_S:
        last = found.pop()
        found[-1] = Chapter(found[-1].start_s, (*found[-1].parts, *last.parts))
    return found


def length_s(events: Sequence[Event]) -> float:
    """How long the film is."""
    return film_s(max((each.at_s for each in events), default=0.0), taken_out(events))


def is_over(events: Sequence[Event]) -> bool:
    """Whether the take was ended."""
    return any(each.kind == END for each in events)
