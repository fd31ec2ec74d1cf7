"""Colours: CIEDE2000 against its published pairs, the transfer curves against their standard, and the words for colours."""

from __future__ import annotations

import csv

import numpy as np
import pytest
from conftest import PUBLISHED
from hypothesis import given
from hypothesis import strategies as st

from nematex.core.colour.difference import (
    delta_e,
    lab_from_srgb,
    linear_from_srgb,
    nearest_name,
    oklab_from_linear,
    read_hex,
    srgb_from_linear,
    to_hex,
)
from nematex.core.colour.words import LONGEST, UnknownColours, read_colours, read_palette
from nematex.core.errors import FieldFault
from nematex.tables import colour_names, colour_words

PAIRS = PUBLISHED / "ciede2000.csv"


def _pairs() -> list[tuple[int, list[float]]]:
    lines = [line for line in PAIRS.read_text(encoding="utf-8").splitlines() if not line.startswith("#")]
    return [(at, [float(cell) for cell in row]) for at, row in enumerate(list(csv.reader(lines))[1:], 1)]


@pytest.mark.parametrize(("row", "pair"), _pairs())
def test_ciede2000_gives_the_published_pairs(row: int, pair: list[float]) -> None:
    # Sharma, Wu, Dalal 2005, table 1; row 14 lies on the jump of the hue's arctangent: both branches are right there.
    allowed = (4.8045, 4.7461) if row == 14 else (pair[6],)
    found = float(delta_e(pair[:3], pair[3:6]))
    assert any(found == pytest.approx(each, abs=1e-4) for each in allowed)


def test_every_pair_is_there() -> None:
    assert len(_pairs()) == 34


@pytest.mark.parametrize(
    ("srgb", "word"), [((20, 20, 22), "black"), ((30, 40, 72), "navy"), ((250, 250, 247), "white"), ((200, 152, 43), "mustard")]
)
def test_colours_have_names(srgb: tuple[int, int, int], word: str) -> None:
    assert nearest_name(srgb, colour_names()).name == word


def test_names_are_told_apart_by_eye() -> None:
    lab = lab_from_srgb([each.srgb for each in colour_names()])
    far = delta_e(lab[:, None], lab[None])
    assert far[far > 0].min() > 2.0


# IEC 61966-2-1 (from memory): the curve's two parts meet at 0.04045, where the linear value is 0.0031308.
@pytest.mark.parametrize(("srgb", "linear"), [(0.0, 0.0), (0.04045, 0.0031308), (0.5, 0.2140411), (1.0, 1.0)])
def test_the_curve_of_srgb_is_the_standards(srgb: float, linear: float) -> None:
    assert float(linear_from_srgb(srgb)) == pytest.approx(linear, abs=1e-6)
    assert float(srgb_from_linear(linear)) == pytest.approx(srgb, abs=1e-5)


@given(st.lists(st.floats(0, 1), min_size=2, max_size=2, unique=True))
def test_the_curve_rises_and_comes_back(values: list[float]) -> None:
    low, high = sorted(values)
    assert float(linear_from_srgb(low)) <= float(linear_from_srgb(high))
    assert float(srgb_from_linear(linear_from_srgb(low))) == pytest.approx(low, abs=1e-6)


def test_light_outside_is_cut() -> None:
    assert srgb_from_linear([-1.0, 2.0]).tolist() == pytest.approx([0.0, 1.0])


# Ottosson's published check of OKLab for white, and for red (from memory, to three places).
@pytest.mark.parametrize(
    ("linear", "lab"), [((1, 1, 1), (1, 0, 0)), ((1, 0, 0), (0.628, 0.225, 0.126)), ((0, 0, 0), (0, 0, 0))]
)
def test_oklab_of_white_red_and_black(linear: tuple[float, ...], lab: tuple[float, ...]) -> None:
    assert np.allclose(oklab_from_linear(linear), lab, atol=1e-3)


@given(st.tuples(*[st.integers(0, 255)] * 3))
def test_a_code_comes_back_and_a_colour_is_nearest_to_itself(srgb: tuple[int, int, int]) -> None:
    assert read_hex(to_hex(srgb)) == srgb == read_hex(f" {to_hex(srgb).upper()[1:]} ")
    assert float(delta_e(lab_from_srgb(srgb), lab_from_srgb(srgb))) == 0.0


@pytest.mark.parametrize("text", ["", "#12345", "#1234567", "rust", "#12345g", "##123456", "#１２３４５６"])
def test_what_is_no_code_is_named(text: str) -> None:
    with pytest.raises(FieldFault, match="write it like #24404a"):
        read_hex(text)


def test_every_name_is_nearest_to_its_own_colour() -> None:
    for each in colour_names():
        assert nearest_name(each.srgb, colour_names()).srgb == each.srgb


@pytest.mark.parametrize(
    ("text", "colours"),
    [
        ("sage", ("#a0ad8f",)),
        ("petrol rust lilac", ("#1f444f", "#a4452a", "#c6b0d9")),
        ("Navy / Off-white", ("#1d2746", "#f3ecd9")),
        ("#24404a and rust", ("#24404a", "#a4452a")),
    ],
)
def test_colour_words_become_colours(text: str, colours: tuple[str, ...]) -> None:
    assert read_colours(text, "colours", colour_words()).colours == colours


def test_every_colour_word_stands_for_a_colour_of_the_table() -> None:
    words = colour_words()
    assert set(words.others.values()) <= set(words.names)
    assert all(read_palette(word, words).colours == (code,) for word, code in words.by_word.items())


def test_a_word_that_is_no_colour_is_named_with_the_nearest() -> None:
    with pytest.raises(UnknownColours, match="sage") as fault:
        read_colours("rust and sagge", "colours", colour_words())
    assert fault.value.palette.colours == ("#a4452a",)


@pytest.mark.parametrize(
    "between", [", ", "; ", " / ", " | ", " + ", " & ", " and ", " with ", " on ", " und ", " et ", " mit ", "\n"]
)
def test_colours_stand_apart_as_people_part_them(between: str) -> None:
    words = colour_words()
    found = read_palette(between.join(("Navy", "rust", "navy")), words)
    assert found.colours == (words.by_word["navy"], words.by_word["rust"])  # each once, in its order
    assert found.by_word
    assert not read_palette("#24404a", words).by_word


def test_a_longer_name_goes_before_a_shorter_one_within_it() -> None:
    words = colour_words()
    longest = [word for word in words.by_word if len(word.split()) > 1]
    assert longest
    for word in longest:
        assert read_palette(word.replace(" ", "-"), words).colours == (words.by_word[word],)


def test_the_words_of_colours_are_said_where_all_of_them_are_words() -> None:
    words = colour_words()
    navy, rust = words.by_word["navy"], words.by_word["rust"]
    assert read_colours(words.said((navy, rust)) or "", "colours", words).colours == (navy, rust)
    assert words.said((navy, "#010203")) is None


def test_a_text_that_is_too_long_is_refused_and_one_that_just_fits_is_read() -> None:
    fits = "rust".ljust(LONGEST)
    assert read_colours(fits, "colours", colour_words()).colours == (colour_words().by_word["rust"],)
    with pytest.raises(FieldFault, match=f"{LONGEST + 1} letters"):
        read_colours(fits + " ", "colours", colour_words())
