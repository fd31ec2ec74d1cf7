"""What a garment costs: cloth, lining, interfacing, thread and notions, by the shop's own prices; what has none is named."""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass, replace
from datetime import date
from decimal import Decimal, InvalidOperation

from nematex.core.beneath.notions import Notion
from nematex.core.errors import FieldFault
from nematex.core.quantity.pricing import Line, Sum, summed
from nematex.store.records import ClothRecord
from nematex.store.settings import put, value_held
from nematex.usecases.beneath.view import Beneath, LiningRow
from nematex.usecases.forms.stale import must_be_as_shown
from nematex.usecases.held.shop import Shop

SETTING, LONGEST = "notion prices", 300
OFF = {"remnant": "off this cloth as a remnant", "club": "off everything for members", "tax": "tax on top"}
_ENTRY = re.compile(
    r"\s*(?P<what>[A-Za-z][A-Za-z -]{0,40}?)\s+[£€$]?\s*(?P<price>\d{1,4}(?:[.,]\d{1,2})?)\s*(?P<per>/\s*m|per m)?\s*$"
)


@dataclass(frozen=True, slots=True)
class PriceOf:
    """What one notion, or a metre of it, costs."""

    each: Decimal
    per_m: bool


@dataclass(frozen=True)
class GarmentCost:
    """The lines and what they come to."""

    lines: tuple[Line, ...]
    sum: Sum


def read_notion_prices(text: str) -> dict[str, PriceOf]:
    """'thread 2.20; zip 2.80; interfacing 7.50/m' → kind of notion → price; raises FieldFault."""
    if len(text) > LONGEST:
        raise FieldFault(SETTING, f"{len(text)} letters", f"are too many; at most {LONGEST}")
    found = {}
    for part in (each for each in re.split(r"[;\n]", text) if each.strip()):
        entry = _ENTRY.match(part)
        if entry is None:
            raise FieldFault(SETTING, part.strip()[:60], "is no price; write it like zip 2.80; interfacing 7.50/m")
        found[entry["what"].casefold().removesuffix("s")] = PriceOf(
            Decimal(entry["price"].replace(",", ".")), bool(entry["per"])
        )
    return found


def keep_notion_prices(shop: Shop, text: str, shown: str | None = None) -> None:
    """Keep the shop's prices of notions; raises FieldFault, Clashing where they are others than were shown."""
    read_notion_prices(text)
    with shop.database.work() as work:
        must_be_as_shown("prices", shown, value_held(work, SETTING), text.strip())
        put(work, SETTING, text.strip())


def _priced(what: str, kind: str, quantity: Decimal, metres: float | None, prices: dict[str, PriceOf], currency: str) -> Line:
    known = prices.get(kind)
    if known is None or (known.per_m and metres is None):
        return Line(what, quantity, "piece", None, currency)
    if known.per_m:
        return Line(what, Decimal(str(round(metres or 0.0, 3))), "m", known.each, currency)
    return Line(what, quantity, "piece", known.each, currency)


def _notion(one: Notion, prices: dict[str, PriceOf], currency: str) -> Line:
    metres = one.length_cm / 100 if one.length_cm else None
    return _priced(one.words, one.kind, Decimal(one.count or 1), metres, prices, currency)


def _cloth(what: str, record: ClothRecord, length_m: float) -> Line:
    return Line(what, Decimal(str(round(length_m, 3))), "m", record.price_on(date.today()), record.currency)


@dataclass(frozen=True, slots=True)
class Off:
    """What is taken off and put on, in per cent: of the cloth as a remnant, of all goods for a club's members, tax."""

    remnant_pct: Decimal = Decimal(0)
    club_pct: Decimal = Decimal(0)
    tax_pct: Decimal = Decimal(0)


def read_off(given: Mapping[str, str]) -> Off:
    """The discounts and the tax in an address; raises FieldFault."""
    found = {}
    for name, label in OFF.items():
        text = given.get(name, "").strip().replace(",", ".").removesuffix("%").strip()
        try:
            value = Decimal(text or 0)
        except InvalidOperation:
            raise FieldFault(label, text[:40], "is no number; write per cent, like 10") from None
        if not (value.is_finite() and 0 <= value <= 100):
            raise FieldFault(label, text[:40], "must be from 0 to 100 per cent")
        found[f"{name}_pct"] = value
    return Off(**found)


def garment_cost(record: ClothRecord, found: Beneath, prices: dict[str, PriceOf], off: Off = Off()) -> GarmentCost | None:
    """Everything that goes into one garment; None without an amount; raises FieldFault over two currencies."""
    if found.main is None:
        return None
    currency = record.currency
    lines = [replace(_cloth(record.facts.name, record, found.main.length_m), off_pct=off.remnant_pct)]
    way = next((each for each in found.ways if each.stand in ("advised", "as the pattern has it") and each.amount_m), None)
    best: LiningRow | None = next(iter(found.linings), None)
    if way and best and way.amount_m:
        lines.append(_cloth(f"{way.name}: {best.record.facts.name}", best.record, way.amount_m))
    if found.interfacing:
        lines.append(_priced("interfacing", "interfacing", Decimal(1), found.interfacing.length_m, prices, currency))
    told = {one.kind for one in found.notions}
    if "thread" not in told:
        lines.append(_priced("thread", "thread", Decimal(1), None, prices, currency))
    lines += [_notion(one, prices, currency) for one in found.notions if one.kind != "interfacing"]
    return GarmentCost(tuple(lines), summed(lines, currency, off.club_pct, off.tax_pct))
