"""Amounts between the first and the last size that an envelope gives."""

from hypothesis import given
from hypothesis import strategies as st

from nematex.core.amount.length import amount
from nematex.core.cloth.estimates import known_cloth
from nematex.core.cloth.facts import ClothFacts
from nematex.core.pattern.facts import Pattern, Requirement, Wish
from nematex.core.pattern.paste import read_paste
from nematex.tables import trade_tables

TABLES = trade_tables()
PASTED = "Gannet skirt\nSizes 8 - 16\nWaist 64 68 72 77 82 cm\nFabric 140 cm wide: size 8 {first}, size 16 {last}\n"


@given(st.integers(60, 300), st.integers(0, 200))
def test_between_the_first_and_the_last_size_nothing_is_too_little_and_it_is_said(first_cm: int, more_cm: int) -> None:
    """An envelope that says two amounts: those between rise, rounded up to 5 cm (common practice, no source)."""
    first, last = first_cm / 100, (first_cm + more_cm) / 100
    rows = read_paste(PASTED.format(first=f"{first:.2f} m", last=f"{last:.2f} m"), TABLES).requirements
    assert [row["sizes"] for row in rows] == [["8"], ["10"], ["12"], ["14"], ["16"]]
    lengths = [row["length_m"] for row in rows]
    assert lengths == sorted(lengths)
    assert (lengths[0], lengths[-1]) == (first, last)
    assert all(length >= first + (last - first) * place / 4 - 1e-9 for place, length in enumerate(lengths))
    assert [row.get("reckoned", False) for row in rows] == [False, True, True, True, False]


def test_a_reckoned_amount_says_so_on_its_receipt() -> None:
    rows = read_paste(PASTED.format(first="1.5 m", last="2.3 m"), TABLES).requirements
    pattern = Pattern(requirements=tuple(Requirement(**{**row, "sizes": tuple(row["sizes"])}) for row in rows))
    cloth = known_cloth(ClothFacts(cloth="cotton lawn", width_cm=140.0), TABLES)
    said = {size: amount(cloth, pattern, Wish(size=size), TABLES) for size in ("8", "12")}
    words = {size: " ".join(found.receipt) for size, found in said.items() if found}
    assert "12 is reckoned between" in words["12"]
    assert "reckoned between" not in words["8"]
