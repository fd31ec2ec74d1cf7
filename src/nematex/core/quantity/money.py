"""Prices as suppliers write them: '£12.50/m', '€9,80', '14.45 per quarter yard', per metre of cloth."""

from __future__ import annotations

import re
from decimal import ROUND_HALF_UP, Decimal

from nematex.core.errors import FieldFault
from nematex.core.quantity.reader import LONGEST
from nematex.core.quantity.scan import MOST_DIGITS, TO_CM, unit_of

DEAREST = Decimal(80_000)  # per metre: what its column holds, and a price per quarter yard still fits
# Sign or word → ISO 4217 code (from memory), the longer ones first. "kr" is three currencies, so it is none.
CURRENCIES = {
    "au$": "AUD", "a$": "AUD", "ca$": "CAD", "c$": "CAD", "nz$": "NZD", "us$": "USD", "hk$": "HKD", "s$": "SGD",
    "£": "GBP", "€": "EUR", "$": "USD", "¥": "JPY", "₹": "INR", "zł": "PLN", "kč": "CZK",
    "gbp": "GBP", "euros": "EUR", "euro": "EUR", "eur": "EUR", "usd": "USD", "sek": "SEK", "nok": "NOK", "dkk": "DKK",
    "chf": "CHF", "sfr": "CHF", "pln": "PLN", "czk": "CZK", "cad": "CAD", "aud": "AUD", "nzd": "NZD", "jpy": "JPY",
    "inr": "INR", "zar": "ZAR", "isk": "ISK", "huf": "HUF", "ron": "RON", "try": "TRY", "hkd": "HKD", "sgd": "SGD",
}  # fmt: skip
BESIDE = frozenset(
    ("ca", "ca.", "approx", "approx.", "from", "ab", "only", "now", "rrp", "vk", "uvp", "net", "gross", "sale", "was")
)
RUNNING = ("lm", "lfm", "running metre", "linear metre", "metre run")
LEADS = ("/", "per ", "pro ", "je ", "par ", "por ", "a ", "the ", "p ", "p/", "for ", "by the ")
KNOWN_CURRENCIES = "write £, €, $ or a code such as GBP, EUR, USD, CHF, SEK, PLN"
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


def currency_in(text: str) -> tuple[str, str]:
    """(code, sign) of the currency that a text names; empty where it names none."""
    for sign, code in CURRENCIES.items():
        if re.search(rf"(?<![a-z]){re.escape(sign)}(?![a-z])" if sign.isalpha() else re.escape(sign), text.casefold()):
            return code, sign
    return "", ""


def per_cm_in(text: str) -> float | None:
    """For how many cm of cloth a heading or a neighbouring cell says that a price is; None where it says nothing.

    'Price £/yd', 'per quarter yard', 'Preis pro Meter', 'fat quarter' says something that is no length: FieldFault.
    """
    said = re.search(r"(?:/|\b(?:per|pro|je|par|por|by the|price)\b)\s*(.*)", text.casefold())
    tail = said[1].strip(" ()[].") if said else text.casefold().strip(" ()[].")
    return _per_cm(tail, text, "unit of the price", 0.0) or None


def read_price(text: str, field: str, bare_per_cm: float = 100.0) -> tuple[Decimal, str]:
    """(price per metre, currency or ''): '£12.50/m', '€9,80', '14.45 per quarter yard' (× 4 ÷ 0.9144)."""
    if len(text) > LONGEST:
        raise FieldFault(field, f"{text[:30]}…", f"is {len(text)} letters long; a price has at most {LONGEST}")
    clean = text.casefold().strip()
    currency, sign = currency_in(clean)
    number, end = _number(clean, field)
    _check_words(clean[: _AMOUNT.search(clean).start()], sign, text, field)  # type: ignore[union-attr]
    per_cm = _per_cm(clean[end:], text, field, bare_per_cm)
    if per_cm <= 0:
        raise FieldFault(field, text[:60], "is for an amount that is not understood; write per m, per yard or per quarter yard")
    per_m = number * Decimal(100) / Decimal(str(per_cm))
    if per_m > DEAREST:
        raise FieldFault(field, text, f"would be {per_m:.0f} per metre; a price is at most {DEAREST}")
    return per_m.quantize(Decimal("0.0001"), ROUND_HALF_UP), currency


def _check_words(head: str, sign: str, text: str, field: str) -> None:
    """Raise FieldFault where what stands before a price is no currency that is known, or one of several."""
    if not sign and re.search(r"(?<![a-z])kr(?![a-z])", text.casefold()):
        raise FieldFault(field, text[:60], "is in kr, the money of several countries; write SEK, NOK, DKK or ISK")
    words = (head.replace(sign, " ") if sign else head).replace(":", " ").split()
    strange = next((word for word in words if word not in BESIDE and word != "-"), "")
    if strange:
        raise FieldFault(field, text[:60], f"holds “{strange[:20]}”, which is no currency that is known; {KNOWN_CURRENCIES}")


def _per_cm(tail: str, text: str, field: str, bare: float) -> float:
    """How many cm of cloth the price is for; raises FieldFault where that is not understood or is nothing."""
    for sign in CURRENCIES:
        tail = re.sub(rf"(?<![a-z]){re.escape(sign)}(?![a-z])" if sign.isalpha() else re.escape(sign), "", tail)
    tail = re.sub(r"\b(?:incl\.?|inc\.?|excl\.?|ex|plus)?\s?(?:vat|tax)\b.*", "", tail).strip(" .")
    while lead := next((each for each in LEADS if tail.startswith(each)), ""):
        tail = tail.removeprefix(lead).strip()
    if not tail or tail == "-":
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


def cost_of(length_m: float, price_per_m: Decimal) -> Decimal:
    """What a length costs, to the hundredth, half up; the length to the tenth of a millimetre."""
    return (Decimal(str(round(length_m, 4))) * price_per_m).quantize(Decimal("0.01"), ROUND_HALF_UP)
