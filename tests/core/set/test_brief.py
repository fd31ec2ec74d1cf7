"""The brief as people type it."""

from __future__ import annotations

from contextlib import suppress

import pytest
from hypothesis import given
from hypothesis import strategies as st

from nematex.core.errors import FieldFault
from nematex.core.pattern.facts import Pattern
from nematex.core.pattern.look import layer_of
from nematex.core.set.brief import FIELDS, Brief, read_brief, with_usual
from nematex.tables import trade_tables

TABLES = trade_tables()
KINDS = TABLES.judging.proposal.kinds


@pytest.mark.parametrize(
    ("text", "low", "high"),
    [
        ("84 to 130 cm", 84, 130),
        ("84-130", 84, 130),
        ("84–130 cm", 84, 130),
        ("33 to 51 in", 83.82, 129.54),
        ('33-51"', 83.82, 129.54),
        ("up to 52 in", 40, 132.08),
        ("from 120 cm", 120, 200),
    ],
)
def test_a_range_of_bodies(text: str, low: float, high: float) -> None:
    assert read_brief({"hip": text}, KINDS).hip == pytest.approx((low, high))


@pytest.mark.parametrize(
    ("field", "text", "says"),
    [
        ("slots", "many", "whole number from 0 to 40"),
        ("slots", "²", "whole number"),
        ("slots", "41", "from 0 to 40"),
        ("budget", "cheap", "not a number"),
        ("budget", "0", "above 0"),
        ("hip", "130 to 84 cm", "must be a range"),
        ("hip", "wide", "not a length"),
        ("bust", "84 to 400 cm", "must be a range"),
        ("season", "monsoon", "spring, summer, autumn, winter"),
        ("kind", "opera", "capsule"),
        ("structures", "felt", "knit, woven"),
        ("theme", "x" * 301, "at most 300"),
    ],
)
def test_a_fault_names_field_rule_and_choices(field: str, text: str, says: str) -> None:
    with pytest.raises(FieldFault, match=says) as raised:
        read_brief({field: text}, KINDS)
    assert raised.value.field == FIELDS[field]


def test_an_empty_brief_asks_for_nothing_and_a_kind_brings_what_it_usually_asks() -> None:
    assert read_brief({}, KINDS) == Brief()
    capsule = with_usual(read_brief({"kind": "capsule"}, KINDS), KINDS, 8)
    assert (capsule.slots, capsule.layers) == (6, True)
    arrivals = with_usual(read_brief({"kind": "new arrivals", "slots": "4"}, KINDS), KINDS, 8)
    assert arrivals.arrivals == 3  # three quarters of four
    assert with_usual(Brief(), KINDS, 8).slots == 8


@given(st.dictionaries(st.sampled_from(list(FIELDS)), st.text(max_size=400)))
def test_any_text_is_read_or_refused_in_words(given_texts: dict[str, str]) -> None:
    with suppress(FieldFault):
        assert read_brief(given_texts, KINDS).slots <= 40


@pytest.mark.parametrize(
    ("garment", "layer"),
    [
        ("skirt", "bottom"),
        ("overshirt", "over"),
        ("blouse", "top"),
        ("coat", "over"),
        ("slip", "whole"),
        ("nightshirt", "sleep"),
        ("bag", "beside"),
        ("never heard of", "top"),
    ],
)
def test_layers(garment: str, layer: str) -> None:
    """Common practice, no source."""
    assert layer_of(Pattern(garment=garment), TABLES) == layer
