"""What the command line tells beyond a verdict. Cases by our own hand; common practice, no source."""

from __future__ import annotations

import json
from typing import Any

import pytest
from schemas import validator

from nematex.core.errors import FieldFault
from nematex.usecases.assess.pairing import assess_any, assess_one, assess_text
from nematex.usecases.assess.schema import PairingOut

PONTE = {"cloth": "ponte", "stretch_cross_pct": 20, "weight_gsm": 260}
SHIFT = {
    "garment": "dress", "structure": "woven", "recommended": "Medium weight wovens such as linen or crepe",
    "details": ["shirt collar"], "notions": "10 buttons 15 mm",
    "sizes": [{"label": str(10 + 2 * n), "bust_cm": 88 + 4 * n, "finished_bust_cm": 97 + 4 * n} for n in range(4)],
}  # fmt: skip


def test_nothing_more_is_told_than_was_asked() -> None:
    assert "more" not in assess_one({"cloth": PONTE, "pattern": SHIFT})
    answer = assess_one({"cloth": PONTE, "pattern": SHIFT, "tell": ["why"]})
    assert set(answer["more"]) == {"why"}
    validator(PairingOut).validate(answer)
    edges = {(each["window"], each["side"]): each for each in answer["more"]["why"]}
    assert edges["weight list woven", "high"]["words"] == "“medium”"
    assert edges["weight list woven", "high"]["value"] == 275
    collar = edges["drape shirt collar", "low"]  # the designer's list outranks the collar's own wish for body
    assert (collar["table"], collar["row"], collar["words"]) == ("cloth names", "wool crepe", "crepe")


def test_sizes_lining_and_hang_come_with_their_reasons() -> None:
    asked = {"cloth": PONTE, "pattern": SHIFT, "size": "14", "tell": ["beneath"], "body": {"bust_cm": 94},
             "hang": {"garment": "gathered skirt", "gather": 2.0}}  # fmt: skip
    told = assess_one(asked)["more"]
    assert told["sizes"]["choices"] == [
        {"band": "", "size": "14", "reasons": ["bust 94 cm lies between 12 (92) and 14 (96): the larger, and take in"]}
    ]
    # Size 14 has 9 cm of ease; 20 % × 0.33 of 96 cm is 6.3 cm: one size of 4 cm.
    assert (told["sizes"]["stable_knit"]["closer_cm"], told["sizes"]["stable_knit"]["sizes"]) == (6.3, 1)
    assert told["beneath"]["interfacing"]["kind"] == "medium fusible knit"
    assert told["beneath"]["notions"][0] | {"words": ""} == {
        "words": "", "kind": "button", "count": 10, "length_cm": None, "size_cm": 1.5
    }  # fmt: skip
    assert told["hang"]["hem_radius_cm"] > 74 / 6.2832  # wider than the waist it hangs from
    assert "model" in told["hang"]


def test_each_part_is_judged_in_its_own_cloth() -> None:
    pattern = {"structure": "knit", "recommended": "cotton jersey with 25% stretch", "parts": [
        {"name": "body"}, {"name": "sleeve", "fit": "free", "details": ["full sleeve"]}]}  # fmt: skip
    jersey, tulle = {"cloth": "cotton jersey", "stretch_cross_pct": 40}, {"cloth": "tulle", "weight_gsm": 45}
    asked = {"cloth": jersey, "pattern": pattern, "mixed": {"body": jersey, "sleeve": tulle}}
    told = assess_one(asked)["more"]["mixed"]
    assert told["parts"]["body"]["verdict"] == "suits"
    assert told["parts"]["sleeve"]["verdict"] in ("suits", "with care")
    assert {each["respect"] for each in told["together"]} == {"weight", "shrinkage", "care", "stretch at the seam"}
    swapped = assess_one({**asked, "mixed": {"body": tulle, "sleeve": jersey}})["more"]["mixed"]
    assert swapped["parts"]["body"]["verdict"] == swapped["verdict"] == "against"


@pytest.mark.parametrize(
    ("cloth", "pattern", "expected"),
    [
        # A collar made or left out decides over a slippery, soft cloth.
        ({"cloth": "viscose challis"}, {"options": [{"name": "collar", "details": ["shirt collar"]}]},
         ({"with care"}, {"suits"})),
        # Gathers of one view want a thin cloth; the plain view does not.
        ({"cloth": "linen", "weight_gsm": 240, "thickness_mm": 0.9},
         {"options": [{"name": "gathered waist", "views": ["B"], "details": ["gathers"]}]},
         ({"with care", "against"}, {"suits"})),
        # A knot in a cloth of 250 g/m² is a lump.
        ({"cloth": "linen", "weight_gsm": 250}, {"options": [{"name": "tied front", "details": ["knot"]}]},
         ({"with care", "against"}, {"suits"})),
    ],
)  # fmt: skip
def test_an_option_asks_only_where_it_is_made(cloth: Any, pattern: Any, expected: tuple[set[str], set[str]]) -> None:
    whole = {
        "structure": "woven",
        "recommended": "Light and medium weight wovens: challis, lawn, linen, heavy linen",
        **pattern,
    }
    made, left_out = expected
    assert assess_one({"cloth": cloth, "pattern": whole})["verdict"] in made
    assert assess_one({"cloth": cloth, "pattern": whole, "options": []})["verdict"] in left_out


@pytest.mark.parametrize(
    ("fit", "verdict"), [("close", "against"), ("semi", "against"), ("loose", "with care"), ("free", "suits")]
)
def test_how_a_part_sits_decides_whether_a_woven_may_be_used(fit: str, verdict: str) -> None:
    pattern = {"structure": "knit", "recommended": "jersey", "parts": [{"name": "overlay", "fit": fit}]}
    answer = assess_one({"cloth": {"cloth": "chiffon"}, "pattern": pattern, "part": "overlay"})
    assert answer["checks"]["stretch"]["verdict"] == verdict


def test_a_matrix_and_an_envelope_are_read_from_the_same_command() -> None:
    found = assess_any({"cloths": [{"cloth": "denim"}, {"cloth": "voile"}, {"cloth": "slinky jersey"}],
                        "patterns": [{"structure": "woven", "recommended": "denim, canvas"},
                                     {"structure": "woven", "recommended": "lawn or voile", "lined": True}]})  # fmt: skip
    assert found["verdicts"][0][0] == found["verdicts"][1][1] == "suits"
    assert found["best_cloths"] == [[0], [1]]
    assert found["nothing_suits"] == [2]
    stocked = assess_any({"cloths": [{"cloth": "denim"}, {"cloth": "voile"}], "stock_m": [1.0, None],
                          "patterns": [{"structure": "woven", "recommended": "denim"},
                                       {"structure": "woven", "recommended": "voile"}]})  # fmt: skip
    assert stocked["without_cloth"] == [1]
    with pytest.raises(FieldFault, match="metres for each of the 1 cloths"):
        assess_any({"cloths": [{"cloth": "denim"}], "patterns": [{"structure": "woven"}], "stock_m": [1, 2]})
    single = assess_one({"cloth": {"cloth": "voile"}, 
                         "pattern": {"structure": "woven", "recommended": "lawn or voile", "lined": True}})  # fmt: skip
    assert (found["verdicts"][1][1], found["scores"][1][1]) == (single["verdict"], single["score"])
    both = json.loads(assess_text(json.dumps([{"envelope": "Sizes 8 10\nBust 84"}, {"cloth": PONTE, "pattern": SHIFT}])))
    assert both[0]["pattern"]["sizes"][1]["label"] == "10"
    assert "1 numbers for 2 sizes" in both[0]["faults"][0]["rule"]
    assert both[1]["verdict"] == "with care"


@pytest.mark.parametrize(
    ("raw", "field", "words"),
    [
        ({"cloths": [{"cloth": "denim", "colour": "red"}], "patterns": [{"structure": "woven"}]}, "cloths.0.colour",
         "choose from"),
        ({"cloths": [], "patterns": []}, "cloths", "at least 1"),
        ({"cloth": PONTE, "pattern": SHIFT, "hang": {"garment": "ball gown"}}, "garment", "choose from"),
        ({"cloth": PONTE, "pattern": SHIFT, "hang": {"garment": "cocoon", "length_cm": 10}}, "hang.length_cm",
         "between 60 and 120"),
        ({"cloth": PONTE, "pattern": SHIFT, "options": ["wings"]}, "options", "not a known option"),
        ({"cloth": PONTE, "pattern": {**SHIFT, "reading_fixes": [{"words": "linen", "cloths": ["mooncloth"], "reason": "x"}]}},
         "reading_fixes.cloths", "not a known cloth name"),
    ],
)  # fmt: skip
def test_faults_name_the_field_and_the_choices(raw: Any, field: str, words: str) -> None:
    with pytest.raises(FieldFault) as fault:
        assess_any(raw)
    assert fault.value.field == field
    assert words in str(fault.value)
