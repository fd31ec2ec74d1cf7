"""A garment in several cloths: each cloth's own amount.

Strips against the worked tier examples (a cutting-room sum, from memory) and plane geometry; that a contrast row is the
envelope's word, and that what is cut elsewhere is not bought twice, is common practice, no source.
"""

from __future__ import annotations

import pytest

from nematex.core.amount.lay.draft import drafted
from nematex.core.amount.lay.pieces import Piece, area_cm2
from nematex.core.amount.length import amount
from nematex.core.amount.several import added_parts, by_part, in_several, length_of_pieces_m, lining_m, tier_names
from nematex.core.cloth.estimates import Cloth, known_cloth
from nematex.core.cloth.facts import ClothFacts, Print
from nematex.core.pattern.facts import Pattern, Requirement, Size, Wish
from nematex.core.pattern.hacks import read_hacks
from nematex.tables import trade_tables

TABLES = trade_tables()
SHIRT = Pattern(
    name="Shirt", garment="shirt", structure="woven", recommended="light to medium wovens",
    details=("shirt collar", "cuffs", "button band"), requirements=(Requirement("A", (), 140, 2.4),),
    sizes=(Size("14", 92.0, 74.0, 100.0),),
)  # fmt: skip
SKIRT = Pattern(
    name="Tiered skirt", garment="skirt", structure="woven", recommended="light wovens", details=("tiers",),
    requirements=(Requirement("A", (), 140, 2.6),),
)  # fmt: skip


def cloth(width_cm: float = 140.0) -> Cloth:
    return known_cloth(ClothFacts(name="lawn", cloth="cotton lawn", width_cm=width_cm, shrink_length_pct=0.0), TABLES)


def box(name: str, along: float, across: float, count: int = 1, kind: str = "single") -> Piece:
    fold = 0.0 if kind == "fold" else None
    return Piece(name, ((0, 0), (along, 0), (along, across), (0, across)), count, kind, fold)  # type: ignore[arg-type]


def test_one_cloth_for_all_parts_takes_what_the_table_says() -> None:
    one = cloth()
    (found,) = in_several(SHIRT, {"body": one, "sleeve": one, "collar": one}, Wish(), TABLES)
    whole = amount(one, SHIRT, Wish(), TABLES)
    assert found.amount is not None
    assert whole is not None
    assert found.amount.length_m == whole.length_m


def test_what_is_cut_from_another_cloth_is_not_bought_twice() -> None:
    body, sleeves = cloth(), cloth()
    first, second = in_several(SHIRT, {"sleeve": sleeves, "body": body}, Wish(), TABLES)
    assert (first.parts, second.parts) == (("body",), ("sleeve",))
    assert first.amount is not None
    assert second.amount is not None
    raw = [step.after_m or 0.0 for each in (first, second) if each.amount for step in each.amount.steps[-2:-1]]
    assert 2.4 - 0.01 <= sum(raw) <= 2.4 + 0.62  # at most the longest sleeve more than in one cloth
    assert raw[0] < 2.4
    assert any("sleeve" in line and "another cloth" in line for line in first.amount.receipt)


def test_a_contrast_row_of_the_envelope_comes_before_a_draft() -> None:
    rows = (Requirement("A", (), 140, 2.4), Requirement("A", (), 140, 0.8, use="contrast"))
    pattern = Pattern(name="S", garment="shirt", structure="woven", details=("shirt collar",), requirements=rows)
    first, second = in_several(pattern, {"body": cloth(), "sleeve": cloth()}, Wish(), TABLES)
    assert (first.amount and first.amount.length_m, second.amount and second.amount.length_m) == (2.4, 0.8)


# Joined length 100, gathered 1.5, depth 30 on 140 cm: 2 widths, 69.0 cm; on 280 cm one width, 34.5 cm.
@pytest.mark.parametrize(("width", "length"), [(140.0, 0.69), (280.0, 0.345)])
def test_an_added_tier_in_a_colour_of_its_own(width: float, length: float) -> None:
    wish = Wish(hacks=("tier(around_cm=100,ratio=1.5,depth_cm=30)", "belt"))
    assert list(added_parts(read_hacks(wish.hacks, TABLES))) == ["added tier", "added belt"]
    body = cloth()
    first, second = in_several(SHIRT, {"body": body, "added tier": cloth(width)}, wish, TABLES)
    assert second.amount is not None
    assert second.amount.steps[0].after_m == pytest.approx(length)
    with_belt = amount(body, SHIRT, Wish(hacks=("belt",)), TABLES)
    assert first.amount is not None
    assert with_belt is not None
    assert first.amount.length_m == with_belt.length_m  # the belt stays, the tier is not bought twice


def test_tiers_in_three_colours_make_up_the_skirt() -> None:
    names = tier_names(SKIRT, Wish(), TABLES)
    assert names == ["tier 1", "tier 2", "tier 3"]
    body = cloth()
    found = in_several(SKIRT, {"body": body, "tier 2": cloth(), "tier 3": cloth()}, Wish(), TABLES)
    assert [each.parts for each in found] == [("body",), ("tier 2",), ("tier 3",)]
    lengths = [each.amount.length_m for each in found if each.amount]
    assert lengths[1] < lengths[2]  # each tier is longer round than the one above
    assert sum(lengths) >= 2.6  # never less than in one cloth


def test_strips_lie_one_after_another_and_nothing_is_shorter_than_its_longest_piece() -> None:
    assert length_of_pieces_m([box("tier", 40, 100, 3)], 140, 0.8) == pytest.approx(1.2)
    assert length_of_pieces_m([box("belt", 180, 10)], 140, 0.8) == pytest.approx(1.8)
    assert length_of_pieces_m([box("p", 20, 35, 16)], 140, 0.8) == pytest.approx(20 * 35 * 16 / (140 * 0.8) / 100)
    assert area_cm2(box("back", 70, 25, kind="fold")) == 2 * 70 * 25
    assert area_cm2(box("sleeve", 60, 40, 2, "pair")) == 2 * 60 * 40


def test_cuffs_go_with_the_sleeves_unless_they_have_a_cloth_of_their_own() -> None:
    pieces = [box("sleeve", 60, 40, 2, "pair"), box("cuff", 24, 13, 2, "pair"), box("back", 70, 50)]
    together = by_part(pieces, ["sleeve"], TABLES)
    assert [piece.id for piece in together["sleeve"]] == ["sleeve", "cuff"]
    apart = by_part(pieces, ["sleeve", "cuffs"], TABLES)
    assert [[piece.id for piece in apart[name]] for name in ("sleeve", "cuffs")] == [["sleeve"], ["cuff"]]


def test_a_full_lining_is_its_fronts_backs_and_sleeves() -> None:
    found = lining_m(SHIRT, Wish(), TABLES)
    whole = length_of_pieces_m(drafted(SHIRT, Wish(), TABLES, 140), 140, TABLES.judging.change.used)
    assert found is not None
    assert 0.8 * whole < found < whole  # without collar, stand, cuffs and pockets


def test_a_part_that_nothing_tells_has_no_amount() -> None:
    _, second = in_several(SHIRT, {"body": cloth(), "contrast": cloth()}, Wish(), TABLES)
    assert second.amount is None


def test_a_large_print_is_matched_on_each_cloth() -> None:
    facts = ClothFacts(name="l", cloth="cotton lawn", width_cm=140, shrink_length_pct=0.0, print=Print(repeat_length_cm=32.0))
    printed = known_cloth(facts, TABLES)
    _, plain = in_several(SHIRT, {"body": cloth(), "sleeve": cloth()}, Wish(), TABLES)
    _, found = in_several(SHIRT, {"body": cloth(), "sleeve": printed}, Wish(), TABLES)
    assert plain.amount is not None
    assert found.amount is not None
    assert (found.amount.steps[1].after_m or 0) - (plain.amount.steps[0].after_m or 0) == pytest.approx(0.32)
