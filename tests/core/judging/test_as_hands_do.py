"""How named cloths, hand words, adjectives and guesses are read. Common practice, no source; by the same hand as the rules."""

from __future__ import annotations

from typing import Any

import pytest

from nematex.core.cloth.estimates import Cloth, known_cloth
from nematex.core.cloth.facts import ClothFacts
from nematex.core.judging.demand import demand
from nematex.core.judging.pairing import pair
from nematex.core.pattern.envelope import read_envelope
from nematex.core.pattern.facts import Pattern, Wish
from nematex.tables import trade_tables
from nematex.usecases.assess.pairing import assess_one

TABLES = trade_tables()


def cloth(**facts: Any) -> Cloth:
    return known_cloth(ClothFacts(**facts), TABLES)


def verdict(facts: dict[str, Any], pattern: dict[str, Any]) -> str:
    return str(assess_one({"cloth": facts, "pattern": pattern})["verdict"])


def test_a_hand_word_narrows_a_cloths_own_range() -> None:
    lawn, crisp, fluid = (cloth(cloth="cotton lawn", hand=hand) for hand in (None, "crisp", "fluid"))
    assert crisp.bending_length.low > lawn.bending_length.best > fluid.bending_length.high
    assert crisp.bending_length.high == pytest.approx(lawn.bending_length.high + TABLES.judging.hand.beyond_cm)
    cord = cloth(cloth="corduroy", hand="soft").bending_length
    assert cord.low >= cloth(cloth="corduroy").bending_length.low - TABLES.judging.hand.beyond_cm
    unknown = cloth(structure="woven", hand="crisp").bending_length
    assert (unknown.low, unknown.high) == (2.4, 3.3)  # of a cloth without a name the word's own range


@pytest.mark.parametrize(
    ("facts", "structure", "guessed"),
    [
        ({"cloth": "velvet"}, "woven", True),
        ({"cloth": "velvet", "structure": "knit"}, "knit", False),
        ({"cloth": "velvet", "stretch_cross_pct": 60.0}, "knit", False),
        ({"cloth": "velvet", "stretch_cross_pct": 5.0}, "woven", False),
        ({"cloth": "velvet", "fibres": "98% cotton 2% elastane"}, "woven", False),
        ({"cloth": "velvet", "fibres": "95% polyester 5% elastane"}, "knit", False),
        ({"cloth": "denim"}, "woven", False),
    ],
)
def test_of_namesakes_which_it_is(facts: dict[str, Any], structure: str, guessed: bool) -> None:
    found = cloth(**facts)
    assert (found.structure, found.guessed) == (structure, guessed)


def test_where_the_kind_is_a_guess_the_stretch_is_to_be_measured() -> None:
    answer = assess_one({"cloth": {"cloth": "velvet"}, "pattern": {"structure": "knit", "recommended": "stretch velvet"}})
    assert (answer["verdict"], answer["measure_next"]) == ("unproven", "stretch_cross_pct")


@pytest.mark.parametrize(
    ("text", "structures", "weights", "hands", "most"),
    [
        ("thin knits", set(), ["very light"], [], {}),
        ("Not suitable for thin, drapey or very stretchy knits.", set(), ["very light"], ["drapey"], {"knit": 50.0}),
        ("Heavy knits are not suitable.", set(), ["heavy"], [], {}),
        ("knits that are too stretchy", set(), [], [], {"knit": 35.0}),
        ("stiff wovens", set(), [], ["stiff"], {}),
        ("knits", {"knit"}, [], [], {}),
        ("velvet, knits", {"knit"}, [], [], {}),
    ],
)
def test_an_adjective_rules_out_those_alone(
    text: str, structures: set[str], weights: list[str], hands: list[str], most: dict[str, float]
) -> None:
    avoid = "are not" not in text and "Not suitable" not in text
    found = read_envelope(text, TABLES, avoid=avoid)
    assert found.avoid_structures == structures
    assert found.avoid_weights == weights
    assert [word for said in found.avoid_hands_of.values() for word, _ in said] == hands
    assert found.most_cross_of == most
    assert (found.weights, found.hands, found.structures, found.max_cross_pct) == ([], [], set(), None)


@pytest.mark.parametrize(
    "text",
    [
        "Lawn; crepe without the tucks.",
        "Lawn. Crepe works if you skip the tucks.",
        "Lawn, and crepe for the version without tucks",
        "Lawn; crepe when the tucks are left off",
        "Lawn; crepe (tucks omitted)",
        "Lawn; crepe with the tucks left out",
    ],
)
def test_a_condition_in_any_wording(text: str) -> None:
    found = {item.words: item.condition for item in read_envelope(text, TABLES).cloths}
    crepe = found["crepe"]
    assert crepe is not None
    assert (crepe.kind, crepe.what) == ("without", "pin tucks")
    assert found["lawn"] is None


def test_stretchy_rib_bands_ask_it_of_the_band() -> None:
    found = read_envelope("French terry with stretchy rib bands", TABLES)
    assert (found.min_cross_pct, found.stretchy) == (None, False)
    assert read_envelope("stretchy French terry", TABLES).min_cross_pct == 20


def test_a_list_opens_a_details_window_and_an_edge_set_by_the_shop_stands() -> None:
    asked = demand(Pattern(structure="woven", recommended="cotton voile, lawn", details=("button band",)), Wish(), TABLES)
    assert verdict({"cloth": "cotton voile", "sheer": "opaque"}, {"structure": "woven", "recommended": "cotton voile, lawn",
                                                                   "details": ["button band"]}) == "suits"  # fmt: skip
    assert {noun.row.name for each in asked.nouns for noun in each} == {"cotton voile", "cotton lawn"}
    fix = {"window": "drape shirt collar", "side": "low", "value": 1.9, "reason": "our collars slip", "by": "", "on": ""}
    fixed = {"structure": "woven", "recommended": "cotton voile, lawn", "details": ["button band"], "edge_fixes": [fix]}
    answer = assess_one({"cloth": {"cloth": "cotton voile", "sheer": "opaque", "bending_length_cm": 1.5}, "pattern": fixed})
    assert answer["checks"]["drape"]["verdict"] != "suits"


def test_the_list_does_not_outrank_what_only_an_option_has() -> None:
    collar = {"options": [{"name": "collar", "details": ["shirt collar"]}]}
    pattern = {"structure": "woven", "recommended": "viscose challis, lawn", **collar}
    assert verdict({"cloth": "viscose challis"}, pattern) == "with care"
    assert verdict({"cloth": "viscose challis"}, {**pattern, "options": [], "details": ["shirt collar"]}) == "suits"


def test_a_coats_collar_is_no_shirts() -> None:
    coat, shirt = ({"garment": garment, "structure": "woven", "details": ["collar"]} for garment in ("coat", "shirt"))
    stiff = {"cloth": "wool coating", "bending_length_cm": 4.1}
    assert assess_one({"cloth": stiff, "pattern": coat})["checks"]["drape"]["verdict"] == "suits"
    assert assess_one({"cloth": stiff, "pattern": shirt})["checks"]["drape"]["verdict"] == "against"
    named = {**coat, "details": ["shirt collar"]}  # where the envelope says so, it is one
    assert assess_one({"cloth": stiff, "pattern": named})["checks"]["drape"]["verdict"] == "against"


def test_fibres_that_do_not_make_the_whole_are_said() -> None:
    asked = {"pattern": {"structure": "woven", "recommended": "lawn"}}
    short = assess_one({"cloth": {"cloth": "cotton lawn", "fibres": "60% cotton 30% viscose"}, **asked})
    assert short["faults"] == ["fibres: the shares add up to 90 %, not 100 %"]
    assert assess_one({"cloth": {"cloth": "cotton lawn"}, **asked})["faults"] == []


def test_a_cloth_named_by_a_wider_word_that_a_detail_refuses_is_with_care_and_says_why() -> None:
    """'Jersey' names slinky jersey too; close to the body it shows what is beneath. Common practice, no source."""
    cloth = {"cloth": "slinky jersey", "fibres": "95% polyester 5% elastane", "stretch_cross_pct": 60, "weight_gsm": 165}
    pattern = {"structure": "knit", "recommended": "jersey, stretch velvet, ponte", "garment": "dress", "details": ["bodycon"]}
    found = assess_one({"cloth": cloth, "pattern": pattern})["checks"]["fibre"]
    assert (found["verdict"], "slinky jersey is thin for" in found["reason"]) == ("with care", True), found


@pytest.mark.parametrize(
    ("fibres", "verdict"),
    [("100% cotton", "suits"), ("98% cotton 2% elastane", "suits"), ("94% cotton 6% elastane", "with care")],
)
def test_a_limit_of_elastane_is_read_from_the_label(fibres: str, verdict: str) -> None:
    """'Denim with at most 3 % elastane': common practice, no source."""
    asked = demand(Pattern(recommended="Denim with at most 3 % elastane, linen", structure="woven"), Wish(), TABLES)
    found = pair(cloth(name="blue denim", fibres=fibres, weight_gsm=330), asked, TABLES)
    assert found.verdict.word == verdict
