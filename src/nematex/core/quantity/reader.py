"""Quantities as suppliers write them: '150cm/59"', '220 g/m2', '6.5 oz', '£12.50/m', '14.45 per quarter yard'.

Each reader returns a number in the unit of its name or raises FieldFault with the rule. Factors are in units.py.
"""

from __future__ import annotations

import re
from decimal import ROUND_HALF_UP, Decimal
from functools import lru_cache

from nematex.core.cloth.measuring.bending import bending_length_cm
from nematex.core.cloth.measuring.stretch import stretch_pct
from nematex.core.errors import FieldFault
from nematex.core.quantity.units import CM_PER_INCH, CM_PER_YARD, gsm_from_oz_yd2

_NUMBER = r"(\d+(?:[ \u00a0]\d{3})*(?:[.,]\d+)?)"
_FRACTIONS = {"¼": 0.25, "½": 0.5, "¾": 0.75, "⅛": 0.125, "⅜": 0.375, "⅝": 0.625, "⅞": 0.875, "⅓": 1 / 3, "⅔": 2 / 3}
_LENGTH_UNITS = {
    "mm": 0.1,
    "cm": 1.0,
    "centimetres": 1.0,
    "centimeters": 1.0,
    "m": 100.0,
    "mtr": 100.0,
    "mtrs": 100.0,
    "metre": 100.0,
    "metres": 100.0,
    "meter": 100.0,
    "meters": 100.0,
    "in": CM_PER_INCH,
    "ins": CM_PER_INCH,
    "inch": CM_PER_INCH,
    "inches": CM_PER_INCH,
    '"': CM_PER_INCH,
    "''": CM_PER_INCH,
    "ft": 30.48,
    "yd": CM_PER_YARD,
    "yds": CM_PER_YARD,
    "yard": CM_PER_YARD,
    "yards": CM_PER_YARD,
}
AGREE = 0.04  # how far two units in one cell may differ: both are rounded
DEAREST = Decimal(20_000)  # so that a price per quarter yard still fits its column
CURRENCIES = {
    "£": "GBP",
    "€": "EUR",
    "$": "USD",
    "gbp": "GBP",
    "eur": "EUR",
    "usd": "USD",
    "euro": "EUR",
    "kr": "SEK",
    "sek": "SEK",
}


@lru_cache(maxsize=8192)  # a price list says the same few widths and weights again and again
def _clean(text: str) -> str:
    for sign, value in _FRACTIONS.items():
        for whole in re.findall(rf"(\d+)\s*{sign}", text):
            text = re.sub(rf"{whole}\s*{sign}", str(int(whole) + value), text)
        text = text.replace(sign, str(value))
    text = re.sub(r"(\d+)[ -](\d)/(\d)", lambda m: str(int(m[1]) + int(m[2]) / int(m[3])) if int(m[3]) else m[0], text)
    return text.replace("”", '"').replace("“", '"').replace("″", '"').casefold().strip()


def to_number(text: str, field: str) -> float:
    """A plain number with a decimal point or comma: '12,5' → 12.5, '1 250' → 1250."""
    found = re.fullmatch(_NUMBER, text.strip())
    if not found:
        raise FieldFault(field, text, "is not a number")
    digits = re.sub(r"[ \u00a0]", "", found[1])
    return float(digits.replace(",", "."))


def _one_or_agreeing(values: list[float], text: str, field: str, unit: str) -> float:
    """The first value; the others must say the same in their own unit."""
    for other in values[1:]:
        if abs(other - values[0]) > AGREE * values[0]:
            said = " and ".join(f"{value:.0f} {unit}" for value in (values[0], other))
            raise FieldFault(field, text, f"says two different things: {said}")
    return values[0]


def read_length_cm(text: str, field: str, bare: str = "cm") -> float:
    """A length or width in cm; a bare number is taken in the unit `bare`."""
    clean = _clean(text)
    units = "|".join(re.escape(unit) for unit in sorted(_LENGTH_UNITS, key=len, reverse=True))
    span = re.fullmatch(rf"{_NUMBER}\s*(?:-|–|to)\s*{_NUMBER}\s*({units})?\.?(?:\s*wide)?", clean)
    if span:
        # '148-150 cm': the smaller figure is the safe one.
        return min(to_number(span[1], field), to_number(span[2], field)) * _LENGTH_UNITS[span[3] or bare]
    found = re.findall(rf"{_NUMBER}\s*({units})(?![a-z])", clean)
    if found:
        rest = re.sub(rf"{_NUMBER}\s*(?:{units})(?![a-z])\.?", " ", clean)
        if re.search(r"\d", rest):
            raise FieldFault(field, text, "holds a number without a unit beside one with a unit")
        values = [to_number(number, field) * _LENGTH_UNITS[unit] for number, unit in found]
        return round(_one_or_agreeing(values, text, field, "cm"), 2)
    if re.fullmatch(_NUMBER, clean):
        return to_number(clean, field) * _LENGTH_UNITS[bare]
    raise FieldFault(field, text, 'is not a length; write it like 150 cm, 59" or 150cm/59"')


def read_width_cm(text: str, field: str, bare: str | None = None) -> float:
    """A width in cm; a bare number up to 72 is taken as inches, as suppliers' widths go."""
    clean = _clean(text)
    if bare is None and re.fullmatch(_NUMBER, clean):
        bare = "in" if to_number(clean, field) <= 72 else "cm"
    value = read_length_cm(text, field, bare or "cm")
    if not 20 <= value <= 400:
        raise FieldFault(field, text, f"would be {value:.0f} cm; a cloth is 20 to 400 cm wide")
    return value


def read_weight_gsm(text: str, field: str, bare: str | None = None) -> float:
    """Areal mass in g/m²; a bare number up to 20 is taken as oz/yd²."""
    clean = _clean(text)
    gsm = r"gsm|g\s*/\s*(?:m2|m²|sqm|qm)|g\s*m-?2|grams?|gr|g"
    pattern = rf"{_NUMBER}\s*({gsm}|oz(?:\s*/\s*(?:yd2|yd²|sq\s*yd|yd))?|ounces?)(?![a-z])"
    span = re.fullmatch(rf"{_NUMBER}\s*(?:-|–|to)\s*{_NUMBER}\s*(.*)", clean)
    if span:
        low, high = to_number(span[1], field), to_number(span[2], field)
        clean = f"{(low + high) / 2} {span[3]}".strip()
    found = re.findall(pattern, clean)
    if found:
        values = [
            gsm_from_oz_yd2(to_number(number, field)) if unit.startswith("o") else to_number(number, field)
            for number, unit in found
        ]
        value = _one_or_agreeing(values, text, field, "g/m²")
    elif re.fullmatch(_NUMBER, clean):
        number = to_number(clean, field)
        ounces = bare == "oz" or (bare is None and number <= 20)
        value = gsm_from_oz_yd2(number) if ounces else number
    else:
        raise FieldFault(field, text, "is not a weight; write it like 220 g/m² or 6.5 oz")
    if not 10 <= value <= 1500:
        raise FieldFault(field, text, f"would be {value:.0f} g/m²; a cloth weighs 10 to 1500 g/m²")
    return round(value, 1)


def read_percent(text: str, field: str) -> float:
    """A percentage: '25', '25 %', '20-25%' (the smaller)."""
    clean = re.sub(r"\s*(?:%|percent|per cent|pct)\s*", " ", _clean(text)).strip()
    span = re.fullmatch(rf"{_NUMBER}\s*(?:-|–|to)\s*{_NUMBER}", clean)
    if span:
        return min(to_number(span[1], field), to_number(span[2], field))
    return to_number(clean, field)


def read_stretch_pct(text: str, field: str) -> float:
    """A percentage, or a marked length pulled: '25 %' or '10 to 12.5 cm'."""
    pulled = re.fullmatch(rf"{_NUMBER}\s*(?:cm)?\s*(?:to|→|->|>)\s*{_NUMBER}\s*cm", _clean(text))
    if pulled:
        return round(stretch_pct(to_number(pulled[1], field), to_number(pulled[2], field)), 1)
    return read_percent(text, field)


def read_bending_length_cm(text: str, field: str) -> float:
    """A bending length, or the overhang it is half of: '2.3 cm' or 'overhang 4.6 cm'."""
    clean = _clean(text)
    if clean.startswith("overhang"):
        return bending_length_cm(read_length_cm(clean.removeprefix("overhang"), field))
    return read_length_cm(text, field)


def read_price(text: str, field: str, bare_per_cm: float = 100.0) -> tuple[Decimal, str]:
    """(price per metre, currency or ''): '£12.50/m', '€9,80', '14.45 per quarter yard' (× 4 ÷ 0.9144)."""
    clean = _clean(text)
    currency = next((code for sign, code in CURRENCIES.items() if sign in clean), "")
    found = re.search(r"\d+(?:[ \u00a0.]\d{3})*[.,]\d{1,4}(?!\d)|\d+", clean)
    if not found:
        raise FieldFault(field, text, "is not a price; write it like £12.50/m or 14.45 per quarter yard")
    digits = found[0].replace("\u00a0", "").replace(" ", "")
    if digits.count(".") + digits.count(",") > 1:
        last = max(digits.rfind("."), digits.rfind(","))
        digits = re.sub(r"[.,]", "", digits[:last]) + "." + digits[last + 1 :]
    number = Decimal(digits.replace(",", "."))
    if number > DEAREST:
        raise FieldFault(field, text, f"would be {number:.0f}; a price is at most {DEAREST}")
    tail = clean[found.end() :]
    return (number * Decimal(100) / Decimal(str(_per_cm(tail, text, field, bare_per_cm)))).quantize(
        Decimal("0.0001"), ROUND_HALF_UP
    ), currency


def _per_cm(tail: str, text: str, field: str, bare: float) -> float:
    """How many cm of cloth the price is for."""
    for sign, code in CURRENCIES.items():
        tail = tail.replace(sign, "") if len(sign) == 1 or code else tail
    tail = re.sub(r"\b(?:incl\.?|inc\.?|excl\.?|ex|plus)?\s*(?:vat|tax)\b.*", "", tail)
    tail = re.sub(r"^\s*(?:/|per|a|the|p)\s*", "", tail.strip(" .")).strip()
    if not tail:
        return bare
    part = re.match(r"(quarter|half|0\.25|0\.5|1/4|1/2|\d+(?:[.,]\d+)?)?\s*(?:of a\s*|a\s*)?(.*)", tail)
    share, unit = (part[1] or "1", part[2].strip(" .")) if part else ("1", tail)
    scale = {"quarter": 0.25, "half": 0.5, "1/4": 0.25, "1/2": 0.5}.get(share) or float(share.replace(",", "."))
    if unit in ("lm", "lfm", "running metre", "linear metre", "metre run"):
        unit = "m"
    if unit not in _LENGTH_UNITS:
        raise FieldFault(field, text, "does not say of how much; write /m, per yard, per half metre or per quarter yard")
    return scale * _LENGTH_UNITS[unit]


def read_yes(text: str, field: str) -> bool:
    """Yes or no, in the words that lists use."""
    word = text.strip().casefold()
    if word in ("yes", "y", "true", "1", "x", "✓", "with nap", "with"):
        return True
    if word in ("no", "n", "false", "0", "-", "none", "without", "without nap"):
        return False
    raise FieldFault(field, text, "is neither yes nor no")
