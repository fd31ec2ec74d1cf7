"""What binds to what on an envelope: brackets, negations at the end, numbers of one structure, views; and odd texts.

Common practice, no source: how such sentences are meant by those who write them.
"""

from __future__ import annotations

import random

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from nematex.core.judging.demand import read_pattern
from nematex.core.pattern.envelope import Interpretation, read_envelope
from nematex.core.pattern.facts import Pattern
from nematex.tables import trade_tables
from nematex.usecases.assess.pairing import assess_one

TABLES = trade_tables()
JERSEY = {"cloth": "cotton jersey", "weight_gsm": 180}


def read(text: str) -> Interpretation:
    return read_envelope(text, TABLES)


def verdict(cloth: dict[str, object], recommended: str) -> str:
    return str(assess_one({"cloth": cloth, "pattern": {"recommended": recommended}})["verdict"])


@pytest.mark.parametrize(
    ("text", "low", "high"),
    [
        ("Linen (no lighter than 150 gsm)", 150, None),
        ("Linen (not lighter than 150 gsm)", 150, None),
        ("Denim (not heavier than 10 oz)", None, 339.0575),  # 1 oz/yd² = 33.906 g/m²
        ("Denim (no more than 339 gsm)", None, 339),
    ],
)
def test_a_number_in_brackets_binds_to_the_noun_before_them(text: str, low: float | None, high: float | None) -> None:
    reading = read(text)
    gsm = reading.cloths[0].gsm
    assert gsm is not None
    assert (gsm.low, gsm.high) == (pytest.approx(low or 0), pytest.approx(high or float("inf")))
    assert reading.avoid_cloths == []
    assert reading.gsm is None


def test_a_limit_in_brackets_is_kept_by_the_verdict() -> None:
    pattern = {"structure": "woven", "recommended": "Linen (no lighter than 150 gsm)"}
    heavy, light = ({"cloth": "linen medium", "weight_gsm": gsm} for gsm in (190, 100))
    assert assess_one({"cloth": heavy, "pattern": pattern})["verdict"] == "suits"
    assert assess_one({"cloth": light, "pattern": pattern})["checks"]["weight"]["verdict"] == "against"


@pytest.mark.parametrize(
    "text", ["Poplin (avoid lightweight)", "Crepe (not if lined)", "Avoid velvet, lawn instead (lightweight)"]
)
def test_what_is_ruled_out_in_brackets_ends_with_them(text: str) -> None:
    after = read(f"{text}; twill.")
    assert "cotton twill" in {name for item in after.cloths for name in item.types}


def test_a_predicate_at_the_end_turns_what_its_sentence_named() -> None:
    reading = read("Only use wovens; knits are not suitable.")
    assert (reading.structures, reading.avoid_structures) == ({"woven"}, {"knit"})
    assert verdict(JERSEY, "Only use wovens; knits are not suitable.") == "against"
    assert verdict({"cloth": "cotton poplin"}, "Only use wovens; knits are not suitable.") == "suits"
    assert {item.words for item in read("Lawn, voile. Velvet is not recommended.").avoid_cloths} == {"velvet"}


def test_numbers_belong_to_the_structure_they_stand_with() -> None:
    text = "Wovens up to 150 g/m2, or knits from 200 g/m2."
    assert verdict({**JERSEY, "weight_gsm": 220}, text) == "suits"
    assert verdict({"cloth": "cotton lawn", "weight_gsm": 80}, text) == "suits"
    assert verdict({**JERSEY, "weight_gsm": 130}, text) == "against"
    assert verdict({"cloth": "denim", "weight_gsm": 330}, text) == "against"


def test_two_numbers_that_no_cloth_keeps_do_not_make_a_window() -> None:
    reading = read("At least 250 gsm. Up to 150 gsm.")
    assert reading.gsm is not None
    assert reading.gsm.low <= reading.gsm.high
    assert reading.unread


def test_a_hole_is_unread() -> None:
    reading = read("Avoid 150-200 gsm")
    assert reading.gsm is None
    assert "150-200 gsm" in " ".join(reading.unread)


def test_views_in_the_plural() -> None:
    text = "Viscose or crepe for views A and B; denim for view C."
    conditions = {item.noun: item.condition for item in read(text).cloths}
    assert conditions["viscose"] == conditions["crepe"]
    assert (conditions["crepe"].what, conditions["denim"].what) == ("a|b", "c")  # type: ignore[union-attr]
    assert read(text).unread == []
    text = "Viscose challis or lawn for views A and B; wool crepe for view C."
    row = {"sizes": ["10"], "width_cm": 140, "length_m": 2.0}
    pattern = {"structure": "woven", "recommended": text, "requirements": [{**row, "view": view} for view in ("A midi", "C")]}
    for view, wanted in (("A midi", "suits"), ("C", "with care")):
        found = assess_one({"cloth": {"cloth": "viscose challis"}, "pattern": pattern, "view": view})
        assert found["checks"]["fibre"]["verdict"] == wanted, view


def test_line_if_sheer_names_no_cloth() -> None:
    plain, advised = read("Wool crepe or viscose twill."), read("Wool crepe or viscose twill. Line if sheer.")
    assert plain.cloths == advised.cloths


def test_plurals_with_es() -> None:
    assert read("power meshes").unread == []
    assert {item.noun for item in read("canvases, brushed cottons").cloths} >= {"canvases"}


def test_fractions_are_numbers_here_too() -> None:
    # 5 1/2 of 4 is 37.5 % more.
    assert read('4" must stretch to 5 1/2"').min_cross_pct == pytest.approx(37.5)


VOCABULARY = [
    *(item for phrases in TABLES.envelope_phrases for item in phrases.phrases[:4]),
    *(kind.name for kind in TABLES.lexicon.types[:40]),
    *TABLES.weight_keys,
    *(detail.name for detail in TABLES.details.rows),
    *(part.name for part in TABLES.parts.rows),
    *["(", ")", ",", ";", ".", ":", "/", "-", "and", "or", "for", "view", "views", "A", "B", "150 gsm", "8 oz", "25%"],
    *["up to", "at least", "no lighter than", "not", "if", "lined", "sleeves", "knits", "wovens", "\n", "½", "12", "§3"],
]


@settings(max_examples=400, deadline=None)
@given(st.lists(st.sampled_from(VOCABULARY), max_size=14))
def test_no_text_of_the_trades_own_words_raises(words: list[str]) -> None:
    """And no window comes out of it that begins after it ends."""
    pattern = Pattern(recommended=" ".join(words), avoid=" ".join(reversed(words)))
    reading = read_pattern(pattern, TABLES)
    spans = [reading.gsm, *reading.gsm_of.values(), *(item.gsm for item in reading.cloths + reading.avoid_cloths)]
    assert all(span.low <= span.high for span in spans if span)


@settings(max_examples=200, deadline=None)
@given(st.text(max_size=300))
def test_no_text_whatever_raises(text: str) -> None:
    read(text)


@pytest.mark.parametrize(
    "odd",
    [" ", "(", ")", "9", "a", "not ", "at least ", "up to 9", "\n", "§1", "½", "é", "\u00a0", "light ", "for view ", "1-"],
)
def test_a_hundred_thousand_letters_are_read_up_to_a_point_and_the_rest_is_said(odd: str) -> None:
    reading = read((odd * 100_000)[:100_000])
    assert "letters more" in " ".join(reading.unread)


def test_words_in_any_order_never_raise() -> None:
    """Shuffled sentences of the product's own words; the seed is fixed."""
    rng = random.Random(7)
    for _ in range(600):
        text = " ".join(rng.choices(VOCABULARY, k=rng.randint(1, 40)))
        assert read(text) == read(text), "the same words are read the same"
