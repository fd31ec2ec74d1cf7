"""Quantities as suppliers write them."""

from __future__ import annotations

from collections.abc import Callable
from contextlib import suppress
from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from nematex.core.cloth.measuring.typed import read_bending_length_cm, read_stretch_pct
from nematex.core.errors import FieldFault
from nematex.core.quantity.money import read_price
from nematex.core.quantity.reader import read_length_cm, read_percent, read_weight_gsm, read_width_cm, read_yes, to_number
from nematex.core.quantity.scan import once, scan


@pytest.mark.parametrize(
    ("text", "cm"),
    [
        ('150cm/59"', 150),
        ("150 cm", 150),
        ("1,50 m", 150),
        ('59"', 149.86),
        ("59 in", 149.86),
        ("148-150 cm", 148),
        ("140", 140),
        ("55", 139.7),
        ("1400mm", 140),
        ("58 inches wide", 147.32),
        # Neighbouring widths as envelopes and suppliers write them; the smaller is the safe one.
        ("44/45 in", 111.76),
        ('57/58"', 144.78),
        ("58/60 in", 147.32),
        ('44 1/16"', 111.92),
        ("148-150 cm", 148.0),
    ],
)
def test_widths(text: str, cm: float) -> None:
    assert read_width_cm(text, "Width") == pytest.approx(cm, abs=0.01)


@pytest.mark.parametrize(
    ("text", "rule"),
    [
        ('150cm/45"', "two different things"),
        ("wide", "is not a length"),
        ("8 m", "20 to 400 cm"),
    ],
)
def test_widths_that_cannot_be(text: str, rule: str) -> None:
    with pytest.raises(FieldFault, match=rule):
        read_width_cm(text, "Width")


@pytest.mark.parametrize(
    ("text", "gsm"),
    [
        ("220 g/m2", 220),
        ("220gsm", 220),
        ("6.5 oz", 220.4),
        ("6,5oz/yd2", 220.4),
        ("220", 220),
        ("8", 271.2),
        ("200-240 gsm", 220),
        ("220g/m² / 6.5oz", 220),
    ],
)
def test_weights(text: str, gsm: float) -> None:
    assert read_weight_gsm(text, "Weight") == pytest.approx(gsm, abs=0.1)


@pytest.mark.parametrize(
    ("text", "rule"), [("heavy", "is not a weight"), ("9000 gsm", "10 to 1500"), ("220gsm/3oz", "two different")]
)
def test_weights_that_cannot_be(text: str, rule: str) -> None:
    with pytest.raises(FieldFault, match=rule):
        read_weight_gsm(text, "Weight")


@pytest.mark.parametrize(
    ("text", "price", "currency"),
    [
        ("£12.50/m", "12.5000", "GBP"),
        ("12,50 €", "12.5000", "EUR"),
        ("$10 per yard", "10.9361", "USD"),
        ("14.45 per quarter yard", "63.2108", ""),
        ("£3.20 per half metre", "6.4000", "GBP"),
        ("1.234,50 EUR/m", "1234.5000", "EUR"),
        ("£9.80/m incl. VAT", "9.8000", "GBP"),
        ("7", "7.0000", ""),
    ],
)
def test_prices(text: str, price: str, currency: str) -> None:
    assert read_price(text, "Price") == (Decimal(price), currency)


def test_a_price_of_something_unknown_is_refused() -> None:
    with pytest.raises(FieldFault, match="of how much"):
        read_price("£12 per bolt", "Price")


def test_stock_in_yards_and_metres() -> None:
    assert read_length_cm("12 yds", "Stock", "m") == pytest.approx(1097.28)
    assert read_length_cm("23,5", "Stock", "m") == pytest.approx(2350)


def test_measurements_are_read_as_they_are_taken() -> None:
    assert read_stretch_pct("10 to 12.5 cm", "Stretch") == 25
    assert read_stretch_pct("25 %", "Stretch") == 25
    assert read_bending_length_cm("overhang 4.6 cm", "Bending length") == pytest.approx(2.3)
    assert read_bending_length_cm("2.3", "Bending length") == pytest.approx(2.3)
    with pytest.raises(FieldFault, match="relaxed length"):
        read_stretch_pct("10 to 8 cm", "Stretch")


def test_percent_and_yes() -> None:
    assert read_percent("20-25 %", "Stretch") == 20
    assert read_yes("x", "Nap") is True
    with pytest.raises(FieldFault, match="neither yes nor no"):
        read_yes("maybe", "Nap")


@given(st.floats(min_value=20, max_value=400))
def test_what_is_written_in_cm_is_read_back(cm: float) -> None:
    assert read_width_cm(f"{cm:.2f} cm", "Width") == pytest.approx(cm, abs=0.01)


@given(st.text(max_size=40))
def test_any_text_is_read_or_refused_with_its_field(text: str) -> None:
    for reader in (read_width_cm, read_weight_gsm, read_price, read_percent):
        with suppress(FieldFault):  # any other exception fails the test
            assert reader(text, "Cell") is not None


@pytest.mark.parametrize("text", ["400 g/lm", "400 g/m", "400 g per m at 150 cm"])
def test_grams_per_running_metre_are_no_weight_per_area(text: str) -> None:
    with pytest.raises(FieldFault, match="running metre"):
        read_weight_gsm(text, "Weight")


@pytest.mark.parametrize(
    ("text", "rule"),
    [
        ("£5 per 0 m", "no cloth at all"),
        ("£15000 per cm", "at most"),
        ("£5 per furlong", "of how much"),
        ("dear", "is not a price"),
    ],
)
def test_prices_that_cannot_be(text: str, rule: str) -> None:
    with pytest.raises(FieldFault, match=rule):
        read_price(text, "Price")


@pytest.mark.parametrize("odd", ["9", " ", "1 ", "1/", "½", "-", ".", "1,", "(", '"', "g", "\u00a0", "1 1/2 ", "£", "to "])
@pytest.mark.parametrize(
    "read", [read_width_cm, read_length_cm, read_weight_gsm, read_percent, read_stretch_pct, read_price, to_number]
)
def test_a_hundred_thousand_letters_of_anything_are_refused_at_once(read: Callable[[str, str], object], odd: str) -> None:
    with pytest.raises(FieldFault):
        read((odd * 100_000)[:100_000], "Cell")


@pytest.mark.parametrize(
    "odd", ["9", " ", "1 ", "1/2", "½", "1-", "1.", "1 1/2 ", "12 cm ", "1/64 ", "x9", '9"', "9 (", "\u00a0"]
)
def test_the_scanner_comes_through_a_hundred_thousand_letters_of_anything(odd: str) -> None:
    text = (odd * 100_000)[:100_000]
    assert all(figure.end <= len(text) for figure in scan(text))
    assert len(once(text)) <= len(text)


@given(st.text(alphabet="0123456789 ./,½¼-\u00a0\"'cmin%gozydto()", max_size=60))
def test_whatever_is_typed_is_a_number_or_a_fault(text: str) -> None:
    for read in (read_width_cm, read_length_cm, read_weight_gsm, read_percent, read_stretch_pct, read_price, to_number):
        with suppress(FieldFault):
            read(text, "Cell")
    for figure in scan(text):
        assert figure.value >= 0
        assert text[figure.start : figure.end].strip()
