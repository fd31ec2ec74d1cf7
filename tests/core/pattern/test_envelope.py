"""Reading envelopes written in many styles. Texts are invented; what they mean is common practice, no source."""

from __future__ import annotations

from typing import Any

import pytest
from envelope_texts import TEXTS

from nematex.core.cloth.lexicon import key
from nematex.core.pattern.envelope import Interpretation, read_envelope
from nematex.core.pattern.paste import read_paste
from nematex.tables import trade_tables
from nematex.usecases.assess.pairing import assess_one

TABLES = trade_tables()


def read(text: str, avoid: bool = False) -> Interpretation:
    return read_envelope(text, TABLES, avoid)


def types(reading: Interpretation) -> set[str]:
    return {name for item in reading.cloths for name in item.types}


def test_weight_word_structure_and_names() -> None:
    reading = read("light to medium weight wovens such as linen, cotton lawn, double gauze or viscose")
    assert reading.structures == {"woven"}
    assert reading.weights == ["light to medium"]
    assert {"linen", "cotton lawn", "double gauze", "viscose challis"} <= types(reading)
    assert reading.unread == []


@pytest.mark.parametrize(
    ("text", "cross", "length"),
    [
        ("knits with at least 25% stretch across", 25, None),
        ("jersey with 50% stretch across and 20% lengthwise", 50, 20),
        ("stretch knits, minimum of 40 % stretch", 40, None),
        ("30-50% crosswise stretch", 30, None),
        ("swim jersey with 60% four-way stretch", 60, 60),
        ("10 cm of cloth should stretch to 13 cm", 30, None),
        ('4" stretches to 6"', 50, None),
        ("stretch of at least 20%", 20, None),
        ("50% stretch horizontally and 30% vertically", 50, 30),
    ],
)
def test_least_stretch(text: str, cross: float, length: float | None) -> None:
    reading = read(text)
    assert (reading.min_cross_pct, reading.min_length_pct) == (cross, length)


def test_a_fibre_share_is_no_stretch() -> None:
    reading = read("medium weight jersey with 5% elastane")
    assert reading.min_cross_pct is None
    assert reading.recovers


def test_a_condition_belongs_to_the_cloths_just_named() -> None:
    reading = read("cotton lawn, linen, viscose or crepe without the tucks")
    held = {item.words: item.condition.what for item in reading.cloths if item.condition}
    assert held == {"viscose": "pin tucks", "crepe": "pin tucks"}


@pytest.mark.parametrize("text", ["satin (if lined)", "satin when lined"])
def test_lined_is_a_condition(text: str) -> None:
    assert [item.condition.kind for item in read(text).cloths if item.condition] == ["lined"]


def test_a_weight_word_belongs_to_its_noun() -> None:
    reading = read("linens and lightweight denims")
    assert reading.weights == []
    assert {item.words: item.types for item in reading.cloths}["light denims"] == ("light denim",)
    assert "linen" in types(reading)


def test_a_heading_gives_its_weight_to_the_whole_list() -> None:
    assert read("Light to medium weight cottons: lawn, poplin, brushed cotton").weights == ["light to medium"]


def test_not_suitable_reaches_to_the_word_that_turns_it() -> None:
    reading = read("Not suitable for knits, use wovens such as poplin.")
    assert reading.avoid_structures == {"knit"}
    assert types(reading) == {"cotton poplin"}


def test_not_suitable_reaches_to_the_end_of_its_sentence() -> None:
    reading = read("Linen, chambray. Not suitable for heavy denim, canvas or stiff cloth.")
    assert {name for item in reading.avoid_cloths for name in item.types} >= {"heavy denim", "canvas"}
    assert [word for word, _ in reading.avoid_hands] == ["stiff"]
    assert types(reading) >= {"linen", "chambray"}


@pytest.mark.parametrize(
    ("text", "structure"),
    [("wovens with or without stretch", "woven"), ("Soft knits. Stiffer fabrics will give a boxier shape.", "knit")],
)
def test_remarks_ask_nothing(text: str, structure: str) -> None:
    reading = read(text)
    assert reading.structures == {structure}
    assert reading.max_cross_pct is None
    assert [word for word, _ in reading.hands if word == "stiffer"] == []


def test_lining_on_an_envelope_is_a_part() -> None:
    reading = read("Wool coating, tweed. Lining: acetate or viscose lining.")
    assert {item.part for item in reading.cloths if "lining" in item.words} == {"lining"}
    assert reading.fibres == []


def test_a_short_not_ends_at_the_comma() -> None:
    reading = read("soft wovens, nothing stiff, challis, crepe")
    assert "viscose challis" in types(reading)
    assert reading.avoid_hands


@pytest.mark.parametrize(
    ("text", "low", "high"),
    [
        ("150-220 gsm", 150, 220),
        ("4 to 6 oz", 135.6, 203.4),
        ("up to 200 g/m2", 0, 200),
        ("250 gsm or more", 250, float("inf")),
    ],
)
def test_weights_by_number(text: str, low: float, high: float) -> None:
    gsm = read(f"wovens, {text}").gsm
    assert gsm is not None
    assert (gsm.low, gsm.high) == pytest.approx((low, high), abs=0.1)


def test_a_number_before_a_noun_belongs_to_it() -> None:
    reading = read("8-10 oz denim, canvas")
    assert reading.gsm is None
    assert reading.cloths[0].types == ("denim",)


def test_parts_take_their_own_cloths() -> None:
    reading = read("French terry; ribbing for cuffs and hem band. Sleeves: dotted tulle.")
    parts = {item.words: item.part for item in reading.cloths}
    assert parts == {"french terry": None, "ribbing": "band", "dotted tulle": "sleeve"}


def test_velvet_in_both_vocabularies() -> None:
    assert "viscose challis" in types(read("rayon challis, rayon crepe"))
    assert types(read("rayon spandex knit")) == {"viscose jersey"}


def test_natural_fibres_and_press() -> None:
    reading = read("natural fibres that press well")
    assert reading.natural
    assert reading.presses
    assert reading.unread == []


def test_what_is_not_read_is_said() -> None:
    assert read("lawn, wobblecloth and poplin").unread == ["wobblecloth"]


def test_the_avoid_field_is_read_as_ruled_out() -> None:
    reading = read("stiff cloth, heavy denim, knits, one-way prints", avoid=True)
    assert reading.avoid_structures == {"knit"}
    assert reading.avoid_prints == {"one-way"}
    assert reading.cloths == []


@pytest.mark.parametrize("kind", [kind for kind in TABLES.lexicon.types if kind.use != "lining"], ids=lambda kind: kind.name)
def test_every_cloth_name_is_read_back(kind: object) -> None:
    name = kind.name  # type: ignore[attr-defined]
    found = types(read(f"for example {name}, nothing else"))
    assert name in found or key(name) in {key(word) for word in TABLES.lexicon.groups}


@pytest.mark.parametrize(("text", "wanted"), TEXTS, ids=[text[:40] for text, _ in TEXTS])
def test_texts_in_many_styles(text: str, wanted: dict[str, Any]) -> None:
    reading = read(text)
    if "structures" in wanted:
        assert reading.structures == wanted["structures"]
    if "weights" in wanted:
        assert reading.weights == wanted["weights"]
    if "cross" in wanted:
        assert reading.min_cross_pct == wanted["cross"]
    if "length" in wanted:
        assert reading.min_length_pct == wanted["length"]
    if "hands" in wanted:
        assert [word for word, _ in reading.hands] == wanted["hands"]
    assert wanted.get("cloths", set()) <= types(reading)
    assert not wanted.get("without", set()) & types(reading)
    assert wanted.get("avoid", set()) == reading.avoid_structures
    assert wanted.get("out", set()) <= {name for item in reading.avoid_cloths for name in item.types}


def test_what_is_also_possible_never_sets_the_structure() -> None:
    reading = read("Denim, corduroy, linen; also low stretch knits")
    assert (reading.structures, reading.also_structures, reading.most_cross_of) == (set(), {"knit"}, {"knit": 35.0})


def test_a_sentence_of_no_bearing_takes_no_option_twice() -> None:
    draft = read_paste("Tern smock\nRemovable belt for every occasion.\n", TABLES)
    assert len(draft.options) <= 1


@pytest.mark.parametrize(("width_cm", "verdict"), [(150, "suits"), (140, "suits"), (120, "with care")])
def test_a_width_that_the_list_asks_is_judged(width_cm: float, verdict: str) -> None:
    """'At least 140 cm wide': common practice, no source."""
    cloth = {"cloth": "linen", "width_cm": width_cm}
    found = assess_one({"cloth": cloth, "pattern": {"recommended": "Linen, denim, at least 140 cm wide.", "garment": "skirt"}})
    assert found["checks"]["width"]["verdict"] == verdict
    assert "140" in found["checks"]["width"]["reason"]


def test_a_width_that_no_rule_can_keep_is_told_as_unread() -> None:
    assert read_envelope("Linen, no more than 120 cm wide.", TABLES).unread
