"""83 questions of what is like what and a hand's answers, older than the measure. Common practice, no source."""

from __future__ import annotations

import csv
from pathlib import Path

import pytest

from nematex.core.cloth.estimates import known_cloth
from nematex.core.cloth.facts import ClothFacts
from nematex.core.cloth.likeness import kinds_like
from nematex.tables import trade_tables
from nematex.usecases.beneath.view import candidate_linings
from nematex.usecases.held.shop import Shop
from nematex.usecases.programme.stocked.stand_ins import stand_ins

QUESTIONS = list(csv.DictReader((Path(__file__).parent / "alike.csv").read_text().splitlines()))
# Where measure and hand part: what is said is no wince, or nothing is said where hands would reach further.
PARTED = {
    ("stand in", "Foam chiffon"): "georgette is half as heavy again: nothing is offered",
    ("stand in", "Breakwater coating"): "a tweed is three quarters of its weight: nothing is offered",
    ("stand in", "Ploughland corduroy"): "velvet before needlecord, by a hair",
    ("handles like", "organza"): "a net is another make: nothing is named",
    ("handles like", "boiled wool"): "a coating does not stretch: nothing is named",
    ("handles like", "softshell"): "waxed cotton is half as thick and does not stretch: nothing is named",
    ("handles like", "tweed"): "gabardine before boucle",
    ("handles like", "georgette"): "crepe de chine before double georgette",
}


def asked(sort: str) -> list[tuple[str, frozenset[str], frozenset[str]]]:
    def names(text: str) -> frozenset[str]:
        return frozenset(filter(None, text.split("|")))

    return [(each["of"], names(each["first"]), names(each["never"])) for each in QUESTIONS if each["asked"] == sort]


def agree(sort: str, of: str, said: list[str], first: frozenset[str], never: frozenset[str]) -> None:
    """What hands would never say is never said; what comes first is one of theirs, but for the cases above."""
    assert not never & set(said[:3]), said
    if (sort, of) in PARTED:
        assert not said or said[0] not in first, "hand and measure agree by now: take it out of PARTED"
    elif first:
        assert said, "nothing is said"
        assert said[0] in first, said


@pytest.mark.parametrize(("of", "first", "never"), asked("stand in"))
def test_what_stands_in(demo: Shop, of: str, first: frozenset[str], never: frozenset[str]) -> None:
    state = demo.now()
    record = next(each for each in state.shelf.records if each.facts.name == of)
    found, _ = stand_ins(demo, state, record)
    agree("stand in", of, [each.record.facts.name or "" for each in found], first, never)


@pytest.mark.parametrize(("of", "first", "never"), asked("lining"))
def test_what_lines(demo: Shop, of: str, first: frozenset[str], never: frozenset[str]) -> None:
    state = demo.now()
    at = next(at for at, each in enumerate(state.shelf.records) if each.facts.name == of)
    found = candidate_linings(state.shelf, state.drawer, state.shelf.records[at], state.shelf.cloths[at], True)
    agree("lining", of, [each.record.facts.name or "" for each in found], first, never)


@pytest.mark.parametrize(("of", "first", "never"), asked("handles like"))
def test_what_handles_like(of: str, first: frozenset[str], never: frozenset[str]) -> None:
    tables = trade_tables()
    agree("handles like", of, kinds_like(known_cloth(ClothFacts(cloth=of), tables), tables, 3), first, never)


def test_the_questions_are_enough() -> None:
    assert len(QUESTIONS) >= 40
    assert len({(each["asked"], each["of"]) for each in QUESTIONS}) == len(QUESTIONS)
