"""Changes to a pattern: strips, rings and squares against worked examples, each change as a line of the receipt, and judged.

Tiers: the worked examples of a cutting-room sum (joined length × ratio over the width less its seams), from memory. Flounce
and bias strip: plane geometry (ring sectors, a square of the strip's area), any textbook.
"""

from __future__ import annotations

from dataclasses import replace
from math import inf, isnan, pi

import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely import Polygon

from nematex.core.amount.hacked import CHANGES, Change, bias_square, flounce, railroaded, rectangles, strips
from nematex.core.amount.lay.draft import drafted
from nematex.core.amount.length import amount
from nematex.core.amount.swap import has_lower_half, numbers_like
from nematex.core.cloth.estimates import Cloth, known_cloth
from nematex.core.cloth.facts import ClothFacts
from nematex.core.errors import FieldFault
from nematex.core.judging.demand import demand
from nematex.core.pattern.facts import Option, Part, Pattern, Requirement, Wish
from nematex.core.pattern.hacks import hacked, read_hack, read_hacks
from nematex.core.pattern.look import look_of
from nematex.tables import trade_tables

TABLES = trade_tables()
DRESS = Pattern(
    name="Column dress", garment="dress", structure="woven", recommended="light to medium wovens", details=("cuffs",),
    parts=(Part("sleeve", "free", ("full sleeve",)),), requirements=(Requirement("A", (), 150, 2.0),),
)  # fmt: skip


def cloth(**facts: object) -> Cloth:
    return known_cloth(ClothFacts(**({"cloth": "cotton lawn", "width_cm": 150, "shrink_length_pct": 0.0} | facts)), TABLES)  # type: ignore[arg-type]


# Joined length C, ratio g, depth D, width W, with 1.5 cm joins and top, 3 cm hem: widths and length in cm.
@pytest.mark.parametrize(
    ("around", "ratio", "depth", "width", "repeat", "widths", "length"),
    [
        (100, 1.5, 30, 140, 0, 2, 69.0),
        (240, 1.75, 35, 110, 24, 4, 183.5),
        (240, 1.75, 35, 150, 0, 3, 118.5),
        (72, 2, 60, 280, 0, 1, 64.5),
    ],
)
def test_gathered_tiers(
    around: float, ratio: float, depth: float, width: float, repeat: float, widths: int, length: float
) -> None:
    assert strips(around * ratio, depth + 4.5, width, repeat) == (widths, pytest.approx(length))


def test_railroaded_tiers() -> None:
    assert railroaded(240 * 1.75, 39.5, 150) == pytest.approx(143.0)
    assert railroaded(72 * 2, 64.5, 280) == pytest.approx(39.0)
    assert railroaded(100, 160, 150) == float("inf")


def test_a_flounce_of_full_rings() -> None:
    """Twice as full at its edge: the inner radius is the depth. 100 cm round it are 100 / (2π·20) rings."""
    rings, length = flounce(100, 20, 2.0, 150)
    assert rings == pytest.approx(100 / (2 * pi * 20))
    assert length == pytest.approx(2 * (20 + 20 + 3))
    assert flounce(400, 20, 2.0, 150)[1] == pytest.approx(4 * 86)  # 3.2 rings, one beside another only on 172 cm
    assert flounce(100, 80, 1.2, 150)[1] == float("inf")


def test_a_bias_strip_from_a_square() -> None:
    assert bias_square(400, 4) == pytest.approx(40 + 3)  # 40 cm square: 1600 cm² are 400 cm of 4


@pytest.mark.parametrize(
    ("count", "length", "across", "width", "takes"), [(2, 60, 9, 150, 9), (8, 20, 18, 150, 20), (1, 180, 11, 150, 180)]
)
def test_rectangles_side_by_side(count: float, length: float, across: float, width: float, takes: float) -> None:
    assert rectangles(count, length, across, width) == takes


def test_every_change_is_a_line_of_the_receipt_and_can_be_taken_back() -> None:
    plain = amount(cloth(), DRESS, Wish(), TABLES)
    assert plain is not None
    for kind in TABLES.hacks.values():
        found = amount(cloth(), DRESS, Wish(hacks=(read_hack(kind.name, TABLES).written(),)), TABLES)
        assert found is not None
        lines = [step for step in found.steps if step.text.startswith("Changed: ")]
        assert len(lines) == 1, kind.name
        by = (lines[0].after_m or 0) - (lines[0].before_m or 0)
        assert (by == 0) == (kind.name not in CHANGES), kind.name
        assert len(found.steps) == len(plain.steps) + 1


def test_by_hand_a_tier_a_belt_and_twenty_centimetres() -> None:
    """On 150 cm: 200 × 1.6 = 320 are 3 widths of 147, 3 × 34.5 = 103.5; 2 m hold two lengths, so 20 cm more are 40."""
    hacks = ("lengthen(by_cm=20)", "tier(around_cm=200,ratio=1.6,depth_cm=30)")
    found = amount(cloth(), DRESS, Wish(hacks=hacks), TABLES)
    assert found is not None
    assert [round(step.after_m or 0, 3) for step in found.steps if step.text.startswith("Changed")] == [2.4, 3.435]
    assert found.length_m == 3.5
    assert found.receipt[1] == "Changed: 20 cm longer: 0.4 m more, 2.4 m."


def test_a_change_is_judged_and_seen() -> None:
    stiff = Wish(hacks=("tier(around_cm=200)",))
    made = demand(DRESS, stiff, TABLES).made
    assert any(detail.name == "gathers" for detail in made.details)
    bare = hacked(DRESS, read_hacks(("no sleeve",), TABLES))
    assert bare.parts == ()
    assert "cuffs" not in bare.details
    assert look_of(bare, TABLES).sleeve == "none"
    assert look_of(DRESS, TABLES).sleeve == "full"
    longer = hacked(DRESS, read_hacks(("lengthen(by_cm=15)",), TABLES))
    assert look_of(longer, TABLES).length_cm == look_of(DRESS, TABLES).length_cm + 15
    piped = replace(DRESS, options=(Option("piping", "", (), ("piping",)),))
    assert hacked(piped, read_hacks(("no piping",), TABLES)).options == ()
    assert hacked(DRESS, read_hacks(("full lining",), TABLES)).lined
    assert "zip 20 cm" in hacked(DRESS, read_hacks(("zip",), TABLES)).notions


def test_a_tier_becomes_a_flounce_and_back() -> None:
    """150 × 1.6 = 240 on 150 cm are 2 widths, 2 × 34.5 = 69; 150 cm round of rings 30 deep and twice as full: one square of
    2 × (30 + 30 + 3) = 126, since 150 / (2π·30) is less than one ring."""
    for kind, by in (("tier to flounce", 0.57), ("flounce to tier", -0.57)):
        written = f"{kind}(around_cm=150,ratio=1.6,depth_cm=30,fullness=2)"
        found = amount(cloth(), DRESS, Wish(hacks=(written,)), TABLES)
        assert found is not None
        step = next(each for each in found.steps if each.text.startswith("Changed"))
        assert (step.after_m or 0) - (step.before_m or 0) == pytest.approx(by)
    made = hacked(DRESS, read_hacks(("tier to flounce",), TABLES))
    assert "flounce" in made.details


def test_a_skirt_takes_the_place_of_the_legs() -> None:
    """Two panels 60 + 4.5 long, (104 + 200) / 2 + 6 of seams wide: 10,191 cm², less the four legs as they are drafted."""
    trousers = Pattern(
        name="T",
        garment="wide trousers",
        structure="woven",
        details=("wide leg",),
        requirements=(Requirement("A", (), 150, 3.0),),
    )
    legs = sum(
        Polygon(piece.outline_cm).area * piece.copies for piece in drafted(trousers, Wish(), TABLES) if piece.id.endswith("leg")
    )
    found = amount(cloth(), trousers, Wish(hacks=("skirt for legs(length_cm=60,hip_cm=104,hem_cm=200)",)), TABLES)
    assert found is not None
    step = next(each for each in found.steps if each.text.startswith("Changed"))
    assert (step.after_m or 0) - 3.0 == pytest.approx((64.5 * 158 - legs) / (150 * 0.82) / 100)
    made = hacked(trousers, read_hacks(("skirt for legs",), TABLES))
    assert (made.garment, look_of(made, TABLES).kind) == ("skirt", "skirt")
    assert look_of(hacked(made, read_hacks(("legs for skirt",), TABLES)), TABLES).kind == "trousers"
    assert demand(trousers, Wish(), TABLES).made.bifurcated
    assert not demand(trousers, Wish(hacks=("skirt for legs",)), TABLES).made.bifurcated


def test_the_lower_half_of_another_pattern_is_swapped_in() -> None:
    """By the area of the drafted pieces alone: what comes less what goes, over the width and the share that is used."""

    def area(pattern: Pattern, *words: str) -> float:
        pieces = [piece for piece in drafted(pattern, Wish(), TABLES) if set(words) & set(piece.id.split())]
        return sum(Polygon(each.outline_cm).area * each.copies * (2 if each.kind == "fold" else 1) for each in pieces)

    suit = Pattern(name="J", garment="jumpsuit", structure="woven", requirements=(Requirement("A", (), 150, 4.0),))
    skirt = Pattern(name="S", garment="skirt", structure="woven", details=("flared skirt",))
    numbers = numbers_like(TABLES.hacks["skirt for legs"], skirt, TABLES)
    written = "skirt for legs(" + ",".join(f"{name}={value}" for name, value in numbers.items()) + ")"
    found = amount(cloth(), suit, Wish(hacks=(written,)), TABLES)
    assert found is not None
    step = next(each for each in found.steps if each.text.startswith("Changed"))
    by_cm2 = area(skirt, "skirt") - area(suit, "leg")
    assert (step.after_m or 0) - 4.0 == pytest.approx(by_cm2 / (150 * 0.82) / 100, abs=0.005)
    with pytest.raises(FieldFault, match="has no such lower half"):
        numbers_like(TABLES.hacks["legs for skirt"], skirt, TABLES)
    assert has_lower_half("legs for skirt", suit, TABLES)


def test_it_never_falls_below_a_tenth_and_a_ring_too_wide_is_said() -> None:
    found = amount(cloth(), DRESS, Wish(hacks=("shorten(by_cm=80)", "shorten(by_cm=79)")), TABLES)
    assert found is not None
    assert found.cut_m >= 0.5
    wide = amount(cloth(width_cm=90), DRESS, Wish(hacks=("flounce(depth_cm=60,fullness=1.2)",)), TABLES)
    assert wide is not None
    assert any("does not lie on 90 cm" in text for text in wide.receipt)


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("banana", "is not a known change"),
        ("tier(depth_cm=900)", "depth in cm: '900' must be from 5 to 120"),
        ("tier(depth_cm=nan)", "'nan' must be from 5 to 120"),
        ("tier(depth_cm=1.2.3)", "is no number"),
        ("tier(colour=3)", "is not a known number of this change"),
        ("tier(", "is no change"),
        ("", "is no change"),
    ],
)
def test_a_change_that_is_none_is_named(text: str, words: str) -> None:
    with pytest.raises(FieldFault, match=words):
        read_hack(text, TABLES)


def test_too_many_changes_are_named() -> None:
    with pytest.raises(FieldFault, match="at most 12"):
        read_hacks(["zip"] * 13, TABLES)


@given(st.text("tierlngh_cmbyp()=,.0123456789 ", max_size=60))
def test_no_text_is_more_than_a_fault(text: str) -> None:
    try:
        found = read_hack(text, TABLES)
    except FieldFault:
        return
    assert found.kind.name in CHANGES


@given(st.sampled_from(sorted(CHANGES)), st.floats(60, 300), st.booleans(), st.floats(0.3, 12))
def test_no_change_is_less_than_nothing_or_not_a_number(name: str, width: float, one_way: bool, now_m: float) -> None:
    hack = read_hack(name, TABLES)
    by = CHANGES[name](Change(hack.numbers, width, one_way, now_m, TABLES.judging.change))
    assert not isnan(by)
    assert by > -inf
    if " to " not in name and " for " not in name:  # one thing in the place of another may take more or less
        assert (by > 0) != (name.startswith(("no ", "drop", "short", "taper")))
