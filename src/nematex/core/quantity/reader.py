"""Quantities as suppliers write them: '150cm/59"', '220 g/m2', '6.5 oz'. Money is read beside, in money.py.

Each reader returns a number in the unit of its name or raises FieldFault with the rule. Numbers and units are found by
scan.py, factors are in units.py.
"""

from __future__ import annotations

from nematex.core.errors import FieldFault
from nematex.core.quantity.scan import TO_CM, Figure, scan, spans
from nematex.core.quantity.units import gsm_from_oz_yd2

LONGEST = 200  # letters of a cell that holds a quantity
AGREE = 0.04  # how far two units in one cell may differ: both are rounded
LEAST_WIDTH_CM, MOST_WIDTH_CM = 20.0, 400.0
LEAST_GSM, MOST_GSM = 10.0, 1500.0
INCHES_UP_TO, OUNCES_UP_TO = 72.0, 20.0  # a bare width or weight up to here is in inches or ounces


def _figures(text: str, field: str) -> list[tuple[Figure, ...]]:
    """The numbers of a cell, ranges as pairs; raises FieldFault for what no cell of a quantity is."""
    if len(text) > LONGEST:
        raise FieldFault(field, f"{text[:30]}…", f"is {len(text)} letters long; a quantity has at most {LONGEST}")
    return spans(text, list(scan(text.rstrip().removesuffix("+"), grouped=True)))


def _is_bare(text: str, found: list[tuple[Figure, ...]]) -> bool:
    """Whether the cell is one number or range and nothing else."""
    return (
        len(found) == 1
        and not found[0][-1].unit
        and not text[: found[0][0].start].strip()
        and not text[found[0][-1].end :].strip(" +\u00a0")
    )


def to_number(text: str, field: str) -> float:
    """A plain number with a decimal point or comma: '12,5' → 12.5, '1 250' → 1250."""
    found = _figures(text.strip(), field)
    if not _is_bare(text.strip(), found) or len(found[0]) > 1:
        raise FieldFault(field, text[:60], "is not a number")
    return found[0][0].value


def _one_or_agreeing(values: list[float], text: str, field: str, unit: str) -> float:
    """The first value; the others must say the same in their own unit."""
    for other in values[1:]:
        if abs(other - values[0]) > AGREE * values[0]:
            said = " and ".join(f"{value:.0f} {unit}" for value in (values[0], other))
            raise FieldFault(field, text, f"says two different things: {said}")
    return values[0]


def read_length_cm(text: str, field: str, bare: str = "cm") -> float:
    """A length or width in cm, of a range the smaller; a bare number is taken in the unit `bare`."""
    found = _figures(text, field)
    lengths = [span for span in found if span[-1].unit in TO_CM]
    if lengths and len(lengths) < len(found):
        raise FieldFault(field, text, "holds a number without a unit beside one with a unit")
    if not lengths and _is_bare(text.casefold().replace("wide", ""), found):
        lengths = found
    if not lengths:
        raise FieldFault(field, text, 'is not a length; write it like 150 cm, 59" or 150cm/59"')
    values = [min(end.value for end in span) * TO_CM[span[-1].unit or bare] for span in lengths]
    return round(_one_or_agreeing(values, text, field, "cm"), 2)


def read_width_cm(text: str, field: str, bare: str | None = None) -> float:
    """A width in cm; a bare number up to 72 is taken as inches, as suppliers' widths go."""
    found = _figures(text, field)
    if bare is None and _is_bare(text, found):
        bare = "in" if found[0][-1].value <= INCHES_UP_TO else "cm"
    value = read_length_cm(text, field, bare or "cm")
    if not LEAST_WIDTH_CM <= value <= MOST_WIDTH_CM:
        raise FieldFault(field, text, f"would be {value:.0f} cm; a cloth is 20 to 400 cm wide")
    return value


def _gsm(span: tuple[Figure, ...], unit: str) -> float:
    """The middle of a range in g/m²."""
    value = sum(end.value for end in span) / len(span)
    return gsm_from_oz_yd2(value) if unit == "oz" else value


def read_weight_gsm(text: str, field: str, bare: str | None = None) -> float:
    """Areal mass in g/m², of a range the middle; a bare number up to 20 is taken as oz/yd²."""
    found = _figures(text, field)
    weights = [span for span in found if span[-1].unit in ("gsm", "g", "oz")]
    if any(span[-1].unit == "g/m" for span in found):
        raise FieldFault(field, text, "is grams per running metre, which depends on the width; give g/m² or oz/yd²")
    if weights:
        value = _one_or_agreeing([_gsm(span, span[-1].unit) for span in weights], text, field, "g/m²")
    elif _is_bare(text, found):
        ounces = bare == "oz" or (bare is None and found[0][-1].value <= OUNCES_UP_TO)
        value = _gsm(found[0], "oz" if ounces else "gsm")
    else:
        raise FieldFault(field, text, "is not a weight; write it like 220 g/m² or 6.5 oz")
    if not LEAST_GSM <= value <= MOST_GSM:
        raise FieldFault(field, text, f"would be {value:.0f} g/m²; a cloth weighs 10 to 1500 g/m²")
    return round(value, 1)


def read_percent(text: str, field: str) -> float:
    """A percentage: '25', '25 %', '20-25%' (the smaller)."""
    found = _figures(text, field)
    left = text
    for span in reversed(found):
        left = left[: span[0].start] + left[span[-1].end :]
    if len(found) != 1 or found[0][-1].unit not in ("", "%") or left.strip(" %\u00a0"):
        raise FieldFault(field, text, "is not a number")
    return min(end.value for end in found[0])


def read_yes(text: str, field: str) -> bool:
    """Yes or no, in the words that lists use."""
    word = text.strip().casefold()
    if word in ("yes", "y", "true", "1", "x", "✓", "with nap", "with"):
        return True
    if word in ("no", "n", "false", "0", "-", "none", "without", "without nap"):
        return False
    raise FieldFault(field, text, "is neither yes nor no")
