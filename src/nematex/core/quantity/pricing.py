"""What things cost together: price by price, discounts in their order, one currency at a time.

The order is common practice, no source: a sale price stands in place of the price, a remnant's discount counts on its own
cloth, a club's discount on what all of it comes to, tax last. Each line is rounded to the hundredth, half up.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date
from decimal import ROUND_HALF_UP, Decimal

from nematex.core.errors import FieldFault

HUNDREDTH = Decimal("0.01")


@dataclass(frozen=True, slots=True)
class Line:
    """So much of something: `each` is the price of one unit ("m", "piece"), None where it is not known."""

    what: str
    quantity: Decimal
    unit: str
    each: Decimal | None
    currency: str = ""
    off_pct: Decimal = Decimal(0)  # a remnant's discount

    @property
    def total(self) -> Decimal | None:
        """To the hundredth, its own discount taken off."""
        if self.each is None:
            return None
        return (self.quantity * self.each * (1 - self.off_pct / 100)).quantize(HUNDREDTH, ROUND_HALF_UP)


@dataclass(frozen=True, slots=True)
class Rate:
    """One unit of a currency in another, as of a day."""

    of: str
    to: str
    rate: Decimal
    day: date


@dataclass(frozen=True)
class Sum:
    """What lines come to in one currency; `unknown` are those without a price, so that it is at least so much."""

    goods: Decimal
    club: Decimal
    tax: Decimal
    currency: str
    unknown: tuple[str, ...]

    @property
    def total(self) -> Decimal:
        return self.goods - self.club + self.tax


def _in(line: Line, currency: str, rates: Iterable[Rate]) -> Decimal | None:
    """A line's total in the currency; raises FieldFault without a rate."""
    if line.total is None or line.currency in ("", currency) or not currency:
        return line.total
    rate = next((each for each in rates if (each.of, each.to) == (line.currency, currency)), None)
    if rate is None:
        raise FieldFault("currency", line.currency, f"cannot be added to {currency} without a rate and its day ({line.what})")
    return (line.total * rate.rate).quantize(HUNDREDTH, ROUND_HALF_UP)


def summed(
    lines: Iterable[Line],
    currency: str,
    club_pct: Decimal = Decimal(0),
    tax_pct: Decimal = Decimal(0),
    rates: Iterable[Rate] = (),
) -> Sum:
    """All lines in one currency; raises FieldFault for another one without a rate."""
    known, unknown, rates = Decimal(0), [], list(rates)
    for line in lines:
        found = _in(line, currency, rates)
        if found is None:
            unknown.append(line.what)
        else:
            known += found
    club = (known * club_pct / 100).quantize(HUNDREDTH, ROUND_HALF_UP)
    tax = ((known - club) * tax_pct / 100).quantize(HUNDREDTH, ROUND_HALF_UP)
    return Sum(known, club, tax, currency, tuple(unknown))
