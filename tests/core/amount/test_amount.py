"""Amounts: the requirement table, the published width chart, and what is added to it."""

from __future__ import annotations

import math
from dataclasses import replace
from fractions import Fraction

import pytest

from nematex.core.amount.chart import convert_width
from nematex.core.amount.length import amount, least_length_m, round_up_to_cut
from nematex.core.cloth.estimates import Cloth, known_cloth
from nematex.core.cloth.facts import ClothFacts, Print
from nematex.core.cloth.lexicon import ClothType
from nematex.core.errors import UnknownChoice
from nematex.core.pattern.facts import Pattern, Requirement, Wish
from nematex.core.quantity.said import Units
from nematex.tables import trade_tables

TABLES = trade_tables()
CHART = dict(TABLES.width_chart)
SIZES = ("8", "10", "12")
PATTERN = Pattern(
    structure="woven",
    requirements=(Requirement("A", SIZES, 115, 2.4), Requirement("A", SIZES, 150, 1.8), Requirement("B", SIZES, 150, 2.6)),
)


def cloth(width: float = 150, **facts: object) -> Cloth:
    return known_cloth(ClothFacts(cloth="cotton poplin", width_cm=width, shrink_length_pct=0.0, **facts), TABLES)  # type: ignore[arg-type]


# Extension-service fabric width conversion chart, from memory, unverified: yards at 45 in → yards at 60 in, in fractions.
@pytest.mark.parametrize(
    ("at_45", "at_60"), [("1 3/8", "1"), ("1 5/8", "1 1/4"), ("2 1/4", "1 3/4"), ("2 7/8", "2 1/4"), ("3 7/8", "2 7/8")]
)
def test_the_published_chart_is_met_at_its_points(at_45: str, at_60: str) -> None:
    yards_45, yards_60 = (float(sum(Fraction(part) for part in text.split())) for text in (at_45, at_60))
    length = convert_width(yards_45 * 0.9144, 45 * 2.54, 60 * 2.54, CHART)
    assert length / 0.9144 == pytest.approx(yards_60, abs=1e-6)


def test_the_chart_averages_about_the_ratio_of_the_widths() -> None:
    # 44/45 → 58/60 in averages × 0.76, close to 44.5/59 = 0.754 (arithmetic on the chart).
    ratios = [wide / narrow for narrow, wide in zip(CHART[45], CHART[60], strict=True)]
    assert sum(ratios) / len(ratios) == pytest.approx(0.76, abs=0.01)


def test_a_narrower_cloth_never_takes_less() -> None:
    lengths = [convert_width(2.5, 115, width, CHART) for width in (150, 140, 130, 115, 100, 92)]
    assert lengths == sorted(lengths)


def test_the_row_of_the_width_is_taken_as_it_is() -> None:
    found = amount(cloth(150), PATTERN, Wish(view="A", size="10"), TABLES)
    assert found is not None
    assert found.length_m == 1.8
    assert "Table: view A, 1.8 m at 150 cm" in found.receipt[0]


# A loose dress takes 2.2 m at 115 cm and 1.4 m at 150 cm: about 1.5 at 145. Practice figures; common practice, no source.
@pytest.mark.parametrize(("width", "about"), [(150, 1.4), (145, 1.5), (130, 1.9), (115, 2.2)])
def test_between_two_rows_both_bound_the_answer(width: float, about: float) -> None:
    rows = (Requirement("A", (), 115, 2.2), Requirement("A", (), 150, 1.4))
    found = amount(cloth(width), replace(PATTERN, requirements=rows), Wish(), TABLES)
    assert found is not None
    assert found.length_m == pytest.approx(about, abs=0.11)
    assert 1.4 <= found.length_m <= 2.2
    if width in (130, 145):
        assert "between the two" in found.receipt[1]


def test_of_rows_that_contradict_the_widths_a_wider_one_never_asks_more() -> None:
    rows = (Requirement("A", (), 115, 2.0), Requirement("A", (), 150, 2.6))
    found = amount(cloth(130), replace(PATTERN, requirements=rows), Wish(), TABLES)
    assert found is not None
    assert found.length_m == 2.0


def test_beyond_the_chart_the_area_decides() -> None:
    # A 5 yd figure at 45 in was cut from 2 yd at 115 in. Practice figure; common practice, no source.
    rows = (Requirement("A", (), 45 * 2.54, 5 * 0.9144),)
    found = amount(cloth(115 * 2.54), replace(PATTERN, requirements=rows), Wish(), TABLES)
    assert found is not None
    assert found.length_m == pytest.approx(2 * 0.9144, abs=0.15)
    wide_piece = replace(PATTERN, requirements=rows, widest_piece_cm=200.0)
    kept = amount(cloth(115 * 2.54), wide_piece, Wish(), TABLES)
    assert kept is not None
    assert kept.length_m > 3  # its pieces do not lie side by side


def test_one_way_print_repeat_and_shrinkage_are_added_in_order() -> None:
    plain = amount(cloth(115), PATTERN, Wish(view="A", size="10"), TABLES)
    printed = replace(cloth(115), print=Print("one-way", 5, 20, 20))
    more = amount(printed, PATTERN, Wish(view="A", size="10"), TABLES)
    shrinking = amount(
        known_cloth(ClothFacts(cloth="linen", width_cm=115, shrink_length_pct=8.0), TABLES),
        PATTERN,
        Wish(view="A", size="10"),
        TABLES,
    )
    assert plain is not None
    assert more is not None
    assert shrinking is not None
    assert plain.length_m == 2.4
    assert more.length_m == pytest.approx(math.ceil((2.4 * 1.15 + 0.2) * 10) / 10)
    assert shrinking.length_m == pytest.approx(math.ceil(2.4 / 0.92 * 10) / 10)
    assert [("One-way" in step, "repeat" in step) for step in more.receipt[1:3]] == [(True, False), (False, True)]


def test_washing_is_bought_with_the_cloth() -> None:
    found = amount(known_cloth(ClothFacts(cloth="linen", width_cm=115), TABLES), PATTERN, Wish(view="A", size="10"), TABLES)
    assert found is not None
    # Linen may shrink up to 8 %, and so much is bought: 2.4 / 0.92 = 2.61 m.
    assert (found.length_m, found.cut_m) == (2.7, 2.4)
    assert found.washing_m == pytest.approx(0.3)
    assert any("up to 8 %, and so much is reckoned with: 2.61 m before the wash" in step for step in found.receipt)
    assert "2.4 m if it is washed already" in found.receipt[-1]
    firm = amount(cloth(115), PATTERN, Wish(view="A", size="10"), TABLES)  # it shrinks nothing
    assert firm is not None
    assert (firm.length_m, firm.cut_m) == (2.4, 2.4)


@pytest.mark.parametrize("kind", TABLES.lexicon.types, ids=lambda kind: kind.name)
def test_what_is_said_to_shrink_is_bought(kind: ClothType) -> None:
    """Of whatever is washed first, what is left after the most that is said of it is enough."""
    found = amount(known_cloth(ClothFacts(cloth=kind.name, width_cm=115), TABLES), PATTERN, Wish(view="A", size="10"), TABLES)
    assert found is not None
    wool = known_cloth(ClothFacts(cloth=kind.name), TABLES).is_wool
    if kind.shrink_hi_pct >= TABLES.judging.cautions.shrinks_from_pct and not wool:
        assert found.length_m * (1 - kind.shrink_hi_pct / 100) >= 2.4 - 1e-9
    assert found.length_m >= 2.4


def test_without_a_size_it_is_never_short() -> None:
    rows = (Requirement("A", ("8",), 150, 1.5), Requirement("A", ("20",), 150, 2.5))
    found = amount(cloth(150), replace(PATTERN, requirements=rows), Wish(), TABLES)
    assert found is not None
    assert found.length_m == 2.5
    assert "No size chosen" in found.receipt[0]


def test_extra_wide_cloth_takes_no_more_and_says_to_lay_it_out() -> None:
    wide, usual = (amount(cloth(width), PATTERN, Wish(view="B", size="8"), TABLES) for width in (280, 150))
    assert wide is not None
    assert usual is not None
    assert wide.length_m <= usual.length_m
    assert any("Lay them out before you cut" in step for step in wide.receipt)


def test_a_size_that_is_not_there_names_the_choices() -> None:
    with pytest.raises(UnknownChoice, match=r"size: '44'.*8, 10, 12"):
        amount(cloth(), PATTERN, Wish(view="A", size="44"), TABLES)


@pytest.mark.parametrize(("metres", "cut"), [(0.2, 0.5), (1.0, 1.0), (1.01, 1.1), (2.3000001, 2.3), (2.31, 2.4)])
def test_the_cut_rounds_up_to_ten_centimetres(metres: float, cut: float) -> None:
    assert round_up_to_cut(metres, 10, 50) == pytest.approx(cut)


def test_a_row_for_every_size_stands_beside_rows_for_some() -> None:
    # The envelope's own row for 115 cm is the answer at 115 cm, whatever another row says of one size.
    rows = (Requirement("A", ("10",), 140, 2.0), Requirement("A", (), 115, 2.6))
    found = amount(cloth(115), replace(PATTERN, requirements=rows), Wish(view="A", size="10"), TABLES)
    assert found is not None
    assert found.length_m == 2.6


# The receipt in full: each step with its number, from the row to the cut. The words are our own.
@pytest.mark.parametrize(
    ("facts", "wish", "receipt"),
    [
        (
            {"width": 150},
            Wish(view="a ", size="10"),
            (
                "Table: view A, 1.8 m at 150 cm, without nap.",
                "Rounded up to what is cut (10 cm steps, from 50 cm): 1.8 m.",
            ),
        ),
        (
            {"width": 148},  # within the slack of the class of width
            Wish(),
            (
                "No view chosen: reckoned for view A.",
                "No size chosen: reckoned for size 12.",
                "Table: view A, 1.8 m at 150 cm, without nap.",
                "Rounded up to what is cut (10 cm steps, from 50 cm): 1.8 m.",
            ),
        ),
        (
            {"width": 115, "print": Print("one-way", 5, 20, 20)},
            Wish(view="A", size="8"),
            (
                "Table: view A, 2.4 m at 115 cm, without nap.",
                "One-way print, and the table is without nap: 15 % more, 2.76 m; 2.4 m if its direction is not followed.",
                "Pattern repeat 20 cm: one repeat more to match, 2.96 m.",
                "Rounded up to what is cut (10 cm steps, from 50 cm): 3 m.",
            ),
        ),
        (
            {"width": 115, "nap": True},
            Wish(view="A", size="8"),
            (
                "Table: view A, 2.4 m at 115 cm, without nap.",
                "Nap, and the table is without nap: 15 % more, 2.76 m.",
                "Rounded up to what is cut (10 cm steps, from 50 cm): 2.8 m.",
            ),
        ),
        (
            {"width": 280},
            Wish(view="A", size="8"),
            (
                "Table: view A, 1.8 m at 150 cm, without nap.",
                "The cloth is 280 cm wide: 1.77 m by the width chart (extension-service handout, from memory).",
                "Beyond 160 cm the area decides, as long as the pieces lie side by side (common practice): 0.96 m. "
                "Lay them out before you cut; never below the longest piece.",
                "Rounded up to what is cut (10 cm steps, from 50 cm): 1 m.",
            ),
        ),
        (
            {"width": 90},
            Wish(view="A", size="8"),
            (
                "Table: view A, 2.4 m at 115 cm, without nap.",
                "The cloth is 90 cm wide: 2.99 m by the width chart (extension-service handout, from memory).",
                "Rounded up to what is cut (10 cm steps, from 50 cm): 3 m.",
            ),
        ),
    ],
)
def test_the_receipt_says_every_step(facts: dict[str, object], wish: Wish, receipt: tuple[str, ...]) -> None:
    found = amount(cloth(**facts), PATTERN, wish, TABLES)  # type: ignore[arg-type]
    assert found is not None
    assert found.receipt == receipt


def test_a_row_with_nap_is_taken_for_a_one_way_cloth() -> None:
    rows = (Requirement("A", (), 115, 2.4), Requirement("A", (), 115, 2.9, with_nap=True))
    for facts, length in (({}, 2.4), ({"nap": True}, 2.9), ({"print": Print("one-way")}, 2.9)):
        found = amount(cloth(115, **facts), replace(PATTERN, requirements=rows), Wish(), TABLES)
        assert found is not None
        assert found.length_m == length
        assert found.receipt == (
            f"Table: view A, {length} m at 115 cm, {'with' if facts else 'without'} nap.",
            f"Rounded up to what is cut (10 cm steps, from 50 cm): {length} m.",
        )


def test_a_known_shrinkage_is_bought_with_the_cloth() -> None:
    # 1 − 3 % of the length is left: 2.4 / 0.97 = 2.474 m; 1 % is 2.424 m.
    for percent, length_m, cut_m in ((3.0, "2.47", 2.5), (1.0, "2.42", 2.5), (0.4, "2.41", 2.5)):
        facts = ClothFacts(cloth="cotton poplin", width_cm=115, shrink_length_pct=percent)
        found = amount(known_cloth(facts, TABLES), PATTERN, Wish(view="A", size="8"), TABLES)
        assert found is not None
        said = f"Washed first, as it should be. Shrinks {percent:g} % in length: {length_m} m before the wash."
        assert found.receipt[1] == said
        assert found.length_m == cut_m


def test_repeats_below_the_least_are_not_matched() -> None:
    least = TABLES.judging.print.match_from_cm
    lengths = []
    for repeat in (least - 0.5, least):
        found = amount(cloth(115, print=Print("two-way", 1, repeat, repeat)), PATTERN, Wish(view="A"), TABLES)
        assert found is not None
        lengths.append(found.length_m)
    assert lengths == [2.4, pytest.approx(math.ceil((2.4 + least / 100) * 10) / 10)]


def test_no_table_or_a_part_alone_has_no_amount() -> None:
    lining = (Requirement("A", SIZES, 150, 1.1, use="lining"),)
    assert amount(cloth(), replace(PATTERN, requirements=()), Wish(), TABLES) is None
    assert amount(cloth(), replace(PATTERN, requirements=lining), Wish(), TABLES) is None
    assert amount(cloth(), PATTERN, Wish(part="sleeve"), TABLES) is None


def test_the_least_of_a_table_is_what_must_be_in_stock() -> None:
    lining = Requirement("A", SIZES, 150, 1.1, use="lining")
    assert least_length_m(replace(PATTERN, requirements=(*PATTERN.requirements, lining))) == 1.8
    assert least_length_m(replace(PATTERN, requirements=(lining,))) == 1.0


def test_beyond_the_chart_s_ends_the_share_goes_on() -> None:
    # Arithmetic on the chart: below its first and above its last row the ratio of that row is kept.
    first, last = CHART[60][0] / CHART[45][0], CHART[60][-1] / CHART[45][-1]
    assert convert_width(0.1, 45 * 2.54, 60 * 2.54, CHART) == pytest.approx(0.1 * first)
    assert convert_width(20.0, 45 * 2.54, 60 * 2.54, CHART) == pytest.approx(20.0 * last)


def test_a_print_is_followed_or_not_as_the_shop_has_it() -> None:
    printed = cloth(115, print=Print("one-way"))
    asked = Wish(view="A", size="8")
    lengths = {}
    for followed in (None, True, False):
        found = amount(replace(printed, follow_print=followed), PATTERN, asked, TABLES)
        assert found is not None
        lengths[followed] = (found.length_m, found.receipt[1])
    assert lengths[True] == (2.8, "One-way print, and the table is without nap: 15 % more, 2.76 m.")
    assert lengths[None][0] == 2.8
    assert lengths[False] == (2.4, "One-way print, not followed as the shop has it: no more; followed it would be 2.76 m.")
    velvet = amount(replace(printed, nap=True, follow_print=False), PATTERN, asked, TABLES)
    assert velvet is not None
    assert velvet.length_m == 2.8  # a nap has no choice


def test_each_step_says_where_it_is_from_and_what_it_changes() -> None:
    found = amount(cloth(130, print=Print("one-way", 5, 20, 20)), PATTERN, Wish(view="A", size="8"), TABLES)
    assert found is not None
    assert [step.source for step in found.steps] == [
        "the envelope", "common practice, no source", "laid pieces, own figures", "common practice, no source", "the shop's cut"
    ]  # fmt: skip
    assert found.steps[0].before_m is None
    assert all(one.after_m == other.before_m for one, other in zip(found.steps, found.steps[1:], strict=False))
    assert found.steps[-1].after_m == found.length_m


# A yard is 0.9144 m (1959 agreement): eighths of it are 11.43 cm.
@pytest.mark.parametrize(("step", "least", "cut"), [(91.44 / 8, 45.72, 2.4003), (91.44 / 4, 22.86, 2.5146), (5.0, 20.0, 2.35)])
def test_a_cloth_is_cut_as_its_shop_cuts_it(step: float, least: float, cut: float) -> None:
    rows = (Requirement("A", (), 115, 2.31),)
    found = amount(
        replace(cloth(115), cut_step_cm=step, least_cut_cm=least), replace(PATTERN, requirements=rows), Wish(), TABLES
    )
    assert found is not None
    assert found.length_m == pytest.approx(cut)
    assert f"{'5 cm' if step == 5 else '1/8 yd' if step < 12 else '1/4 yd'} steps" in found.receipt[-1]


def test_a_receipt_in_yards() -> None:
    found = amount(cloth(115), PATTERN, Wish(view="A", size="8"), TABLES, Units.IMPERIAL)
    assert found is not None
    assert found.receipt[0] == "Table: view A, 2 5/8 yd at 45 in, without nap."  # 2.4 m = 2.625 yd, rounded up to an eighth


def test_each_use_of_the_table_is_an_amount_of_its_own() -> None:
    rows = (*PATTERN.requirements, Requirement("A", SIZES, 140, 0.6, use="contrast"))
    found = amount(cloth(140), replace(PATTERN, requirements=rows), Wish(view="A", size="8"), TABLES, use="contrast")
    assert found is not None
    assert found.length_m == 0.6
