"""Facts in the shop's own words: its unit system first, its vocabulary first."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date
from decimal import Decimal
from functools import lru_cache

from babel.dates import format_date
from babel.numbers import format_currency, format_decimal

from nematex.core.cloth.estimates import Cloth
from nematex.core.cloth.fibres import FibreContent
from nematex.core.colour.difference import nearest_name, read_hex
from nematex.core.quantity.said import Units
from nematex.core.quantity.units import CM_PER_INCH, oz_yd2_from_gsm, say_length, say_weight, say_width
from nematex.core.tables import Tables
from nematex.tables import colour_names

SAID = 4000  # sums of money whose words are remembered
YARD_M = Decimal("0.9144")
PRICED_PER = {
    "half metre": Decimal("0.5"),
    "10 cm": Decimal("0.1"),
    "half yard": YARD_M / 2,
    "quarter yard": YARD_M / 4,
}  # m
SHOWS = {"opaque": "not see-through", "semi-sheer": "semi-sheer", "sheer": "see-through"}
PRINTED = {"all-over": "all-over print", "two-way": "print without an up or down", "one-way": "print that runs one way"}
OTHER_WORDS = {
    "viscose": ("viscose", "rayon"),
    "elastane": ("elastane", "spandex"),
    "polyamide": ("polyamide", "nylon"),
    "linen": ("linen", "flax"),
}


@lru_cache(SAID)
def _money(amount: Decimal, currency: str, locale: str) -> str:
    """Remembered, for prices come again on every page, and the library reads its patterns anew for each."""
    if not currency:
        return format_decimal(amount, "#,##0.00", locale=locale)
    return format_currency(amount, currency, locale=locale)


@dataclass(frozen=True)
class Voice:
    """How this shop speaks: which units and which vocabulary lead."""

    tables: Tables
    metric_first: bool = True
    british: bool = True
    price_per: str = ""  # of how much the shop says its prices; "": of a metre and a yard

    @property
    def units(self) -> Units:
        """The unit system that reasons are said in."""
        return Units.METRIC if self.metric_first else Units.IMPERIAL

    @classmethod
    def of(cls, settings: Mapping[str, str], tables: Tables) -> Voice:
        return cls(
            tables,
            settings.get("units", "metric") == "metric",
            settings.get("words", "viscose") == "viscose",
            settings.get("price per", ""),
        )

    def weight(self, gsm: float) -> str:
        return say_weight(gsm, self.metric_first)

    def width(self, cm: float) -> str:
        return say_width(cm, self.metric_first)

    def length(self, metres: float) -> str:
        return say_length(metres, self.metric_first)

    def body(self, cm: float) -> str:
        return self._both(f"{cm:.0f} cm", f"{halves(cm / CM_PER_INCH)} in")

    def price(self, per_m: Decimal | None, currency: str) -> str:
        """'£12.50/m (£11.43/yd)' or '£14.45 per quarter yard (£63.21/m, £57.80/yd)'; nothing where no price is known."""
        if per_m is None:
            return ""
        usual = self._both(f"{self.money(per_m, currency)}/m", f"{self.money(per_m * YARD_M, currency)}/yd")
        if self.price_per not in PRICED_PER:
            return usual
        own = f"{self.money(per_m * PRICED_PER[self.price_per], currency)} per {self.price_per}"
        return f"{own} ({usual.replace(' (', ', ').removesuffix(')')})"

    @property
    def locale(self) -> str:
        """The country whose way of writing dates and money goes with the shop's vocabulary."""
        return "en_GB" if self.british else "en_US"

    def money(self, amount: Decimal, currency: str) -> str:
        """'£12.50', as the shop's country writes it."""
        return _money(amount, currency, self.locale)

    def day(self, day: date) -> str:
        """'26 November 2026', or 'November 26, 2026'."""
        return format_date(day, "long", locale=self.locale)

    def lead(self, said: str) -> str:
        """Only the leading system of something said in both: '140 cm (55 in)' → '140 cm'."""
        return said.split(" (", maxsplit=1)[0]

    def _both(self, metric: str, imperial: str) -> str:
        return f"{metric} ({imperial})" if self.metric_first else f"{imperial} ({metric})"

    def body_range(self, low_cm: float, high_cm: float) -> str:
        """'90–143 cm (35–56 in)'."""
        return self._both(f"{_span(low_cm, high_cm)} cm", f"{_span(low_cm / CM_PER_INCH, high_cm / CM_PER_INCH)} in")

    def weight_range(self, low_gsm: float, high_gsm: float) -> str:
        """'140–210 g/m² (4.1–6.2 oz/yd²)'."""
        ounces = _span(oz_yd2_from_gsm(low_gsm), oz_yd2_from_gsm(high_gsm), 1)
        return self._both(f"{_span(low_gsm, high_gsm)} g/m²", f"{ounces} oz/yd²")

    def fibre(self, name: str) -> str:
        """A fibre in the leading vocabulary, the other in brackets where they differ."""
        if name not in OTHER_WORDS or name == "linen":
            return name
        ours, theirs = OTHER_WORDS[name]
        return f"{ours} ({theirs})" if self.british else f"{theirs} ({ours})"

    def fibres(self, content: FibreContent | None) -> str:
        if content is None:
            return "fibres not stated"
        if not content.shares:
            return content.label
        return ", ".join(f"{share * 100:.3g} % {self.fibre(name)}" for name, share in content.by_share.items())

    def fibre_notes(self, content: FibreContent | None) -> list[str]:
        """What its fibres are known for: 'viscose (rayon): weak when wet and shrinks'."""
        known = self.tables.fibres.by_name
        return [f"{self.fibre(name)}: {known[name].note}" for name in (content.shares if content else ()) if known[name].note]

    def look(self, cloth: Cloth) -> list[str]:
        """What one sees of it: its kind, whether it shows, its print and nap."""
        kind = cloth.type.name if cloth.type else f"{cloth.structure} cloth, kind not known"
        printed = PRINTED.get(cloth.print.direction or "")
        found = [kind, SHOWS.get(cloth.sheerness, cloth.sheerness), printed or "", "with a nap" if cloth.nap else ""]
        return [each for each in found if each]

    def told(self, cloth: Cloth) -> list[str]:
        """The facts for a viewer: what one sees, then the numbers without how each is known."""
        weight, width = self.weight(cloth.weight.best), self.width(cloth.width.best)
        about = "about " if cloth.weight.low < cloth.weight.high else ""
        parts = [*self.look(cloth), self.fibres(cloth.fibres), f"{about}{weight}"]
        parts += [f"{width} wide", f"{hand_word(cloth.bending_length.best, self.tables)} to the hand"]
        if cloth.stretch_cross.best >= self.tables.judging.fibre.comfort_stretch_pct.low:
            parts.append(f"stretches about {cloth.stretch_cross.best:.0f} % across")
        return parts

    def facts(self, cloth: Cloth) -> list[str]:
        """What one sees, then fibre, weight, width, stretch and handle, each with how it is known."""
        parts = [*self.look(cloth), self.fibres(cloth.fibres)]
        how = cloth.weight.known.word
        parts.append(f"{self.weight_range(cloth.weight.low, cloth.weight.high)}, {how}")
        parts.append(f"{self.width(cloth.width.best)} wide, {cloth.width.known.word}")
        if cloth.stretch_cross.best >= self.tables.judging.fibre.comfort_stretch_pct.low:
            parts.append(f"stretches about {cloth.stretch_cross.best:.0f} % across, {cloth.stretch_cross.known.word}")
        word = hand_word(cloth.bending_length.best, self.tables)
        parts.append(f"{word} handle (bends at {cloth.bending_length.best:.1f} cm, {cloth.bending_length.known.word})")
        return parts


def halves(inches: float) -> str:
    """Inches to the nearest half, as size tables are printed: 30.5 → '30½'."""
    whole, half = divmod(round(2 * inches), 2)
    return f"{whole if whole or not half else ''}{'½' if half else ''}"


def _span(low: float, high: float, places: int = 0) -> str:
    """One number, or two with a dash where they differ as written."""
    one, other = f"{low:.{places}f}", f"{high:.{places}f}"
    return one if one == other else f"{one}–{other}"


def hand_word(bend_cm: float, tables: Tables) -> str:
    """The hand word for a bending length in cm: a range that holds it, of two the one whose middle is nearer."""
    hands = tables.cloth_hands.values()
    return min(
        hands,
        key=lambda hand: (not hand.bend_cm.low <= bend_cm <= hand.bend_cm.high, abs(hand.bend_cm.middle - bend_cm)),
    ).word


@lru_cache(maxsize=4096)
def colour_word(colour: str) -> str:
    """A word a presenter can say for a colour like '#24404a'."""
    return nearest_name(read_hex(colour), colour_names()).name
