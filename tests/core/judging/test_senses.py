"""Sheerness by place, facings, knees, the look, a child's sleep, wool. Common practice, no source."""

from __future__ import annotations

from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from nematex.core.cloth.estimates import known_cloth
from nematex.core.cloth.facts import ClothFacts
from nematex.core.cloth.lexicon import ClothType
from nematex.core.judging.demand import demand
from nematex.core.judging.pairing import pair
from nematex.core.pattern.facts import Pattern, Wish
from nematex.tables import trade_tables
from nematex.usecases.assess.pairing import assess_one

TABLES = trade_tables()
WOVEN = {"structure": "woven"}
SLIGHTLY = {"cloth": "linen cotton", "sheer": "slightly sheer", "weight_gsm": 175}


def answer(cloth: dict[str, Any], **pattern: Any) -> dict[str, Any]:
    return assess_one({"cloth": cloth, "pattern": {**WOVEN, **pattern}})


@pytest.mark.parametrize(
    ("pattern", "expected"),
    [
        ({"garment": "top"}, "suits"),
        ({"garment": "trousers"}, "with care"),
        ({"garment": "trousers", "lined": True}, "suits"),
        ({"garment": "skirt"}, "with care"),
        ({"garment": "skirt", "details": ["gathers"]}, "suits"),
        ({"garment": "kimono"}, "suits"),
    ],
)
def test_slightly_sheer_is_judged_by_where_it_is_worn(pattern: dict[str, Any], expected: str) -> None:
    assert answer(SLIGHTLY, recommended="linen, linen cotton", **pattern)["checks"]["weight"]["verdict"] == expected


def test_what_a_list_names_is_known_to_show_unless_somebody_has_looked() -> None:
    asked = {"garment": "dress", "recommended": "lawn, voile"}
    assert answer({"cloth": "cotton voile"}, **asked)["verdict"] == "suits"
    assert answer({"cloth": "cotton voile", "sheer": "sheer"}, **asked)["verdict"] == "with care"


@pytest.mark.parametrize(
    ("cloth", "detail", "expected"),
    [
        ({"cloth": "viscose challis"}, "v-neck facing", "with care"),
        ({"cloth": "viscose challis"}, "facing", "suits"),
        ({"cloth": "linen", "hand": "moderate"}, "v-neck facing", "suits"),
        ({"cloth": "single gauze", "sheer": "opaque"}, "facing", "with care"),
    ],
)
def test_a_shaped_facing_grows_in_fluid_cloth_and_any_in_a_gauze(cloth: dict[str, Any], detail: str, expected: str) -> None:
    found = answer(cloth, garment="top", recommended="viscose challis, linen, single gauze", details=[detail])
    assert found["checks"]["drape"]["verdict"] == expected
    assert expected == "suits" or "Stay-stitch" in found["checks"]["drape"]["remedy"]


def test_a_loose_knit_bags_at_the_knee_and_not_at_the_cuff() -> None:
    pattern = {"structure": "knit", "garment": "joggers", "recommended": "sweater knit, French terry"}
    assert assess_one({"cloth": {"cloth": "sweater knit"}, "pattern": pattern})["verdict"] == "with care"
    rib = {"cloth": {"cloth": "cuff rib"}, "pattern": {**pattern, "parts": [{"name": "cuffs"}]}, "part": "cuffs"}
    assert assess_one(rib)["checks"]["stretch"]["verdict"] == "suits"


def test_a_childs_safety_stands_above_the_list() -> None:
    brushed = {"garment": "nightshirt", "nightwear": True, "recommended": "brushed cotton, cotton lawn"}
    assert answer({"cloth": "brushed cotton"}, **brushed)["verdict"] == "suits"
    child = answer({"cloth": "brushed cotton"}, **brushed, **{"for": "child"})
    assert child["verdict"] == "with care"
    assert "burns fast" in child["checks"]["fibre"]["reason"]
    assert answer({"cloth": "cotton lawn"}, **brushed, **{"for": "child"})["verdict"] == "suits"


def test_a_childs_safety_speaks_before_a_lesser_reason_of_the_same_verdict() -> None:
    asked = Pattern(
        structure="woven", garment="nightshirt", nightwear=True, wearer="child", recommended="brushed cotton, heavy flannel"
    )
    velour = known_cloth(ClothFacts(cloth="cotton velour", fibres="100% cotton", stretch_cross_pct=25, weight_gsm=240), TABLES)
    found = pair(velour, demand(asked, Wish(), TABLES), TABLES)
    assert found.checks["stretch"].verdict is found.checks["fibre"].verdict is found.verdict
    assert found.sentence.startswith("A child sleeps in it")


def test_wool_is_steamed_and_never_washed_first() -> None:
    coat = answer({"cloth": "wool coating", "fibres": "100% wool"}, garment="coat", recommended="wool coating")
    assert any("steam the whole length" in each for each in coat["cautions"])
    assert not any("wash and dry" in each for each in coat["cautions"])
    for kind, said in (("wool coating", "steam the whole length"), ("denim", "wash it first")):
        cloth = known_cloth(ClothFacts(cloth=kind), TABLES)
        asked = demand(Pattern(structure="woven", garment="coat", recommended=kind), Wish(), TABLES)
        assert said in pair(cloth, asked, TABLES).sentence


@given(st.sampled_from(TABLES.lexicon.types), st.floats(10, 700), st.floats(10, 700))
def test_of_one_kind_the_heavier_is_never_the_sheerer(kind: ClothType, one: float, other: float) -> None:
    light, heavy = (known_cloth(ClothFacts(cloth=kind.name, weight_gsm=gsm), TABLES).sheer.best for gsm in sorted((one, other)))
    assert heavy <= light


def test_what_a_noun_of_many_asks_is_what_most_of_them_give() -> None:
    pattern = {"structure": "knit", "garment": "dress", "recommended": "soft jersey, interlock"}
    firm = assess_one({"cloth": {"cloth": "crepe jersey", "stretch_cross_pct": 18}, "pattern": pattern})
    assert firm["checks"]["stretch"]["verdict"] == "with care"
    assert assess_one({"cloth": {"cloth": "cotton jersey", "stretch_cross_pct": 30}, "pattern": pattern})["verdict"] == "suits"


def test_what_is_named_and_never_measured_is_not_refused_by_what_is_typical() -> None:
    pattern = {"structure": "knit", "garment": "top", "recommended": "ponte, crepe jersey", "min_stretch_cross_pct": 25}
    assert assess_one({"cloth": {"cloth": "crepe jersey"}, "pattern": pattern})["verdict"] == "unproven"
    measured = {"cloth": "crepe jersey", "stretch_cross_pct": 12}
    assert assess_one({"cloth": measured, "pattern": pattern})["verdict"] == "against"


def test_a_pattern_that_may_be_woven_asks_no_stretch_of_its_cloth_for_the_bands() -> None:
    fleece = {"cloth": "sweatshirt fleece", "stretch_cross_pct": 12}
    asked = {"garment": "cardigan", "recommended": "sweatshirting, stable wovens with rib bands", "details": ["bands"]}
    either = assess_one({"cloth": fleece, "pattern": {"structure": "either", **asked}})
    assert either["checks"]["stretch"]["verdict"] == "suits"


def test_a_word_for_the_whole_list_holds_for_what_is_not_named() -> None:
    asked = {"garment": "dress", "recommended": "Wovens with drape: viscose challis, light linen"}
    poplin = {"cloth": "cotton poplin", "bending_length_cm": 2.4, "weight_gsm": 115}
    linen = {"cloth": "linen light", "bending_length_cm": 2.4, "weight_gsm": 115, "sheer": "opaque"}
    assert answer(poplin, **asked)["checks"]["drape"]["verdict"] == "with care"
    assert answer(linen, **asked)["checks"]["drape"]["verdict"] == "suits"


def test_a_weight_word_holds_for_kin_and_not_for_what_the_list_names_beyond_it() -> None:
    medium = {"garment": "dress", "recommended": "medium weight wovens: wool crepe, gabardine, cotton sateen"}
    poplin, sateen = {"cloth": "cotton poplin", "weight_gsm": 120}, {"cloth": "cotton sateen", "weight_gsm": 120}
    assert answer(poplin, **medium)["checks"]["weight"]["verdict"] == "with care"
    assert answer(sateen, **medium)["checks"]["weight"]["verdict"] == "suits"
    # "Light to medium bottom weights: denim": the word is not meant as grams, for denim itself lies beyond it.
    bottoms = {"garment": "trousers", "recommended": "light to medium bottom weights: linen, denim, corduroy"}
    assert answer({"cloth": "cotton twill", "weight_gsm": 250}, **bottoms)["checks"]["weight"]["verdict"] == "suits"


@pytest.mark.parametrize(
    ("cloth", "word"),
    [
        ({"cloth": "cotton poplin", "structure": "knit"}, "structure"),
        ({"cloth": "cotton voile", "weight_gsm": 400}, "weighs"),
        ({"cloth": "cotton poplin", "stretch_cross_pct": 51, "fibres": "100% cotton"}, "stretch"),
    ],
)
def test_what_cannot_all_be_so_proves_nothing(cloth: dict[str, Any], word: str) -> None:
    said = answer({**cloth, "width_cm": 145}, garment="top", recommended="cotton poplin, cotton voile")
    assert said["checks"]["fibre"]["verdict"] == "unproven"
    assert said["verdict"] in ("unproven", "against")
    assert "cannot all be so" in said["checks"]["fibre"]["reason"]


def test_what_is_seen_to_show_or_measured_to_be_so_is_believed() -> None:
    said = answer({"cloth": "cotton voile", "sheer": "opaque"}, garment="top", recommended="cotton voile")
    assert said["checks"]["fibre"]["verdict"] == "suits"
    heavy = {"cloth": "cotton voile", "weight_gsm": 400, "known": {"weight_gsm": "measured"}}
    assert answer(heavy, garment="top", recommended="cotton voile")["checks"]["fibre"]["verdict"] == "suits"


def test_what_is_known_by_its_name_alone_stands_behind_what_is_known() -> None:
    asked = {"garment": "dress", "recommended": "viscose twill, viscose challis"}
    unmarked, known = {"cloth": "viscose twill"}, {"cloth": "viscose twill", "fibres": "100% viscose", "weight_gsm": 150}
    assert answer(unmarked, **asked)["score"] < answer(known, **asked)["score"]


def test_an_edge_that_the_shop_sets_for_what_is_not_named_holds() -> None:
    poplin = {"cloth": "cotton poplin", "weight_gsm": 120}
    asked = {"garment": "dress", "recommended": "medium weight wovens: wool crepe, gabardine, cotton sateen"}
    fix = {"window": "weight words woven", "side": "low", "value": 110, "reason": "ours are close", "by": "", "on": ""}
    assert answer(poplin, **asked)["checks"]["weight"]["verdict"] == "with care"
    assert answer(poplin, **asked, edge_fixes=[fix])["checks"]["weight"]["verdict"] == "suits"
