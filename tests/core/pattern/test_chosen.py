"""A view, size or part that is asked for, by the pattern's own names. Common practice, no source."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from nematex.core.pattern.chosen import fitting, rows_for, size_meant, view_meant
from nematex.core.pattern.facts import Option, Part, Pattern, Requirement, Wish


@pytest.mark.parametrize(
    ("asked", "views", "meant"),
    [
        ("B", ["A knee", "B midi"], "B midi"),
        ("b MIDI", ["A knee", "B midi"], "B midi"),
        ("A", ["A knee", "A midi"], None),
        ("A", ["A", "A midi"], "A"),
        ("B midi", ["B"], "B"),
        ("C", ["A", "B"], None),
    ],
)
def test_the_view_meant(asked: str, views: list[str], meant: str | None) -> None:
    assert view_meant(asked, views) == meant


@pytest.mark.parametrize(
    ("asked", "sizes", "meant"),
    [
        ("10", ["8", "10", "12"], "10"),
        ("10", ["S (8-10)", "M (12-14)"], "S (8-10)"),
        ("9", ["S (8-10)", "M (12-14)"], "S (8-10)"),
        ("m", ["S (8-10)", "M (12-14)"], "M (12-14)"),
        ("4", ["1-5", "6-10"], "1-5"),
        ("8", ["6/8", "10/12"], "6/8"),
        ("8", ["6-8", "8-10"], None),
        ("1", ["10", "12"], None),
        ("X", ["XS", "XL"], None),
        ("", ["8-10"], None),
    ],
)
def test_the_size_meant(asked: str, sizes: list[str], meant: str | None) -> None:
    assert size_meant(asked, sizes) == meant


@given(st.lists(st.text("AXSML0123456789-/() ", min_size=1, max_size=9), min_size=1, max_size=6), st.integers(0, 5))
def test_a_size_is_always_found_by_its_own_label(labels: list[str], at: int) -> None:
    label = labels[at % len(labels)]
    found = size_meant(label, labels)
    assert found is not None
    assert found.strip().casefold() == label.strip().casefold()


def _pattern() -> Pattern:
    rows = [
        Requirement("A knee", ("8-12",), 140, 2.0),
        Requirement("B midi", ("8-12",), 140, 2.6),
        Requirement("B", ("8-12",), 140, 1.4, use="lining"),
        Requirement("A", ("8-12",), 90, 0.5, use="interfacing"),
        Requirement("B midi", (), 90, 0.7, use="interfacing"),
    ]
    return Pattern(requirements=tuple(rows), parts=(Part("bodice"),), options=(Option("Ties", views=("B",)), Option("Collar")))


def test_rows_of_every_use_are_found_by_the_letter_of_their_view() -> None:
    pattern = _pattern()
    for view, lining, interfacing in (("B", [1.4], [0.7]), ("B midi", [1.4], [0.7]), ("A", [], [0.5]), ("a knee", [], [0.5])):
        for size in (None, "10", "8-12"):
            wish = Wish(view=view, size=size)
            assert [row.length_m for row in rows_for(pattern, "lining", wish)] == lining
            assert [row.length_m for row in rows_for(pattern, "interfacing", wish)] == interfacing


def test_a_wish_in_the_pattern_s_own_names() -> None:
    asked = Wish(view="b", size="10", part="Bodice", options=("ties", "hood"))
    assert fitting(_pattern(), asked) == Wish(view="B midi", size="8-12", part="bodice", options=("Ties",))
    assert fitting(_pattern(), Wish(view="C", size="40", part="skirt")) == Wish()
