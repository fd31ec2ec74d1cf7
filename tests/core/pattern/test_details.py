"""Each design detail, held by a cloth that does what it wants and one that does not.

Common practice, no source: the table of details as practitioners state it, one case per demand.
"""

from __future__ import annotations

from typing import Any

import pytest

from nematex.tables import trade_tables
from nematex.usecases.assess.pairing import assess_one

TABLES = trade_tables()

# detail, pattern structure, check, a cloth that does, a cloth that does not and what it then is at best.
WOVEN_130 = {"structure": "woven", "weight_gsm": 130, "bending_length_cm": 2.0, "thickness_mm": 0.3, "fibres": "100% cotton"}
KNIT_250 = {
    "structure": "knit",
    "weight_gsm": 250,
    "bending_length_cm": 1.6,
    "thickness_mm": 0.8,
    "stretch_cross_pct": 45,
    "fibres": "94% viscose 6% elastane",
}
CASES: list[tuple[str, str, str, dict[str, Any], dict[str, Any], str]] = [
    ("bodycon", "knit", "weight", KNIT_250, {**KNIT_250, "weight_gsm": 150}, "against"),
    ("bodycon", "knit", "stretch", KNIT_250, {**KNIT_250, "stretch_cross_pct": 8}, "against"),
    ("bodycon", "knit", "stretch", {**KNIT_250, "recovery_pct": 92}, {**KNIT_250, "recovery_pct": 60}, "against"),
    ("ruching", "knit", "drape", {**KNIT_250, "bending_length_cm": 1.3}, {**KNIT_250, "bending_length_cm": 2.8}, "against"),
    ("cowl", "woven", "drape", {**WOVEN_130, "bending_length_cm": 1.4}, {**WOVEN_130, "bending_length_cm": 2.4}, "against"),
    ("cowl", "woven", "drape", {**WOVEN_130, "bending_length_cm": 1.4}, {**WOVEN_130, "bending_length_cm": 2.1}, "with care"),
    ("knot", "knit", "weight", {**KNIT_250, "thickness_mm": 0.7}, {**KNIT_250, "thickness_mm": 1.2}, "against"),
    ("twist front", "woven", "weight", WOVEN_130, {"structure": "woven", "weight_gsm": 300}, "against"),
    ("straps", "woven", "weight", WOVEN_130, {**WOVEN_130, "weight_gsm": 420}, "against"),
    ("gathers", "woven", "weight", WOVEN_130, {**WOVEN_130, "thickness_mm": 0.9}, "against"),
    ("tiers", "woven", "weight", WOVEN_130, {"structure": "woven", "weight_gsm": 240}, "with care"),
    ("smocked bodice", "woven", "weight", WOVEN_130, {**WOVEN_130, "thickness_mm": 0.9}, "against"),
    ("pin tucks", "woven", "fibre", {"cloth": "cotton lawn"}, {"cloth": "georgette"}, "with care"),
    ("pin tucks", "woven", "fibre", {"cloth": "linen light"}, {"cloth": "silk viscose velvet"}, "against"),
    ("pleats", "woven", "fibre", {"cloth": "wool suiting"}, {"cloth": "cotton velvet"}, "with care"),
    ("notched lapels", "woven", "drape", {"cloth": "wool suiting"}, {**WOVEN_130, "bending_length_cm": 1.3}, "against"),
    ("neck facing", "knit", "weight", KNIT_250, {**KNIT_250, "weight_gsm": 170}, "against"),
    ("shirt collar", "woven", "drape", WOVEN_130, {**WOVEN_130, "bending_length_cm": 1.2}, "against"),
    ("wide leg", "woven", "drape", WOVEN_130, {**WOVEN_130, "bending_length_cm": 1.5}, "with care"),
    ("wide leg", "woven", "drape", WOVEN_130, {**WOVEN_130, "bending_length_cm": 1.1}, "against"),
    ("princess seams", "woven", "weight", {**WOVEN_130, "weight_gsm": 220}, {**WOVEN_130, "weight_gsm": 90}, "against"),
    ("darts", "woven", "drape", WOVEN_130, {**WOVEN_130, "bending_length_cm": 1.1}, "against"),
    ("bias cut", "woven", "drape", WOVEN_130, {**WOVEN_130, "bending_length_cm": 3.0}, "against"),
    ("wrap front", "woven", "drape", WOVEN_130, {**WOVEN_130, "bending_length_cm": 3.0}, "against"),
    ("elastic casing", "woven", "weight", WOVEN_130, {**WOVEN_130, "weight_gsm": 260}, "against"),
    ("elastic casing", "knit", "weight", {**KNIT_250, "weight_gsm": 320}, {**KNIT_250, "weight_gsm": 420}, "against"),
    ("boning", "woven", "drape", {**WOVEN_130, "bending_length_cm": 2.6}, {**WOVEN_130, "bending_length_cm": 1.5}, "against"),
    ("dungarees", "woven", "weight", {**WOVEN_130, "weight_gsm": 300}, WOVEN_130, "against"),
    ("hoodie", "knit", "weight", KNIT_250, {**KNIT_250, "weight_gsm": 140}, "against"),
    ("dressing gown", "woven", "width", {**WOVEN_130, "width_cm": 150}, {**WOVEN_130, "width_cm": 110}, "with care"),
    ("sleepwear", "woven", "fibre", WOVEN_130, {**WOVEN_130, "fibres": "100% polyester"}, "with care"),
    ("flounce", "woven", "drape", {**WOVEN_130, "bending_length_cm": 1.6}, {**WOVEN_130, "bending_length_cm": 3.2}, "against"),
    (
        "flutter sleeve",
        "woven",
        "drape",
        {**WOVEN_130, "bending_length_cm": 1.6},
        {**WOVEN_130, "bending_length_cm": 3.0},
        "against",
    ),
    ("swimwear", "knit", "stretch", {**KNIT_250, "stretch_cross_pct": 80}, {**KNIT_250, "stretch_cross_pct": 20}, "against"),
]
ORDER = ["suits", "with care", "unproven", "against"]


def check(detail: str, structure: str, name: str, cloth: dict[str, Any], **more: Any) -> dict[str, Any]:
    pattern = {"structure": structure, "details": [detail], **more}
    found: dict[str, Any] = assess_one({"cloth": cloth, "pattern": pattern})["checks"][name]
    return found


@pytest.mark.parametrize(
    ("detail", "structure", "name", "does", "does_not", "at_best"), CASES, ids=lambda value: str(value)[:24]
)
def test_what_a_detail_wants(
    detail: str, structure: str, name: str, does: dict[str, Any], does_not: dict[str, Any], at_best: str
) -> None:
    assert check(detail, structure, name, does)["verdict"] == "suits"
    refused = check(detail, structure, name, does_not)
    assert ORDER.index(refused["verdict"]) >= ORDER.index("with care")
    assert refused["verdict"] == at_best, refused
    assert refused["reason"].endswith(".")
    assert refused["remedy"]


def test_a_detail_costs_a_named_cloth_no_more_than_care() -> None:
    named = check("gathers", "woven", "weight", {"cloth": "denim"}, recommended="denim")
    assert named["verdict"] == "with care"
    assert check("gathers", "woven", "weight", {"cloth": "denim"}, recommended="canvas")["verdict"] == "against"


def test_ruching_lifts_what_bodycon_asks() -> None:
    thin = {**KNIT_250, "weight_gsm": 160}
    pattern = {"structure": "knit", "details": ["bodycon", "side ruching"]}
    assert assess_one({"cloth": thin, "pattern": pattern})["checks"]["weight"]["verdict"] == "suits"


@pytest.mark.parametrize("cloth", ["organza", "soft tulle"])
def test_a_sheer_may_be_as_light_as_it_likes_where_it_is_full(cloth: str) -> None:
    part = {"name": "sleeve", "fit": "free", "details": ["full sleeve"]}
    pattern = {"structure": "woven", "recommended": "medium weight linen", "parts": [part]}
    assert assess_one({"cloth": {"cloth": cloth}, "pattern": pattern, "part": "sleeve"})["verdict"] == "suits"


def test_the_flowing_look_lets_a_wide_leg_be_soft() -> None:
    cloth = {**WOVEN_130, "bending_length_cm": 1.4}
    pattern = {"structure": "woven", "details": ["wide leg"]}
    verdicts = {
        look: assess_one({"cloth": cloth, "pattern": pattern, "look": look})["verdict"] for look in ("balanced", "flowing")
    }
    assert verdicts == {"balanced": "with care", "flowing": "suits"}


def test_a_neck_facing_asks_nothing_of_a_woven() -> None:
    assert check("neck facing", "woven", "weight", {**WOVEN_130, "weight_gsm": 70})["verdict"] == "suits"


@pytest.mark.parametrize(
    ("words", "name"),
    [
        ("gathered waist seam", "gathers"),
        ("a cowl at the back", "cowl"),
        ("Pin-Tucks", "pin tucks"),
        ("deep inverted pleat", "pleats"),
    ],
)
def test_a_detail_is_found_within_its_words(words: str, name: str) -> None:
    found = TABLES.details.find_within(words)
    assert found is not None
    assert found.name == name


def test_the_name_of_a_garment_may_be_a_detail() -> None:
    stiff = {**WOVEN_130, "bending_length_cm": 3.2}
    assert assess_one({"cloth": stiff, "pattern": {"structure": "woven", "garment": "wrap dress"}})["verdict"] == "against"
    assert assess_one({"cloth": stiff, "pattern": {"structure": "woven", "garment": "shift dress"}})["verdict"] == "suits"


def test_a_garment_speaks_only_where_the_envelope_is_silent() -> None:
    light = {"cloth": "linen light", "sheer": "opaque"}
    silent = assess_one({"cloth": light, "pattern": {"structure": "woven", "garment": "dungarees"}})
    named = assess_one(
        {"cloth": light, "pattern": {"structure": "woven", "garment": "dungarees", "recommended": "light linen"}}
    )
    assert silent["checks"]["weight"]["verdict"] == "against"
    assert named["checks"]["weight"]["verdict"] == "suits"


def test_unknown_details_are_said_and_known_ones_are_not() -> None:
    answer = assess_one({"cloth": {"cloth": "lawn"}, "pattern": {"structure": "woven", "details": ["pockets", "zigzag wing"]}})
    assert answer["unread"] == ["detail “zigzag wing”"]


def test_every_detail_of_the_table_is_reachable_and_has_its_reason() -> None:
    for row in TABLES.details.rows:
        assert TABLES.details.find(row.name) is row
        assert row.why
        refused = set(row.refuses) | set(row.welcomes)
        assert refused <= set(TABLES.lexicon.index)
        assert not row.unless or TABLES.details.find(row.unless)
    for garment in TABLES.garments.rows:
        assert all(TABLES.details.find(name) for name in garment.details)


@pytest.mark.parametrize(
    ("cloth", "expected"),
    [
        ({"cloth": "cuff rib"}, "suits"),
        ({"cloth": "cotton jersey", "stretch_cross_pct": 60}, "suits"),
        ({"cloth": "cotton jersey", "stretch_cross_pct": 20}, "against"),
        ({"cloth": "cotton poplin"}, "against"),
    ],
)
def test_cuffs_are_judged_as_cuffs(cloth: dict[str, Any], expected: str) -> None:
    pattern = {"structure": "knit", "recommended": "French terry; ribbing for cuffs", "parts": [{"name": "cuffs"}]}
    assert assess_one({"cloth": cloth, "pattern": pattern, "part": "cuffs"})["checks"]["stretch"]["verdict"] == expected


@pytest.mark.parametrize(
    ("words", "name"),
    [
        ("a waterfall hem", "flounce"), ("waterfall front", "cowl"), ("tied cuffs", "zip"), ("shirt cuffs", "shirt band"),
        ("ruffle on collar", "gathers"), ("flutter sleeves", "flutter sleeve"), ("piping", "zip"), ("grown-on sleeve", "zip"),
        ("a drop waist", "zip"), ("three-quarter sleeves", "zip"), ("neck binding", "zip"), ("split hem", "zip"),
        ("a bib", "zip"),
        ("flounce", "flounce"), ("bias seams", "zip"), ("princess seams", "sheath"), ("full skirt", "zip"),
    ],
)  # fmt: skip
def test_details_are_told_apart_by_all_their_words(words: str, name: str) -> None:
    """Common practice, no source: a hem that falls like water is no cowl, tied cuffs are no shirt cuffs."""
    found = TABLES.details.find_within(words)
    assert found is not None
    assert found.name == name


def test_details_go_by_more_than_a_hundred_and_fifty_names() -> None:
    assert len(TABLES.details.by_key) > 150
