"""Amounts over the sizes and widths, what helps where there is too little. Arithmetic on tables; common practice, no source."""

from __future__ import annotations

from dataclasses import replace

import pytest

from nematex.core.amount.fixes import Fix, fixes
from nematex.core.amount.sizes import by_size, grouped, largest_within, packet_of, spread
from nematex.core.amount.widths import over_width
from nematex.core.cloth.estimates import Cloth, known_cloth
from nematex.core.cloth.facts import ClothFacts, Print
from nematex.core.pattern.facts import Pattern, Requirement, Size, Wish
from nematex.tables import trade_tables

TABLES = trade_tables()
LABELS = ("8", "10", "12", "14", "16")
DRESS = Pattern(
    structure="woven",
    sizes=tuple(Size(label, band="straight" if at < 3 else "curve") for at, label in enumerate(LABELS)),
    requirements=(
        Requirement("A", LABELS[:3], 140, 1.3),
        Requirement("A", LABELS[3:], 140, 1.9),
        Requirement("B", LABELS, 140, 2.6),
    ),
)


def cloth(**facts: object) -> Cloth:
    known = {"cloth": "cotton poplin", "width_cm": 140, "shrink_length_pct": 0.0} | facts
    return known_cloth(ClothFacts(**known), TABLES)  # type: ignore[arg-type]


def test_the_range_over_the_sizes_of_a_view() -> None:
    """'1.3 to 1.9 m for sizes 8 to 28': practice wording."""
    sizes = by_size(cloth(), DRESS, Wish(), TABLES)
    assert [(each.size, each.amount.length_m) for each in sizes] == [
        ("8", 1.3),
        ("10", 1.3),
        ("12", 1.3),
        ("14", 1.9),
        ("16", 1.9),
    ]
    ends = spread(sizes)
    assert ends is not None
    assert [each.amount.length_m for each in ends] == [1.3, 1.9]
    assert [(each.first, each.last, each.length_m) for each in grouped(sizes)] == [("8", "12", 1.3), ("14", "16", 1.9)]
    assert spread(by_size(cloth(), DRESS, Wish(view="B"), TABLES)) is None
    assert [
        each.size for each in by_size(cloth(), replace(DRESS, requirements=(Requirement("A", (), 140, 2.0),)), Wish(), TABLES)
    ] == [""]


def test_the_packet_a_size_is_in() -> None:
    assert packet_of(DRESS, "14") == "curve: 14 to 16"
    assert (
        packet_of(replace(DRESS, sizes=(Size("8", band="6–12"), Size("12", band="6–12"), Size("20", band="14–20"))), "8")
        == "6–12: 8 to 12"
    )
    assert packet_of(replace(DRESS, sizes=tuple(Size(label) for label in LABELS)), "14") == ""
    assert packet_of(DRESS, None) == ""


@pytest.mark.parametrize(("have", "size"), [(1.2, None), (1.3, "12"), (1.85, "12"), (1.9, "16"), (9.0, "16")])
def test_the_largest_size_a_length_makes(have: float, size: str | None) -> None:
    found = largest_within(by_size(cloth(), DRESS, Wish(), TABLES), have)
    assert (found.size if found else None) == size


def test_what_helps_where_there_is_too_little() -> None:
    asked = Wish(view="A", size="16")
    assert fixes(cloth(), DRESS, asked, 1.9, TABLES) == []
    assert fixes(cloth(), DRESS, asked, 1.5, TABLES) == [Fix("size", "12", 1.3)]
    assert fixes(cloth(), DRESS, asked, 0.9, TABLES) == []
    assert fixes(cloth(), DRESS, Wish(view="B", size="12"), 1.5, TABLES) == [Fix("view", "A", 1.3)]
    printed = cloth(print=Print("one-way"))  # 6 % more at this width: 2.014, cut 2.1
    assert fixes(printed, DRESS, asked, 1.95, TABLES)[0] == Fix("print", "", 1.9)
    linen = cloth(cloth="linen", shrink_length_pct=None)  # 4 % is bought for the wash: 1.98, cut 2.0
    assert fixes(linen, DRESS, asked, 1.9, TABLES)[0] == Fix("washed", "", 1.9)


def test_over_the_widths_it_never_takes_more_on_wider_cloth_and_jumps_where_pieces_lie_side_by_side() -> None:
    found = over_width(cloth(), replace(DRESS, widest_piece_cm=110.0), Wish(view="A", size="16"), TABLES)
    assert found is not None
    assert list(found.lengths_m) == sorted(found.lengths_m, reverse=True)
    assert found.jumps_cm == (220.0,)  # two of 110 cm
    assert dict(found.common)[140.0] == found.own[1] == 1.9
    assert over_width(cloth(), replace(DRESS, requirements=()), Wish(), TABLES) is None
