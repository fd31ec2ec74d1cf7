"""Sheerness by place, facings, knees, the look, a child's sleep, wool. Common practice, no source."""

from __future__ import annotations

from typing import Any

import pytest

from nematex.usecases.assess.pairing import assess_one

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


def test_wool_is_steamed_and_never_washed_first() -> None:
    coat = answer({"cloth": "wool coating", "fibres": "100% wool"}, garment="coat", recommended="wool coating")
    assert any("steam the whole length" in each for each in coat["cautions"])
    assert not any("wash and dry" in each for each in coat["cautions"])
