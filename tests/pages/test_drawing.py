"""What is drawn says what is known: tape strips, swatches to scale, words in both systems."""

from __future__ import annotations

from decimal import Decimal

import pytest

from nematex.core.cloth.estimates import known_cloth
from nematex.core.cloth.facts import ClothFacts, Print
from nematex.core.cloth.fibres import read_fibres
from nematex.core.hang.silhouettes import SILHOUETTES
from nematex.core.judging.demand import demand
from nematex.core.judging.pairing import Pairing, pair
from nematex.core.pattern.facts import Pattern, Size, Wish
from nematex.store.records import ClothRecord, PatternRecord
from nematex.tables import trade_tables
from nematex.usecases.quantity.saying import Voice, hand_word
from nematex.web.drawing.garment import HALVES, drawing
from nematex.web.drawing.swatch import swatch
from nematex.web.drawing.tape import strip
from nematex.web.words import markdown, reach

TABLES = trade_tables()
PATTERN = Pattern(structure="woven", recommended="light wovens with drape: lawn, challis")


def paired(look: str = "balanced", **facts: object) -> Pairing:
    cloth = known_cloth(ClothFacts(cloth="cotton lawn", fibres="60% cotton 40% polyester", **facts), TABLES)  # type: ignore[arg-type]
    return pair(cloth, demand(PATTERN, Wish(look=look), TABLES), TABLES)


@pytest.mark.parametrize(
    ("facts", "mark"), [({"bending_length_cm": 2.0}, "solid"), ({"hand": "soft"}, "hatched"), ({}, "dotted")]
)
def test_the_bar_shows_how_it_is_known(facts: dict[str, object], mark: str) -> None:
    pairing = paired(**facts)
    assert strip("drape", pairing.checks["drape"], pairing.cloth, "balanced").mark == mark


def test_positions_are_to_scale_and_stay_on_the_tape() -> None:
    pairing = paired(weight_gsm=100, width_cm=280)
    weight = strip("weight", pairing.checks["weight"], pairing.cloth, "balanced")
    assert weight.bar is not None
    assert sum(weight.bar) / 2 == pytest.approx(20.0, abs=0.1)  # 100 on a tape of 0 to 500
    width = strip("width", pairing.checks["width"], pairing.cloth, "balanced")
    assert width.bar is not None
    assert max(width.bar) <= 100
    fibre = strip("fibre", pairing.checks["fibre"], pairing.cloth, "balanced")
    assert fibre.bar is not None
    assert sum(fibre.bar) / 2 == pytest.approx(60.0, abs=0.1)  # the cotton breathes


def test_the_look_moves_the_notch_and_not_the_band() -> None:
    strips = {}
    for look in ("flowing", "structured"):
        pairing = paired(look)
        strips[look] = strip("drape", pairing.checks["drape"], pairing.cloth, look)
    assert strips["flowing"].band == strips["structured"].band
    assert strips["flowing"].target < strips["structured"].target  # type: ignore[operator]


def test_a_strip_is_said_aloud() -> None:
    pairing = paired()
    label = strip("drape", pairing.checks["drape"], pairing.cloth, "balanced").label
    assert label.startswith("drape: suits.")
    assert "cm" in label


@pytest.mark.parametrize(
    ("direction", "turns"), [("one-way", {0}), ("two-way", {0, 180}), ("all-over", {20, 75, 140, 255, 310})]
)
def test_a_print_lies_as_its_direction_says(direction: str, turns: set[int]) -> None:
    record = ClothRecord(
        "X", ClothFacts("x", "lawn", print=Print(direction, 1.0)), colours=("#ffffff", "#112233"), print_kind="motif"
    )
    assert {motif.turn for motif in swatch(record).motifs} == turns


def test_stripes_and_motifs_are_drawn_in_centimetres() -> None:
    striped = ClothRecord(
        "S", ClothFacts("s", print=Print("two-way", 1.2, None, 3.0)), colours=("#fff", "#000"), print_kind="stripe"
    )
    gaps = [b[0] - a[0] for a, b in zip(swatch(striped).stripes, swatch(striped).stripes[1:], strict=False)]
    assert gaps == pytest.approx([2.88] * len(gaps), abs=0.02)
    assert swatch(ClothRecord("U", ClothFacts("u", "lawn"))).known is False


@pytest.mark.parametrize("name", HALVES)
def test_every_garment_can_be_drawn(name: str) -> None:
    assert drawing(PatternRecord("X", Pattern(name=name, garment=name)), TABLES)
    assert {shape.drawn for shape in TABLES.shapes if shape.drawn} | {"tee"} == set(HALVES)
    assert {shape.hung for shape in TABLES.shapes if shape.hung} == set(SILHOUETTES)


def test_units_and_words_lead_as_the_shop_chose() -> None:
    ours, theirs = Voice(trade_tables()), Voice(trade_tables(), metric_first=False, british=False)
    content = read_fibres("95% viscose 5% elastane", TABLES.fibres)
    assert ours.fibres(content) == "95 % viscose (rayon), 5 % elastane (spandex)"
    assert theirs.fibres(content) == "95 % rayon (viscose), 5 % spandex (elastane)"
    assert ours.weight_range(140, 210) == "140–210 g/m² (4.1–6.2 oz/yd²)"
    assert theirs.width(140) == "55 in (140 cm)"
    assert ours.body_range(90, 143) == "90–143 cm (35–56 in)"


def test_the_hand_word_follows_the_bending_length() -> None:
    assert [hand_word(c, trade_tables()) for c in (1.0, 1.6, 2.2, 2.8, 4.0)] == ["fluid", "soft", "moderate", "crisp", "stiff"]


def test_a_price_names_its_currency_and_of_how_much() -> None:
    # Worked example of the trade (no source): 14.45 per quarter yard is 57.80 a yard.
    assert Voice(trade_tables()).price(Decimal("12.5"), "GBP") == "£12.50/m (£11.43/yd)"
    assert Voice(trade_tables(), metric_first=False).price(Decimal("63.2108"), "") == "57.80/yd (63.21/m)"
    assert Voice(trade_tables()).price(None, "GBP") == ""
    assert Voice(trade_tables()).lead(Voice(trade_tables()).width(140)) == "140 cm"


@pytest.mark.parametrize(
    ("text", "escaped"), [("*loud*", r"\*loud\*"), ("a_b [c] <d>", r"a\_b \[c\] \<d\>"), ("one\n# two", r"one \# two")]
)
def test_a_line_cannot_break_out_of_the_notes(text: str, escaped: str) -> None:
    assert str(markdown(text)) == escaped


def test_the_body_range_leaves_nobody_guessing() -> None:
    record = PatternRecord("X", Pattern(sizes=(Size("8", 84, 66, 90), Size("28", 137, 124, 143))))
    assert reach(record) == ", bust 84 to 137 cm (33 to 54 in), hip 90 to 143 cm (35 to 56 in)"
    assert reach(PatternRecord("X", Pattern())) == ""
