"""Prices as suppliers write them: '£12.50/m', '€9,80', '14.45 per quarter yard', per metre of cloth."""

from __future__ import annotations

import re
from decimal import ROUND_HALF_UP, Decimal

from nematex.core.errors import FieldFault
from nematex.core.quantity.reader import LONGEST
from nematex.core.quantity.scan import MOST_DIGITS, TO_CM, unit_of

DEAREST = Decimal(80_000)  # per metre: what its column holds, and a price per quarter yard still fits
CURRENCIES = {
    "£": "GBP",
    "€": "EUR",
    "$": "USD",
    "gbp": "GBP",
    "euro": "EUR",  # before its beginning
    "eur": "EUR",
    "usd": "USD",
    "kr": "SEK",
    "sek": "SEK",
}
RUNNING = ("lm", "lfm", "running metre", "linear metre", "metre run")
SHARES = {"quarter": 0.25, "half": 0.5, "1/4": 0.25, "1/2": 0.5, "¼": 0.25, "½": 0.5}
_AMOUNT = re.compile(r"\d{1,3}(?:[ \u00a0.,]\d{3})+(?:[.,]\d{1,4})?(?!\d)|\d+(?:[.,]\d{1,4})?(?!\d)")
_OF = re.compile(r"(quarter|half|0\.25|0\.5|1/4|1/2|[¼½]|\d{1,4}(?:[.,]\d{1,3})?)?\s?(?:of a |a )?(.*)")


def _number(text: str, field: str) -> tuple[Decimal, int]:
    """The price's number and where it ends; of two separators the last is the decimal one."""
    found = _AMOUNT.search(text)
    if not found or sum(map(str.isdigit, found[0])) > MOST_DIGITS:
        raise FieldFault(field, text[:60], "is not a price; write it like £12.50/m or 14.45 per quarter yard")
    digits = re.sub(r"[ \u00a0]", "", found[0])
    head, mark, tail = max((digits.rpartition("."), digits.rpartition(",")), key=lambda parts: len(parts[0]) * bool(parts[1]))
    head = re.sub(r"[.,]", "", head)
    thousands = mark and len(tail) == 3 and len(re.findall(r"[.,]", digits)) > 1 and digits.count(mark) > 1
    return Decimal(head + tail if thousands or not mark else f"{head}.{tail}"), found.end()


def read_price(text: str, field: str, bare_per_cm: float = 100.0) -> tuple[Decimal, str]:
    """(price per metre, currency or ''): '£12.50/m', '€9,80', '14.45 per quarter yard' (× 4 ÷ 0.9144)."""
    if len(text) > LONGEST:
        raise FieldFault(field, f"{text[:30]}…", f"is {len(text)} letters long; a price has at most {LONGEST}")
    clean = text.casefold().strip()
    currency = next((code for sign, code in CURRENCIES.items() if sign in clean), "")
    number, end = _number(clean, field)
    per_m = number * Decimal(100) / Decimal(str(_per_cm(clean[end:], text, field, bare_per_cm)))
    if per_m > DEAREST:
        raise FieldFault(field, text, f"would be {per_m:.0f} per metre; a price is at most {DEAREST}")
    return per_m.quantize(Decimal("0.0001"), ROUND_HALF_UP), currency


def _per_cm(tail: str, text: str, field: str, bare: float) -> float:
    """How many cm of cloth the price is for; raises FieldFault where that is not understood or is nothing."""
    for sign in CURRENCIES:
        tail = tail.replace(sign, "")
    tail = re.sub(r"\b(?:incl\.?|inc\.?|excl\.?|ex|plus)?\s?(?:vat|tax)\b.*", "", tail).strip(" .")
    for lead in ("/", "per ", "a ", "the ", "p "):
        tail = tail.removeprefix(lead).strip()
    if not tail:
        return bare
    parts = _OF.match(tail)
    share, unit = (parts[1] or "1", parts[2]) if parts else ("1", tail)
    scale = SHARES[share] if share in SHARES else float(share.replace(",", "."))
    name = "m" if unit.strip(" .") in RUNNING else unit_of(unit.strip(" ."))
    if name not in TO_CM:
        raise FieldFault(field, text, "does not say of how much; write /m, per yard, per half metre or per quarter yard")
    if scale <= 0:
        raise FieldFault(field, text, "is a price for no cloth at all; write /m, per yard, per half metre or per quarter yard")
    return scale * TO_CM[name]
