"""Tones, near misses and outfits: counted by hand; distances held against published pairs and a published vocabulary."""

from __future__ import annotations

from itertools import product

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from PIL import ImageColor

from nematex.core.colour.difference import nearest_name, read_hex
from nematex.core.set.outfits import Outfit, Piece, gained, is_neutral, outfits, pairs, without
from nematex.core.set.palette import Coloured, is_monotone, near_misses, palette, ties
from nematex.tables import colour_names, trade_tables

TABLES = trade_tables()
COLOUR, OUTFIT = TABLES.judging.colour, TABLES.judging.outfit

# The named colours of CSS Color Module Level 4 (W3C), as Pillow's ImageColor lists them: the family that their name says.
FAMILY_OF_CSS = {
    "red": "red", "crimson": "red", "firebrick": "red", "darkred": "red", "navy": "blue", "royalblue": "blue",
    "steelblue": "blue", "darkblue": "blue", "forestgreen": "green", "darkgreen": "green", "olivedrab": "green",
    "seagreen": "green", "gold": "yellow", "khaki": "yellow", "orange": "orange", "darkorange": "orange", "purple": "purple",
    "indigo": "purple", "rebeccapurple": "purple", "teal": "teal", "darkcyan": "teal", "hotpink": "pink", "pink": "pink",
    "saddlebrown": "brown", "sienna": "brown", "gray": "grey", "silver": "grey", "black": "black", "white": "white",
    "ivory": "white",
}  # fmt: skip
NEIGHBOURS = {
    ("red", "pink"),
    ("teal", "green"),
    ("orange", "brown"),
    ("yellow", "orange"),
    ("purple", "blue"),
    ("brown", "red"),
}


@pytest.mark.parametrize("name", FAMILY_OF_CSS)
def test_our_colour_words_agree_with_the_w3cs(name: str) -> None:
    said = nearest_name(ImageColor.getrgb(name)[:3], colour_names()).family
    family = FAMILY_OF_CSS[name]
    assert said == family or (family, said) in NEIGHBOURS or (said, family) in NEIGHBOURS, said


def cloth(place: int, *colours: str, printed: bool = False) -> Coloured:
    return Coloured(place, f"cloth {place}", colours, printed)


def test_a_palette_gathers_tones_and_puts_the_most_worn_first() -> None:
    """Three on one navy (grounds within a hair and a print's colour), one on rust, one ground by itself."""
    cloths = [
        cloth(0, "#1f2a44"),
        cloth(1, "#202b46"),
        cloth(2, "#f2ead9", "#1f2a44", "#a0522d", printed=True),
        cloth(3, "#a0522d"),
    ]
    found = palette(cloths, COLOUR)
    assert [(tone.colour, len(tone.grounds), len(tone.prints)) for tone in found] == [
        ("#1f2a44", 2, 1),
        ("#a0522d", 1, 1),
        ("#f2ead9", 1, 0),
    ]
    assert [(tie.first.place, tie.second.place) for tie in ties(cloths, COLOUR.hair)][:1] in ([(0, 2)], [(2, 3)])
    assert {(tie.first.place, tie.second.place) for tie in ties(cloths, COLOUR.hair)} == {(0, 1), (0, 2), (1, 2), (2, 3)}


def test_almost_the_same_is_a_miss_and_the_same_is_none() -> None:
    assert not near_misses([cloth(0, "#1f2a44"), cloth(1, "#202b46")], COLOUR)
    (miss,) = near_misses([cloth(0, "#b0413e"), cloth(1, "#b54a40"), cloth(2, "#b0413e", printed=True)], COLOUR)
    assert (miss.first.place, miss.second.place) == (0, 1)
    assert is_monotone([cloth(0, "#1f2a44"), cloth(1, "#24365a"), cloth(2, "#1b2338")], COLOUR)
    assert not is_monotone([cloth(0, "#1f2a44"), cloth(1, "#f2ead9"), cloth(2, "#1b2338")], COLOUR)


NAVY, RUST, IVORY, GREEN = "#24365a", "#a0522d", "#f4efe2", "#4f7a3a"


def piece(layer: str, *colours: str, loud: bool = False, gsm: float = 150.0) -> Piece:
    return Piece(layer, layer, colours, loud, gsm)


def test_outfits_by_hand() -> None:
    """Two tops, two bottoms, a dress and a coat.

    The navy top goes with the navy skirt, not with the rust trousers; the ivory top is neutral and goes with both. So 3 on the
    figure and the dress: 4. The navy coat (heavy enough) goes over the navy-navy pair, the ivory-navy pair; over ivory-rust
    only the rust does not go with it; over the dress in navy print it goes. So 3 more: 7.
    """
    set_ = [
        piece("top", NAVY),
        piece("top", IVORY),
        piece("bottom", NAVY, gsm=200),
        piece("bottom", RUST, gsm=200),
        piece("whole", GREEN, NAVY, loud=True),
        piece("over", NAVY, gsm=350),
    ]
    found = outfits(pairs(set_, OUTFIT))
    assert set(found) == {(0, 2), (1, 2), (1, 3), (4,), (0, 2, 5), (1, 2, 5), (4, 5)}
    assert without(found, 5) == 4
    assert without(found, 2) == 3


def test_two_loud_prints_and_a_top_that_is_too_heavy_are_no_outfit() -> None:
    loud = [piece("top", NAVY, loud=True), piece("bottom", NAVY, loud=True), piece("bottom", NAVY)]
    assert outfits(pairs(loud, OUTFIT)) == [(0, 2)]
    heavy = [piece("top", NAVY, gsm=400), piece("bottom", NAVY, gsm=200)]
    assert outfits(pairs(heavy, OUTFIT)) == []
    thin = [piece("whole", NAVY, gsm=300), piece("over", NAVY, gsm=150)]
    assert outfits(pairs(thin, OUTFIT)) == [(0,)]


def test_neutral_is_hardly_coloured_or_nearly_black() -> None:
    assert is_neutral("#8b8d8f", OUTFIT)
    assert is_neutral("#0f1218", OUTFIT)
    assert not is_neutral(RUST, OUTFIT)


PIECES = st.builds(
    piece,
    st.sampled_from(("top", "bottom", "whole", "over")),
    st.sampled_from((NAVY, RUST, IVORY, GREEN)),
    loud=st.booleans(),
    gsm=st.sampled_from((120.0, 200.0, 350.0)),
)


def slowly(set_: list[Piece]) -> set[Outfit]:
    """Every choice of places, held against the rule as it is written."""
    good = pairs(set_, OUTFIT).good
    at = {
        layer: [place for place, each in enumerate(set_) if each.layer == layer] for layer in ("top", "bottom", "whole", "over")
    }
    under = [each for each in product(at["top"], at["bottom"]) if good[each[0], each[1]]] + [(each,) for each in at["whole"]]
    return {*under, *((*each, over) for each in under for over in at["over"] if all(good[over, one] for one in each))}


@given(st.lists(PIECES, max_size=7), st.lists(PIECES, max_size=3))
def test_what_a_piece_adds_is_what_is_counted_with_it(set_: list[Piece], more: list[Piece]) -> None:
    before = outfits(pairs(set_, OUTFIT))
    assert set(before) == slowly(set_)
    added = [len(slowly([*set_, each])) - len(before) for each in more]
    assert np.array_equal(gained(pairs([*set_, *more], OUTFIT, len(set_)), len(set_)), added)


def test_hex_is_read_as_srgb() -> None:
    assert read_hex(NAVY) == (0x24, 0x36, 0x5A)
