"""Copying a look: what is described counts, what is not said does not, a change lets it count less. Common practice."""

from __future__ import annotations

from datetime import date

import pytest

from nematex.core.pattern.facts import Pattern
from nematex.core.pattern.hacks import read_hack
from nematex.core.pattern.look import look_of
from nematex.core.set.copy_look import Step, distance, steps_to, told
from nematex.core.set.season import fits, is_past
from nematex.tables import trade_tables

TABLES = trade_tables()
RULE = TABLES.judging.copy_look
SHOWN = TABLES.judging.season_shown


def steps(described: str, pattern: Pattern) -> list[Step] | None:
    garment, *details = (part.strip() for part in described.split(","))
    want = look_of(Pattern(name=garment, details=tuple(details)), TABLES)
    return steps_to(want, look_of(pattern, TABLES), told(described, TABLES), RULE)


def dress(*details: str) -> Pattern:
    return Pattern(name="plain", garment="dress", details=details)


def test_a_garment_that_is_the_pattern_is_no_step_away() -> None:
    assert steps("midi dress, long sleeve, tiers", dress("midi", "long sleeve", "tiers")) == []


def test_another_kind_of_garment_is_never_near() -> None:
    assert steps("coat, lapels", dress("lapels")) is None


@pytest.mark.parametrize(
    ("described", "has", "respect", "hack"),
    [
        ("maxi dress", ("knee",), "length", "lengthen(by_cm=38)"),  # 96 cm against 58
        ("mini dress", ("midi",), "length", "shorten(by_cm=36)"),  # 42 cm against 78
        ("dress, sleeveless", ("long sleeve",), "sleeve", "no sleeve"),
        ("dress, long sleeve", ("short sleeve",), "sleeve", "longer sleeve(by_cm=37)"),  # 58 cm against 21
        ("dress, short sleeve", ("long sleeve",), "sleeve", "short sleeve(by_cm=37)"),
        ("dress, balloon sleeve", ("long sleeve",), "sleeve", "fuller sleeve(by_pct=40)"),
        ("dress, tiers", ("A-line",), "skirt", "tier"),
        ("dress, frill", (), "flounce", "flounce"),
        ("dress, patch pockets", (), "pockets", "pocket"),
        ("dress, front zip", (), "closure", "zip"),
    ],
)
def test_a_change_closes_a_difference(described: str, has: tuple[str, ...], respect: str, hack: str) -> None:
    found = {each.respect: each for each in steps(described, dress(*has)) or []}
    assert found[respect].hack == hack
    assert read_hack(hack, TABLES).kind.name == hack.split("(", maxsplit=1)[0]


def test_what_no_change_makes_counts_whole() -> None:
    (collar,) = steps("dress, shirt collar", dress()) or []
    assert (collar.respect, collar.hack) == ("collar", "")
    assert distance([collar], RULE) == pytest.approx(RULE.collar)
    (pocket,) = steps("dress, patch pockets", dress()) or []
    assert distance([pocket], RULE) == pytest.approx(RULE.pockets * RULE.closed_share)


@pytest.mark.parametrize(
    ("season", "day", "in_season", "past"),
    [
        ("winter", date(2026, 8, 5), True, False),  # winter prints are shown from August
        ("winter", date(2026, 7, 5), False, False),
        ("summer", date(2026, 9, 5), False, True),  # a summer cloth in September must layer
        ("summer", date(2026, 11, 5), False, False),
        ("spring", date(2026, 12, 15), True, False),
    ],
)
def test_seasons_are_sewn_ahead(season: str, day: date, in_season: bool, past: bool) -> None:
    """Common practice, no source."""
    assert fits([season], day, SHOWN) is in_season
    assert is_past([season], day, SHOWN) is past
    assert fits([], day, SHOWN)
