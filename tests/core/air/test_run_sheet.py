"""Run sheets by hand; the pace is a published one, the range of whole places is what five timed programmes took."""

from __future__ import annotations

from dataclasses import replace

import pytest

from nematex.core.air.run_sheet import Part, Said, clock, run_sheet, seconds_of
from nematex.tables import trade_tables

RULE = replace(trade_tables().judging.run, words_per_min=160.0, showing_s=45.0, opening_s=30.0, closing_s=20.0)


def words(count: int, name: str = "why", can_go: bool = False) -> Said:
    return Said(name, " ".join(["word"] * count), can_go)


def test_the_pace_is_that_of_a_british_radio_monologue() -> None:
    """Tauroza and Allison 1990 give 150 to 170 words a minute as average for radio monologues (from memory)."""
    assert 150 <= trade_tables().judging.run.words_per_min <= 170


@pytest.mark.parametrize(
    ("part", "seconds"),
    [
        (Part("a", (words(160),)), 60.0),
        (Part("a", (words(80), words(80))), 60.0),
        (Part("a", (words(80),), cloths=2), 30.0 + 90.0),
        (Part("Opening", (words(8),), least_s=30.0), 30.0),
    ],
)
def test_a_part_takes_its_words_and_what_it_shows(part: Part, seconds: float) -> None:
    assert seconds_of(part, RULE) == pytest.approx(seconds)


def test_parts_follow_one_another_and_what_is_over_is_shortened_by_hand() -> None:
    """Places of 45 + 30 + 15 s (that 15 of sizes) and 45 + 60 + 15 s: 210 s against 200, so the sizes go, 30 s everywhere.

    Against 100 s the sizes save 30, then the lesser place its bare 75: enough.
    """
    parts = [
        Part("1", (words(80), words(40, "sizes", True)), 1, worth=50),
        Part("2", (words(160), words(40, "sizes", True)), 1, worth=90),
    ]
    found = run_sheet(parts, 200.0, RULE)
    assert [(one.start_s, one.seconds) for one in found.timed] == [(0.0, 90.0), (90.0, 120.0)]
    assert (found.total_s, found.over_s) == (210.0, 10.0)
    assert [(one.what, one.seconds, one.place) for one in found.shorter] == [("sizes", 30.0, False)]
    short = run_sheet(parts, 110.0, RULE)
    assert [(one.what, one.seconds, one.place) for one in short.shorter] == [("sizes", 30.0, False), ("1", 75.0, True)]
    assert run_sheet(parts, None, RULE).shorter == ()
    assert run_sheet(parts, 210.0, RULE).shorter == ()


@pytest.mark.parametrize(("seconds", "said"), [(0, "0:00"), (65.4, "1:05"), (59.6, "1:00"), (3725, "1:02:05")])
def test_a_clock(seconds: float, said: str) -> None:
    assert clock(seconds) == said
