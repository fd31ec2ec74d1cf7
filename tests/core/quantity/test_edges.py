"""The edges of reading and saying: every word that is known, every limit, every message in full.

What a message says is our own; figures are arithmetic from the 1959 agreement (1 in = 2.54 cm, 1 yd = 91.44 cm).
"""

from __future__ import annotations

from collections.abc import Callable
from decimal import Decimal

import numpy as np
import pytest

from nematex.core.errors import FieldFault
from nematex.core.quantity.arrays import Column
from nematex.core.quantity.estimate import Estimate, Known, Range
from nematex.core.quantity.money import read_price
from nematex.core.quantity.reader import read_length_cm, read_percent, read_weight_gsm, read_width_cm, read_yes, to_number
from nematex.core.quantity.said import Units, amount, number, sign, span
from nematex.core.quantity.scan import last_unit, once, scan, spans
from nematex.core.quantity.units import eighths, say_length, say_weight, say_width, trim

YES = ("yes", "Y", "true", "1", "x", "✓", "with nap", " With ")
NO = ("no", "N", "false", "0", "-", "none", "without", "without nap", "NO ")


@pytest.mark.parametrize(("word", "meant"), [*((word, True) for word in YES), *((word, False) for word in NO)])
def test_every_word_for_yes_and_no(word: str, meant: bool) -> None:
    assert read_yes(word, "Nap") is meant


Read = Callable[[str, str], object]


@pytest.mark.parametrize(
    ("read", "text", "message"),
    [
        (read_yes, "maybe", "Cell: 'maybe' is neither yes nor no"),
        (to_number, "12 cm", "Cell: '12 cm' is not a number"),
        (to_number, "1-2", "Cell: '1-2' is not a number"),
        (to_number, "a" * 99, f"Cell: '{'a' * 60}' is not a number"),
        (to_number, "7" * 201, f"Cell: '{'7' * 30}…' is 201 letters long; a quantity has at most 200"),
        (read_percent, "2 3", "Cell: '2 3' is not a number"),
        (read_percent, "about 3", "Cell: 'about 3' is not a number"),
        (read_percent, "3 cm", "Cell: '3 cm' is not a number"),
        (read_width_cm, "wide", """Cell: 'wide' is not a length; write it like 150 cm, 59" or 150cm/59\""""),
        (read_width_cm, "150cm/45in", "Cell: '150cm/45in' says two different things: 150 cm and 114 cm"),
        (read_width_cm, "150 cm or 45", "Cell: '150 cm or 45' holds a number without a unit beside one with a unit"),
        (read_width_cm, "8 m", "Cell: '8 m' would be 800 cm; a cloth is 20 to 400 cm wide"),
        (read_width_cm, "19 cm", "Cell: '19 cm' would be 19 cm; a cloth is 20 to 400 cm wide"),
        (read_weight_gsm, "heavy", "Cell: 'heavy' is not a weight; write it like 220 g/m² or 6.5 oz"),
        (read_weight_gsm, "9 gsm", "Cell: '9 gsm' would be 9 g/m²; a cloth weighs 10 to 1500 g/m²"),
        (read_weight_gsm, "220gsm/3oz", "Cell: '220gsm/3oz' says two different things: 220 g/m² and 102 g/m²"),
        (
            read_weight_gsm,
            "400 g/lm",
            "Cell: '400 g/lm' is grams per running metre, which depends on the width; give g/m² or oz/yd²",
        ),
        (read_price, "dear", "Cell: 'dear' is not a price; write it like £12.50/m or 14.45 per quarter yard"),
        (read_price, "9" * 13, f"Cell: '{'9' * 13}' is not a price; write it like £12.50/m or 14.45 per quarter yard"),
        (read_price, "9" * 201, f"Cell: '{'9' * 30}…' is 201 letters long; a price has at most 200"),
        (read_price, "£15000 per cm", "Cell: '£15000 per cm' would be 1500000 per metre; a price is at most 80000"),
        (
            read_price,
            "£5 per 0 m",
            "Cell: '£5 per 0 m' is a price for no cloth at all; write /m, per yard, per half metre or per quarter yard",
        ),
        (read_price, "9.80 kr", "Cell: '9.80 kr' is in kr, the money of several countries; write SEK, NOK, DKK or ISK"),
        (
            read_price,
            "shells 9",
            "Cell: 'shells 9' holds “shells”, which is no currency that is known; write £, €, $ or a code such as GBP, EUR, "
            "USD, CHF, SEK, PLN",
        ),
        (
            read_price,
            "£5 per bolt",
            "Cell: '£5 per bolt' does not say of how much; write /m, per yard, per half metre or per quarter yard",
        ),
    ],
)
def test_a_fault_says_the_field_the_value_and_the_rule(read: Read, text: str, message: str) -> None:
    with pytest.raises(FieldFault) as fault:
        read(text, "Cell")
    assert str(fault.value) == message


@pytest.mark.parametrize(
    ("read", "text", "value"),
    [
        (to_number, " 12,5 ", 12.5),
        (to_number, "1 250", 1250.0),
        (read_percent, "20-25%", 20.0),
        (read_percent, "25", 25.0),
        (read_width_cm, "20 cm", 20.0),
        (read_width_cm, "400 cm", 400.0),
        (read_width_cm, "72", 182.88),  # the last number that is taken as inches
        (read_width_cm, "73", 73.0),
        (read_weight_gsm, "10 gsm", 10.0),
        (read_weight_gsm, "1500 gsm", 1500.0),
        (read_weight_gsm, "20", 678.1),  # the last number that is taken as oz/yd²
        (read_weight_gsm, "21", 21.0),
        (read_weight_gsm, "6-7 oz", 220.4),
        (read_weight_gsm, "220g", 220.0),
        (lambda text, field: read_weight_gsm(text, field, "oz"), "30", 1017.2),
        (lambda text, field: read_weight_gsm(text, field, "gsm"), "15", 15.0),
        (lambda text, field: read_width_cm(text, field, "cm"), "55", 55.0),
        (lambda text, field: read_width_cm(text, field, "in"), "100", 254.0),
        (read_length_cm, "2 ft", 60.96),
        (read_length_cm, "140 wide", 140.0),
        (lambda text, field: read_length_cm(text, field, "m"), "2.5", 250.0),
    ],
)
def test_limits_and_bare_numbers(read: Read, text: str, value: float) -> None:
    assert read(text, "Cell") == value


@pytest.mark.parametrize(
    ("text", "price", "currency"),
    [
        ("CHF 9.80/m", "9.8000", "CHF"),
        ("A$ 9.80", "9.8000", "AUD"),
        ("9.80 per £/yd", "10.7174", "GBP"),
        ("ca. 9,80 €/lfm", "9.8000", "EUR"),
        ("9.80 SEK", "9.8000", "SEK"),
        ("gbp 9.80", "9.8000", "GBP"),
        ("9.80 euro", "9.8000", "EUR"),
        ("usd 9.80", "9.8000", "USD"),
        ("€9.80", "9.8000", "EUR"),
        ("1,234.50", "1234.5000", ""),
        ("1 234,50", "1234.5000", ""),
        ("1.234.567,8 per 100 m", "12345.6780", ""),
        ("80,000", "80.0000", ""),
        ("80000/m", "80000.0000", ""),
        ("£6 per lm", "6.0000", "GBP"),
        ("£6 per running metre", "6.0000", "GBP"),
        ("£6 / linear metre", "6.0000", "GBP"),
        ("£6 per metre run", "6.0000", "GBP"),
        ("£6 per lfm", "6.0000", "GBP"),
        ("£6 the metre", "6.0000", "GBP"),
        ("£6 a metre", "6.0000", "GBP"),
        ("£6 p m", "6.0000", "GBP"),
        ("£6 per 1/4 m", "24.0000", "GBP"),
        ("£6 per ¼ m", "24.0000", "GBP"),
        ("£6 per ½ m", "12.0000", "GBP"),
        ("£6 per 0.25 m", "24.0000", "GBP"),
        ("£6 per 0,5 m", "12.0000", "GBP"),
        ("£6 per half of a metre", "12.0000", "GBP"),
        ("£6 per 10 cm", "60.0000", "GBP"),
        ("£6/m excl. VAT", "6.0000", "GBP"),
        ("£6 per m plus tax 20%", "6.0000", "GBP"),
        ("£6.", "6.0000", "GBP"),
    ],
)
def test_every_way_to_write_a_price(text: str, price: str, currency: str) -> None:
    assert read_price(text, "Price") == (Decimal(price), currency)


def test_a_bare_price_is_for_what_its_column_says() -> None:
    assert read_price("6", "Price", bare_per_cm=50.0) == (Decimal("12.0000"), "")


@pytest.mark.parametrize(
    ("text", "values"),
    [
        ("84 cm / 33 in", [84]),  # one measurement in both systems
        ("33 in (84 cm)", [33]),
        ("84 (33)", [84]),
        ("33 | 84", [33]),
        ("84 cm or 33 in", [84]),
        ("84 cm = 33 in", [84]),
        ("84- / 33", [84]),
        ("84 cm / 38 in", [84, 38]),  # 96.5 cm: not the same
        ("84 / 88", [84, 88]),
        ("84 / 38", [84, 38]),
        ("84 cm / 84 cm", [84, 84]),
        ("84 cm, 33 in", [84, 33]),
        ("84 cm then 33 in", [84, 33]),
        ("100 cm / 1 m", [100]),
        ("100 cm / 37 in", [100, 37]),  # 94.0 cm: six hundredths off are too many
        ("100 cm / 40 in", [100]),
    ],
)
def test_a_measurement_said_in_both_systems_counts_once(text: str, values: list[float]) -> None:
    assert [figure.value for figure in once(text)] == values


def test_ends_of_a_range_are_found() -> None:
    def pairs(text: str) -> list[tuple[float, ...]]:
        return [tuple(figure.value for figure in one) for one in spans(text, list(scan(text)))]

    assert pairs("148-150 cm") == pairs("148 to 150 cm") == pairs("148 and 150 cm") == [(148, 150)]
    assert pairs("44/45 in") == [(44, 45)]
    assert pairs("100/114 in") == [(100, 114)]  # up to 15 % apart they are neighbouring widths
    assert pairs("100/116 in") == pairs("100, 116 in") == [(100,), (116,)]
    assert pairs("45/44 in") == [(45,), (44,)]
    assert pairs("1 cm to 2 in") == [(1,), (2,)]
    assert pairs("1 to 2, 3") == [(1, 2), (3,)]
    assert pairs("") == []


def test_the_last_unit_of_a_line() -> None:
    assert [last_unit(line) for line in ("Bust in cm or inches", "width 45 in", "no unit", "m")] == ["in", "in", "", "m"]


def test_an_estimate_is_exact_where_it_is_stated() -> None:
    assert Estimate.typical(1, 3) == Estimate(1, 3, 2, Known.TYPICAL)
    assert Estimate.around(5, Known.JUDGED, 2) == Estimate(3, 7, 5, Known.JUDGED)
    assert Estimate.around(1, Known.JUDGED, 2) == Estimate(0, 3, 1, Known.JUDGED)
    assert Estimate.around(5, Known.STATED, 2) == Estimate(5, 5, 5, Known.STATED)
    assert (Known.from_word("measured"), Known.MEASURED.word, Range(1, 4).middle) == (Known.MEASURED, "measured", 2.5)


def _column(*rows: tuple[float, float, float, Known]) -> Column:
    low, high, best, known = zip(*rows, strict=True)
    return Column(np.array(low), np.array(high), np.array(best), np.array(known, dtype=np.int8))


def _rows(column: Column) -> list[tuple[float, ...]]:
    return list(zip(column.low, column.high, column.best, column.known, strict=True))


def test_columns_are_taken_and_joined_row_by_row() -> None:
    one = _column((1, 3, 2, Known.TYPICAL), (4, 4, 4, Known.STATED))
    other = _column((7, 9, 8, Known.MEASURED))
    assert _rows(one.take(np.array([1]))) == [(4, 4, 4, Known.STATED)]
    assert _rows(one.joined(other, np.array([2, 0]))) == [(7, 9, 8, Known.MEASURED), (1, 3, 2, Known.TYPICAL)]
    assert one.point.tolist() == [False, True]
    assert one.per_width.tolist() == [0.5, 0.0]
    assert one.firm.tolist() == [False, True]


def test_numbers_are_said_in_the_leading_system() -> None:
    assert (number(14.46, "cm", 1), number(14.46, "cm", 1, Units.IMPERIAL)) == ("14.5", "5.69")
    assert (number(30.4, "%", 0, Units.IMPERIAL), sign("%", Units.IMPERIAL)) == ("30", "%")
    assert (sign("g/m²"), sign("g/m²", Units.IMPERIAL), sign("cm", Units.IMPERIAL)) == ("g/m²", "oz/yd²", "in")
    assert (amount(30, "%", 0), amount(62, "cm", 0), amount(62, "cm", 0, Units.IMPERIAL)) == ("30 %", "62 cm", "24.4 in")
    assert span(60, 215, "g/m²", 0, Units.METRIC, "{low} to {high}") == "60 to 215 g/m²"
    assert span(60.1, 60.2, "g/m²", 0, Units.METRIC, "{low} to {high}") == "60 g/m²"
    assert span(60, 215, "g/m²", 0, Units.IMPERIAL, "{low} to {high}") == "1.8 to 6.3 oz/yd²"


def test_both_systems_are_said_either_way_round() -> None:
    assert (say_width(140), say_width(140, metric_first=False)) == ("140 cm (55 in)", "55 in (140 cm)")
    assert (say_weight(150), say_weight(150, metric_first=False)) == ("150 g/m² (4.4 oz/yd²)", "4.4 oz/yd² (150 g/m²)")
    assert (say_length(2.3), say_length(2.25)) == ("2.3 m (2 5/8 yd)", "2.25 m (2 1/2 yd)")
    assert (trim(2.5), trim(140.0), trim(0.25, 2), trim(10.0, 0), trim(100, 0)) == ("2.5", "140", "0.25", "10", "100")
    # Half a centimetre is let go: 1.0049 yd is 0.45 cm more than a yard, 1.0055 yd 0.5 cm.
    assert [eighths(yards) for yards in (1.0, 1.0049, 1.0055, 0.5)] == ["1", "1", "1 1/8", "1/2"]
