"""Envelopes as they are printed: views under any name, stars for nap, several ranges, rows that are not the main cloth.

How envelopes are printed is common practice, no source; lengths are arithmetic from the 1959 agreement (1 yd = 0.9144 m,
1 in = 2.54 cm). The envelopes are invented.
"""

from __future__ import annotations

import pytest

from nematex.core.beneath.notions import Notion, read_notions
from nematex.core.pattern.paste import Draft, read_paste
from nematex.core.pattern.paste.sizes import read_sizes
from nematex.tables import trade_tables
from nematex.usecases.pattern.form import _sizes
from nematex.usecases.pattern.pasted import paste_into

DRESSES = """Dress A / Dress B / Tunic C
Suggested fabrics: cotton lawn, challis, crepe. Not suitable for knits or obvious diagonals. Extra cloth is needed to match.
Sizes 10 12 14 16
Dress A
45" *** 3 1/2 3 5/8 3 3/4 4 yds
Tunic C
45"* 2 1/2 2 1/2 2 5/8 2 3/4 yds
Contrast B
45" 1/2 1/2 1/2 1/2 yd
Interfacing A, B
20" 1 1 1 1 yd
{legend}
Bust 32 1/2 34 36 38 in
"""


def read(text: str) -> Draft:
    return read_paste(text, trade_tables())


def rows(draft: Draft, **wanted: str) -> list[dict[str, object]]:
    return [row for row in draft.requirements if all(row[name] == value for name, value in wanted.items())]


def test_views_under_the_names_of_garments_have_rows_of_their_own() -> None:
    draft = read(DRESSES.format(legend=""))
    assert [row["length_m"] for row in rows(draft, view="A", use="main")] == pytest.approx([3.2004, 3.3147, 3.429, 3.6576])
    assert rows(draft, view="C", use="main")[0]["length_m"] == pytest.approx(2.286)
    assert rows(draft, view="C", use="main")[0]["sizes"] == ["10", "12"]
    assert not [line.text for line in draft.unread]


def test_contrast_and_interfacing_never_become_the_main_amount() -> None:
    """Handed down: half a yard of contrast was taken as the cloth for shorts."""
    draft = read(DRESSES.format(legend=""))
    assert not rows(draft, view="B", use="main")
    assert rows(draft, view="B", use="contrast")[0]["length_m"] == pytest.approx(0.4572)
    assert {row["view"] for row in rows(draft, use="interfacing")} == {"A", "B"}
    assert rows(draft, use="interfacing")[0]["width_cm"] == pytest.approx(50.8)


@pytest.mark.parametrize(
    ("legend", "three", "one"),
    [("", False, True), ("* without nap ** with nap *** with or without nap", False, False), ("*** with nap", True, True)],
)
def test_stars_beside_a_width_mean_what_the_envelope_says(legend: str, three: bool, one: bool) -> None:
    draft = read(DRESSES.format(legend=legend))
    assert rows(draft, view="A", use="main")[0]["with_nap"] is three
    assert rows(draft, view="C", use="main")[0]["with_nap"] is one


def test_what_is_ruled_out_ends_where_its_sentence_ends() -> None:
    draft = read(DRESSES.format(legend=""))
    assert draft.texts["recommended"] == "cotton lawn, challis, crepe."
    assert draft.texts["avoid"] == "knits or obvious diagonals."
    draft = read("Not suitable for: knits, velvet. Allow extra cloth for one-way prints.\n")
    assert draft.texts["avoid"] == "knits, velvet."
    assert draft.texts["notes"] == "Allow extra cloth for one-way prints."


def test_several_widths_of_a_view_on_one_line() -> None:
    draft = read('View A 45": 3 3/8 yds, 60": 2 5/8 yds\nView B 45": 3 yds, 60": 2 1/4 yds\n')
    assert [(row["view"], row["width_cm"], row["length_m"]) for row in draft.requirements] == [
        ("A", 114.3, pytest.approx(3.0861)),
        ("A", 152.4, pytest.approx(2.4003)),
        ("B", 114.3, pytest.approx(2.7432)),
        ("B", 152.4, pytest.approx(2.0574)),
    ]


@pytest.mark.parametrize(
    ("text", "labels"),
    [
        ("00 to 8", ["00", "0", "2", "4", "6", "8"]),
        ("3 months to 4 years", ["3m", "6m", "9m", "12m", "18m", "2y", "3y", "4y"]),
        ("6-18 months", ["6m", "9m", "12m", "18m"]),
        ("4 to 7 years", ["4y", "5y", "6y", "7y"]),
        ("34-38 / 40-44", ["34", "36", "38", "40", "42", "44"]),
    ],
)
def test_sizes_as_they_are_printed(text: str, labels: list[str]) -> None:
    assert read_sizes(text) == labels


def test_bands_that_overlap_are_each_whole() -> None:
    draft = read("Sizes 0-16 and 12-32\nBust " + " ".join(str(80 + at) for at in range(20)) + " cm\n")
    bands = [size["label"] for size in draft.sizes]
    assert bands[:9] == ["0", "2", "4", "6", "8", "10", "12", "14", "16"]
    assert bands[9:12] == ["12 (12–32)", "14 (12–32)", "16 (12–32)"]
    assert len(bands) == 20
    assert draft.sizes[9]["bust_cm"] == 89


def test_sizes_of_another_country_are_not_a_second_band() -> None:
    draft = read("Sizes 8 10 12 14\nEU 34 36 38 40\n")
    assert [size["label"] for size in draft.sizes] == ["8", "10", "12", "14"]


@pytest.mark.parametrize(
    ("line", "percent"),
    [
        ('4" must stretch to 5 1/2"', 37),
        ("10 cm stretches to 14 cm", 40),
        ("10 cm should stretch to at least 15 cm", 50),
    ],
)
def test_a_stretch_gauge_in_words(line: str, percent: float) -> None:
    assert read(line).numbers["min_stretch_cross_pct"] == percent


def test_a_recommendation_without_a_heading() -> None:
    draft = read("Tern smock\nLightweight cottons, lawn and voile work best.\n")
    assert draft.texts["recommended"] == "Lightweight cottons, lawn and voile work best."


@pytest.mark.parametrize(
    ("words", "row"),
    [
        ('five buttons 5/8"', Notion('five buttons 5/8"', "button", 5, None, 1.59)),
        ('1/4" elastic 1 1/8 yd (B)', Notion('1/4" elastic 1 1/8 yd (B)', "elastic", None, 102.9, 0.64, ("B",))),
        ("zip 20 cm for view A", Notion("zip 20 cm for view A", "zip", None, 20.0, None, ("A",))),
        ("a dozen press studs", Notion("a dozen press studs", "snap", 12)),
    ],
)
def test_notions_in_words_fractions_and_by_view(words: str, row: Notion) -> None:
    assert read_notions(words) == [row]


def test_a_name_is_one_line_and_recommended_alone_is_a_heading() -> None:
    found = read_paste("Name: Whirligig\nRecommended: lawn\nSizes 8 10", trade_tables())
    assert (found.texts["name"], found.texts["recommended"]) == ("Whirligig", "lawn")


def test_a_level_in_the_title_two_facts_on_a_line_and_stars_beside_each_width() -> None:
    found = read_paste(
        'Tunic and dresses · easy\nSizes 8 to 12. Bust 32 1/2, 34, 36 in\nDress A 45"***: 3 3/8 yds, 60"***: 2 5/8 yds\n',
        trade_tables(),
    )
    assert (found.texts["name"], found.texts["difficulty"]) == ("Tunic and dresses", "easy")
    assert [(size["label"], size["bust_cm"]) for size in found.sizes] == [("8", 82.5), ("10", 86.4), ("12", 91.4)]
    assert [(row["width_cm"], row["length_m"]) for row in found.requirements] == [(114.3, 3.0861), (152.4, 2.4003)]
    assert not found.unread


def test_sizes_without_measurements_are_kept_by_the_form() -> None:
    """What the form was filled with from an envelope is read back as it was."""
    values, _ = paste_into({"envelope": "Knot trousers\nDenim, linen.\nSizes 8 10 12\n140 cm: 2 2 2.1 m"}, trade_tables(), ())
    assert [size["label"] for size in _sizes(values["sizes"], trade_tables())] == ["8", "10", "12"]
