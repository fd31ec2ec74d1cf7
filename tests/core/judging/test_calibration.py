"""Calibration: folds, agreement and what a miss hangs on. Judgements by the rules' own hand: consistency, not truth."""

from __future__ import annotations

import json
from contextlib import suppress
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from judged_fourth_round import FOURTH_ROUND

from nematex.command.calibrate import told
from nematex.core.errors import FieldFault
from nematex.tables import trade_tables
from nematex.usecases.assess.calibration import FOLDS, calibrate, read_judgements

TABLES = trade_tables()
JUDGED = [
    {"id": f"case {at}", "input": {"cloth": cloth, **pattern}, "expect": sorted(expected), "why": why}
    for at, (cloth, pattern, expected, why) in enumerate(FOURTH_ROUND[:14])
]
WRONG = {"id": "turned", "input": {"cloth": {"cloth": "chiffon"}, "pattern": {"recommended": "canvas"}}, "expect": ["suits"]}


def test_every_judgement_is_tried_once_and_opposites_are_named() -> None:
    found = calibrate(read_judgements(json.dumps([*JUDGED, WRONG]), TABLES), TABLES)
    assert len(found.folds) == FOLDS
    assert sum(fold.size for fold in found.folds) == found.size == len(JUDGED) + 1
    assert sum(fold.as_shipped for fold in found.folds) == found.as_shipped == len(JUDGED)
    assert sum(size for _, size in found.agreed.values()) == found.size
    assert found.opposite == ("turned",)
    (miss,) = found.misses
    assert (miss.id, miss.said, miss.expect) == ("turned", "against", ("suits",))
    assert "cloth names “canvas”" in miss.hangs_on
    report = "\n".join(told(found))
    assert f"{len(JUDGED)} of {len(JUDGED) + 1} judgements agree" in report
    assert "opposite verdicts: turned" in report
    assert report.count("fold ") == FOLDS


def test_a_number_that_is_off_is_found_and_never_by_the_fold_it_is_tried_on() -> None:
    """Cloths a little heavier than a number allows, which hands take: every fold asks for more tolerance."""
    pattern = {"structure": "woven", "recommended": "wovens of 100 to 200 g/m²"}
    judged = [
        {"id": f"heavy {at}", "input": {"cloth": {"structure": "woven", "weight_gsm": 221 + at % 3, "fibres": "100% cotton",
         "bending_length_cm": 2.0, "width_cm": 150, "known": {"weight_gsm": "measured", "bending_length_cm": "measured"}},
         "pattern": pattern}, "expect": ["with care"]}
        for at in range(15)
    ]  # fmt: skip
    found = calibrate(read_judgements(json.dumps(judged), TABLES), TABLES)
    assert found.as_shipped == 0
    assert found.cross_validated == found.size
    assert min(found.proposed["tolerance.number"]) > 1


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("", "is no JSON"),
        ("[" * 100_000, "is no JSON"),
        ("[]", "holds none"),
        ("{}", "list"),
        (json.dumps([{**WRONG, "expect": ["perhaps"]}]), "is no verdict; choose from suits"),
        (json.dumps([{**WRONG, "expect": []}]), "at least 1 item"),
        (json.dumps([{**WRONG, "score": 3}]), "extra inputs"),
        (json.dumps([{"id": "x", "expect": ["suits"]}]), "field required"),
    ],
)
def test_what_is_no_judgement_is_refused_in_words(text: str, words: str) -> None:
    with pytest.raises(FieldFault, match=words):
        read_judgements(text, TABLES)


names = st.sampled_from(["id", "input", "expect", "x"])
leaves = st.none() | st.booleans() | st.floats() | st.text(max_size=9)
json_values = st.recursive(leaves, lambda each: st.lists(each, max_size=3) | st.dictionaries(names, each, max_size=3))


@given(json_values)
@settings(max_examples=60)
def test_anything_is_judgements_or_a_fault(value: Any) -> None:
    with suppress(FieldFault):
        assert read_judgements(json.dumps(value), TABLES)
