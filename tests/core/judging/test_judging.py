"""Verdicts: the table of practitioners' pairings, and the principles of the trade one by one."""

from __future__ import annotations

from typing import Any

import numpy as np
import pytest
from judged_fourth_round import FOURTH_ROUND
from judged_pairings import PAIRINGS
from judged_second_round import SECOND_ROUND
from judged_third_round import THIRD_ROUND
from schemas import validator

from nematex.core.cloth.columns import columns
from nematex.core.cloth.estimates import known_cloth
from nematex.core.cloth.facts import ClothFacts
from nematex.core.errors import FieldFault
from nematex.core.judging.demand import demand
from nematex.core.judging.judge import NAMES, judge
from nematex.core.judging.pairing import pair
from nematex.core.pattern.facts import Pattern, Wish
from nematex.tables import trade_tables
from nematex.usecases.assess.pairing import assess_one
from nematex.usecases.assess.schema import PairingIn, PairingOut

TABLES = trade_tables()


def assess(cloth: dict[str, Any], pattern: dict[str, Any], **more: Any) -> dict[str, Any]:
    return assess_one({"cloth": cloth, "pattern": pattern, **more})


@pytest.mark.parametrize(("cloth", "rest", "expected", "why"), PAIRINGS, ids=[f"{n}" for n in range(len(PAIRINGS))])
def test_judged_pairings(cloth: dict[str, Any], rest: dict[str, Any], expected: set[str], why: str) -> None:
    answer = assess_one({"cloth": cloth, **rest})
    assert answer["verdict"] in expected, (cloth, why, answer["checks"])
    validator(PairingOut).validate(answer)
    validator(PairingIn).validate({"cloth": cloth, **rest})


@pytest.mark.parametrize(("cloth", "rest", "expected"), SECOND_ROUND, ids=[f"{n}" for n in range(len(SECOND_ROUND))])
def test_judged_pairings_of_the_second_round(cloth: dict[str, Any], rest: dict[str, Any], expected: set[str]) -> None:
    answer = assess_one({"cloth": cloth, **rest})
    assert answer["verdict"] in expected, answer["checks"]
    assert answer["unread"] == []


@pytest.mark.parametrize(("cloth", "rest", "expected", "why"), THIRD_ROUND, ids=[f"{n}" for n in range(len(THIRD_ROUND))])
def test_judged_pairings_of_the_third_round(cloth: dict[str, Any], rest: dict[str, Any], expected: set[str], why: str) -> None:
    answer = assess_one({"cloth": cloth, **rest})
    assert answer["verdict"] in expected, (why, answer["checks"])
    validator(PairingIn).validate({"cloth": cloth, **rest})


@pytest.mark.parametrize(("cloth", "rest", "expected", "why"), FOURTH_ROUND, ids=[f"{n}" for n in range(len(FOURTH_ROUND))])
def test_judged_pairings_of_the_fourth_round(cloth: dict[str, Any], rest: dict[str, Any], expected: set[str], why: str) -> None:
    answer = assess_one({"cloth": cloth, **rest})
    assert answer["verdict"] in expected, (why, answer["checks"])
    validator(PairingIn).validate({"cloth": cloth, **rest})


def test_the_whole_is_as_good_as_its_worst_check() -> None:
    order = ["suits", "with care", "unproven", "against"]
    for cloth, rest, _, _ in PAIRINGS:
        answer = assess_one({"cloth": cloth, **rest})
        assert answer["verdict"] == max((check["verdict"] for check in answer["checks"].values()), key=order.index)


@pytest.mark.parametrize("kind", TABLES.lexicon.types, ids=lambda kind: kind.name)
def test_what_the_pattern_names_suits_by_construction(kind: Any) -> None:
    structure = "knit" if kind.structure == "knit" else "woven"
    answer = assess({"cloth": kind.name}, {"structure": structure, "lined": True, "recommended": f"{kind.name}, for instance"})
    assert answer["verdict"] == "suits", answer["checks"]


def test_a_reason_names_both_numbers() -> None:
    answer = assess(
        {"cloth": "cotton poplin", "bending_length_cm": 3.1}, {"structure": "woven", "recommended": "viscose challis"}
    )
    assert "3.1 cm" in answer["checks"]["drape"]["reason"]
    assert "1.1 to 1.8" in answer["checks"]["drape"]["reason"]
    assert answer["checks"]["drape"]["margin"] == pytest.approx(-1.3, abs=0.05)


@pytest.mark.parametrize(
    ("cloth", "said"),
    [
        ("cotton lawn", "Just what the pattern asks for: cotton lawn"),
        ("batiste", "Handles like the cotton lawn that the pattern names; a light ground may show a little"),
        ("canvas", "Too heavy"),
    ],
)
def test_the_sentence_to_say_aloud(cloth: str, said: str) -> None:
    pattern = Pattern(structure="woven", recommended="cotton lawn, linen")
    found = pair(known_cloth(ClothFacts(cloth=cloth), TABLES), demand(pattern, Wish(), TABLES), TABLES)
    assert found.sentence.startswith(said)


def test_both_schools_differ_only_off_the_list() -> None:
    pattern = {"structure": "woven", "recommended": "cotton lawn, linen"}
    assert assess({"cloth": "cotton lawn"}, pattern, school="list")["verdict"] == "suits"
    assert assess({"cloth": "batiste"}, pattern, school="hand")["verdict"] == "suits"
    assert assess({"cloth": "batiste"}, pattern, school="list")["verdict"] == "with care"


def test_the_look_moves_the_score_and_asks_what_falls_to_fall() -> None:
    pattern = {"structure": "woven", "recommended": "cotton lawn, viscose challis, crepe"}
    soft, firm = ({"cloth": "viscose challis", "bending_length_cm": c, "weight_gsm": 110} for c in (1.2, 2.1))
    flowing = [assess(cloth, pattern, look="flowing") for cloth in (soft, firm)]
    structured = [assess(cloth, pattern, look="structured") for cloth in (soft, firm)]
    assert [answer["verdict"] for answer in flowing + structured] == ["suits", "suits", "with care", "suits"]
    assert structured[0]["checks"]["drape"]["reason"].startswith("It falls where the structured look is to stand")
    assert flowing[0]["score"] > flowing[1]["score"]
    assert structured[0]["score"] < structured[1]["score"]


def test_stretch_along_can_be_turned_round_the_body_unless_the_print_has_a_direction() -> None:
    pattern = {"structure": "knit", "recommended": "jersey", "min_stretch_cross_pct": 40}
    cloth = {"cloth": "cotton jersey", "stretch_cross_pct": 15, "stretch_length_pct": 45}
    turned = assess(cloth, pattern)
    assert turned["checks"]["stretch"]["verdict"] == "with care"
    assert "90°" in turned["checks"]["stretch"]["remedy"]
    assert assess({**cloth, "print": {"direction": "one-way"}}, pattern)["verdict"] == "against"


def test_recovery_counts_where_it_is_close() -> None:
    pattern = {"structure": "knit", "recommended": "ponte", "details": ["bodycon"]}
    ponte = {"cloth": "ponte", "weight_gsm": 280, "stretch_cross_pct": 28}
    assert assess({**ponte, "recovery_pct": 92}, pattern)["verdict"] == "suits"
    assert assess({**ponte, "recovery_pct": 75}, pattern)["verdict"] == "with care"


def test_the_measurement_worth_taking_decides() -> None:
    pattern = {"structure": "woven", "recommended": "wool suiting, gabardine", "details": ["boning"]}
    answer = assess({"cloth": "wool suiting", "weight_gsm": 230}, {**pattern, "recommended": "denim, canvas"})
    assert answer["measure_next"] == "bending_length_cm"
    known = {"cloth": "cotton lawn", "weight_gsm": 80, "bending_length_cm": 2.0, "width_cm": 140}
    assert assess(known, {"structure": "woven", "recommended": "lawn"})["measure_next"] is None


def test_what_the_envelope_rules_out_is_against_by_either_school() -> None:
    pattern = {"structure": "woven", "recommended": "light wovens", "avoid": "sheer cloth, one-way prints, cloth with nap"}
    for school in ("list", "hand"):
        assert assess({"cloth": "cotton voile"}, pattern, school=school)["verdict"] == "against"
        assert assess({"cloth": "cotton lawn", "nap": True}, pattern, school=school)["verdict"] == "against"
        printed = {"cloth": "cotton lawn", "print": {"direction": "one-way"}}
        assert assess(printed, pattern, school=school)["verdict"] == "against"
        assert assess({"cloth": "cotton lawn"}, pattern, school=school)["verdict"] == "suits"


def test_stretch_asked_of_a_woven_is_comfort_stretch() -> None:
    pattern = {"structure": "woven", "recommended": "woven fabrics with good stretch"}
    assert assess({"cloth": "stretch denim"}, pattern)["checks"]["stretch"]["verdict"] == "suits"
    assert assess({"cloth": "canvas"}, pattern)["checks"]["stretch"]["verdict"] == "against"


def test_remedies_are_given_even_where_it_is_unproven() -> None:
    answer = assess({"cloth": "wool suiting"}, {"structure": "woven", "recommended": "silk, satin, viscose challis"})
    assert all(check["remedy"] for check in answer["checks"].values() if check["verdict"] != "suits")


@pytest.mark.parametrize(
    ("cloth", "pattern", "word"),
    [
        ({"cloth": "brushed cotton"}, {"structure": "woven", "garment": "nightshirt", "for": "child"}, "regulated"),
        (
            {"cloth": "cotton jersey"},
            {"structure": "knit", "garment": "hoodie", "details": ["drawstring hood"], "for": "child"},
            "strangle",
        ),
        ({"name": "bamboo jersey", "fibres": "95% bamboo 5% elastane"}, {"structure": "knit"}, "viscose from bamboo"),
        ({"cloth": "cotton voile"}, {"structure": "woven", "garment": "dress"}, "See-through"),
        ({"cloth": "ponte"}, {"structure": "woven", "recommended": "suiting"}, "baste"),
        ({"cloth": "chiffon", "deadstock": True}, {"structure": "woven"}, "never restocked"),
    ],
)
def test_cautions_arise_where_they_belong(cloth: dict[str, Any], pattern: dict[str, Any], word: str) -> None:
    assert any(word in caution for caution in assess(cloth, pattern)["cautions"])


def test_a_caution_of_law_defers_to_local_rules() -> None:
    legal = [
        row.text for code, row in TABLES.cautions.items() if code in ("nightwear", "child nightwear", "child cords", "bamboo")
    ]
    assert all("Check the rules where you live" in text or "check the rules where you live" in text for text in legal)


@pytest.mark.parametrize(
    ("raw", "words"),
    [
        (
            {"cloth": {"cloth": "lawn"}, "pattern": {"structure": "weaven"}},
            ["pattern.structure", "weaven", "'woven', 'knit' or 'either'"],
        ),
        ({"cloth": {"cloth": "lawm"}, "pattern": {"structure": "woven"}}, ["cloth.cloth", "lawm", "lawn"]),
        ({"cloth": {}, "pattern": {"structure": "woven"}}, ["cloth", "name", "structure"]),
        ({"cloth": {"cloth": "lawn"}, "pattern": {}}, ["pattern", "structure", "recommendation"]),
        (
            {"cloth": {"cloth": "lawn", "weight_gsm": -3}, "pattern": {"structure": "woven"}},
            ["cloth.weight_gsm", "-3", "greater than 0"],
        ),
        ({"cloth": {"cloth": "lawn", "wieght": 3}, "pattern": {"structure": "woven"}}, ["cloth.wieght", "weight_gsm"]),
        ({"cloth": {"cloth": "lawn"}, "pattern": {"structure": "woven"}, "part": "tail"}, ["part", "tail", "sleeve"]),
        ({"cloth": {"cloth": "lawn"}, "pattern": {"structure": "woven"}, "look": "wild"}, ["look", "wild", "flowing"]),
        (
            {"cloth": {"cloth": "lawn", "known": {"hue": "measured"}}, "pattern": {"structure": "woven"}},
            ["known", "hue", "weight_gsm"],
        ),
        ([1, 2], ["input"]),
    ],
)
def test_a_fault_names_field_value_and_choices(raw: Any, words: list[str]) -> None:
    with pytest.raises(FieldFault) as fault:
        assess_one(raw)
    assert all(word in str(fault.value) for word in words), str(fault.value)


def test_how_a_value_is_known_can_be_said_otherwise() -> None:
    pattern = {"structure": "woven", "recommended": "wovens of 100-200 gsm"}
    cloth = {"cloth": "cotton poplin", "weight_gsm": 205}
    stated = assess(cloth, pattern)["checks"]["weight"]
    judged = assess({**cloth, "known": {"weight_gsm": "judged"}}, pattern)["checks"]["weight"]
    assert "stated" in stated["reason"]
    assert "judged" in judged["reason"]
    assert stated["verdict"] == "with care"


def test_the_column_path_and_the_single_path_agree_on_the_whole_lexicon() -> None:
    cloths = [known_cloth(ClothFacts(cloth=kind.name), TABLES) for kind in TABLES.lexicon.types]
    pattern = Pattern(
        structure="woven", recommended="linen, viscose, lawn", details=("gathers", "shirt collar"), garment="dress"
    )
    for wish in (Wish(), Wish(look="flowing", school="list")):
        asked = demand(pattern, wish, TABLES)
        together = judge(columns(cloths, TABLES), asked, TABLES)
        for at, cloth in enumerate(cloths):
            single = pair(cloth, asked, TABLES)
            assert together.verdict[at] == single.verdict
            assert together.score[at] == pytest.approx(single.score, abs=0.051)
            assert [together.checks[name][at] for name in NAMES] == [single.checks[name].verdict for name in NAMES]
    assert np.all(np.diff(together.score[together.order()]) <= 1e-9)
