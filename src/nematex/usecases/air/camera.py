"""What a camera view shows: each part with its facts in speaking order, its answers, and how long it should take."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from nematex.core.air.run_sheet import Said, Timed
from nematex.store.records import Programme
from nematex.usecases.air.look_up import Answer, answers
from nematex.usecases.air.run_sheet import Run, run_of
from nematex.usecases.air.speaking import read_words, said_like, words_text
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State
from nematex.usecases.programme.notes import Entry

ALWAYS = ("name", "your line")  # these stand by themselves, beside what is said in order


@dataclass(frozen=True)
class Shot:
    """A part as it is shown: facts in speaking order, cautions last; the own line, how words are said, what may be asked."""

    timed: Timed
    base_s: float  # as estimated, before the shop's pace: what takes are held against
    facts: tuple[Said, ...]
    line: str
    cautions: tuple[str, ...]
    said_like: tuple[str, ...]
    entries: tuple[Entry, ...]
    answers: tuple[Answer, ...]


def shots(shop: Shop, state: State, programme: Programme) -> tuple[Run, list[Shot]]:
    """A programme as its camera view shows it."""
    run = run_of(shop, state, programme)
    words = read_words(words_text(shop))
    by_pick = {entry.pick.id: entry for entry in run.entries}
    found = []
    for timed in run.sheet.timed:
        part = timed.part
        shown = tuple(by_pick[pick_id] for pick_id in part.picks)
        asked = tuple(answer for entry in shown for answer in answers(shop, state, entry))
        text = " ".join((part.title, *(each.text for each in part.said)))
        found.append(
            Shot(
                timed,
                timed.seconds / run.pace.of(part.kind),
                tuple(each for each in part.said if each.name not in ALWAYS),
                " ".join(_texts(part.said, "your line")),
                _texts(part.said, "caution"),
                said_like(words, text),
                shown,
                asked,
            )
        )
    return run, found


def _texts(said: Sequence[Said], name: str) -> tuple[str, ...]:
    return tuple(dict.fromkeys(each.text for each in said if each.name == name))
