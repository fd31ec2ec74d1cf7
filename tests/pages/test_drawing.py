"""What is drawn says what is known: tape strips, swatches to scale, words in both systems."""

from __future__ import annotations

import re
from dataclasses import fields
from decimal import Decimal

import pytest

from nematex.core.air.notes.markup import escape_markdown
from nematex.core.cloth.estimates import known_cloth
from nematex.core.cloth.facts import ClothFacts, Print
from nematex.core.cloth.fibres import read_fibres
from nematex.core.hang.silhouettes import SILHOUETTES
from nematex.core.judging.demand import demand
from nematex.core.judging.pairing import Pairing, pair
from nematex.core.pattern.facts import Pattern, Size, Wish
from nematex.core.pattern.look import Look, look_of
from nematex.store.records import ClothRecord, PatternRecord
from nematex.tables import trade_tables
from nematex.usecases.photo.made_up import made_up
from nematex.usecases.programme.pattern_said import reach
from nematex.usecases.quantity.saying import Voice, hand_word
from nematex.web.drawing.garment import Figure, drawn_figure
from nematex.web.drawing.swatch import swatch, tile
from nematex.web.drawing.tape import strip
from nematex.web.rooms.parts import WITH_DETAILS

TABLES = trade_tables()
FLAGS = ("pockets", "flounce", "knot", "loose")
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


@pytest.mark.parametrize(("direction", "turns"), [("one-way", {0.0}), ("two-way", {0.0, 180.0})])
def test_a_print_lies_as_its_direction_says(direction: str, turns: set[float]) -> None:
    record = ClothRecord(
        "X1", ClothFacts("x", "lawn", print=Print(direction, 1.0)), colours=("#ffffff", "#112233"), print_kind="motif"
    )
    assert {stamp.turn for stamp in tile(record).stamps} <= turns


def test_the_drawing_is_the_cloth_that_the_camera_sees() -> None:
    striped = ClothRecord(
        "S", ClothFacts("s", print=Print("two-way", 1.2, None, 3.0)), colours=("#ffffff", "#000000"), print_kind="stripe"
    )
    made, drawn = made_up(striped), tile(striped)
    period = [width for _, width in made.warp]
    assert period == pytest.approx([width for _, width, _ in drawn.stripes[: len(period)]])
    assert drawn.width / sum(period) == pytest.approx(round(drawn.width / sum(period)))
    assert swatch(ClothRecord("U", ClothFacts("u", "lawn"))).known is False
    printed = ClothRecord(
        "M", ClothFacts("m", "lawn", print=Print("one-way", 2.0)), colours=("#ffffff", "#aa0000"), print_kind="motif"
    )
    places = {(round(each.x, 2), round(each.y, 2)) for each in made_up(printed).placed}
    assert places <= {(stamp.x, stamp.y) for stamp in tile(printed).stamps}


def _figure(name: str, *details: str, bend_cm: float = 2.0) -> Figure:
    return drawn_figure(look_of(Pattern(name=name, garment=name, details=details), TABLES), bend_cm)


def _half(found: Figure) -> float:
    """How far it reaches from its middle, in cm."""
    return max(float(x) for path in found.panels for x in re.findall(r"[ML](-?\d+\.\d) ", path))


@pytest.mark.parametrize("name", [*WITH_DETAILS, *(row.name for row in TABLES.garments.rows)])
def test_every_garment_can_be_drawn(name: str) -> None:
    found = _figure(name)
    assert found.panels
    assert found.box[2] > 40
    assert found.box[3] > 30
    assert {shape.hung for shape in TABLES.shapes if shape.hung} == set(SILHOUETTES)


def test_there_are_a_hundred_garments_and_each_row_is_known_to_the_drawing() -> None:
    rows = TABLES.garments.rows
    assert len(rows) >= 100
    assert {row.layer for row in rows} == {"top", "bottom", "whole", "over", "sleep", "beside"}
    traits = {*(field.name for field in fields(Look)), "length"} - {"kind", "length_cm", "sleeve_cm"}
    assert {trait for row in rows for trait in row.look} <= traits
    values = {(trait, row.value) for trait in TABLES.traits for row in TABLES.traits[trait]}
    drawn_by_name = {("leg", "flared"), ("leg", "close"), ("skirt", "bubble"), ("closure", "open")}
    named = {(trait, value) for row in rows for trait, value in row.look.items() if trait not in ("length", *FLAGS)}
    assert named - values == drawn_by_name


@pytest.mark.parametrize(
    ("one", "other"),
    [
        ("jumpsuit", "playsuit"), ("trousers", "culottes"), ("jacket", "cape"), ("jacket", "gilet"), ("coat", "jacket"),
        ("dressing gown", "kimono"), ("waistcoat", "top"), ("leggings", "trousers"), ("flared trousers", "wide trousers"),
        ("bubble skirt", "gathered skirt"), ("wrap skirt", "skirt"), ("blazer", "bomber jacket"), ("swimsuit", "bodysuit"),
        ("apron", "pinafore"), ("bag", "hat"), ("cardigan", "bolero"), ("shirt dress", "dress"), ("sweatshirt", "tee"),
    ],
)  # fmt: skip
def test_garments_that_a_shopper_tells_apart_are_drawn_apart(one: str, other: str) -> None:
    """Common practice, no source."""
    assert _figure(one).panels != _figure(other).panels or _figure(one).lines != _figure(other).lines


def test_a_dress_that_is_called_a_shift_is_drawn_as_one_and_no_other_layer_is_taken_from_a_name() -> None:
    shift = look_of(Pattern(name="Avocet shift", garment="dress"), TABLES)
    assert (shift.skirt, shift.waist) == ("straight", "none")
    assert look_of(Pattern(name="Coat of Leaves", garment="dress"), TABLES).kind == "dress"


def test_drawings_follow_the_details() -> None:
    told = [
        _figure("dress"), _figure("dress", "full sleeve"), _figure("dress", "sleeveless"), _figure("dress", "tiers"),
        _figure("dress", "shirt collar"), _figure("dress", "button band"), _figure("dress", "wrap front"),
        _figure("dress", "flounce"), _figure("dress", "patch pockets"), _figure("dress", "v neck"), _figure("maxi dress"),
        _figure("dress", "elastic waist"), _figure("dress", "drop waist"), _figure("dress", "flutter sleeve"),
        _figure("dress", "ruffle collar"), _figure("dress", "knot front"), _figure("dress", "three-quarter sleeve"),
    ]  # fmt: skip
    assert len({(one.panels, one.lines, one.dots) for one in told}) == len(told)


def test_a_full_skirt_hangs_closer_in_a_fluid_cloth_and_stands_in_a_stiff_one() -> None:
    fluid, stiff = (_figure("gathered skirt", bend_cm=bend) for bend in (1.0, 3.5))
    assert _half(stiff) > _half(fluid) + 1
    straight = [_figure("pencil skirt", bend_cm=bend).panels for bend in (1.0, 3.5)]
    assert straight[0] == straight[1]


def test_a_tile_repeats_without_a_seam() -> None:
    printed = ClothRecord(
        "M",
        ClothFacts("m", "lawn", print=Print("all-over", 4.0)),
        colours=("#ffffff", "#aa0000", "#0000aa"),
        print_kind="motif",
    )
    one = tile(printed)
    at = {(stamp.x, stamp.y): stamp.turn for stamp in one.stamps}
    over = [(x, y) for x, y in at if x + 2 > one.width and 2 < y < one.height - 2]
    assert over  # a motif that reaches over the right edge stands at the left one as well, turned alike
    for x, y in over:
        assert at[round(x - one.width, 2), y] == at[x, y]


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
    per_quarter = Voice(trade_tables(), price_per="quarter yard").price(Decimal("63.2108"), "GBP")
    assert per_quarter == "£14.45 per quarter yard (£63.21/m, £57.80/yd)"
    assert (
        Voice(trade_tables(), False, price_per="10 cm").price(Decimal("12.5"), "GBP") == "£1.25 per 10 cm (£11.43/yd, £12.50/m)"
    )
    assert Voice(trade_tables()).lead(Voice(trade_tables()).width(140)) == "140 cm"


@pytest.mark.parametrize(
    ("text", "escaped"), [("*loud*", r"\*loud\*"), ("a_b [c] <d>", r"a\_b \[c\] \<d\>"), ("one\n# two", r"one \# two")]
)
def test_a_line_cannot_break_out_of_the_notes(text: str, escaped: str) -> None:
    assert escape_markdown(text) == escaped


def test_the_body_range_leaves_nobody_guessing() -> None:
    record = PatternRecord("X", Pattern(sizes=(Size("8", 84, 66, 90), Size("28", 137, 124, 143))))
    assert reach(record) == ", bust 84 to 137 cm (33 to 54 in), hip 90 to 143 cm (35 to 56 in)"
    assert reach(PatternRecord("X", Pattern())) == ""
