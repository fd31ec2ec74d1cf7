"""What the {blanks} of a saying stand for, each worked out only where it is asked for."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping

import numpy as np

from nematex.core.cloth.contradictions import unsettled
from nematex.core.cloth.lexicon import ClothType
from nematex.core.judging.checks.finding import Asker, Rule
from nematex.core.judging.saying.moment import Moment
from nematex.core.judging.verdict import Window
from nematex.core.quantity.estimate import Estimate, Known
from nematex.core.quantity.kinds import Quantity
from nematex.core.quantity.said import amount, number, sign, span

RAMP_DEGREES = 41.5  # ASTM D1388, from memory


def as_sentence(words: str) -> str:
    """A table's words as a sentence; nothing stays nothing."""
    return f"{words[:1].upper()}{words[1:]}." if words else ""


def is_many(words: str) -> bool:
    """Whether a name is said as several: shorts, trousers, gathers."""
    return words.endswith("s") and not words.endswith("ss")


def a_garment(words: str) -> str:
    """'a coat', 'an overshirt', 'trousers'."""
    if is_many(words):
        return words
    return f"{'an' if words[:1].casefold() in 'aeiou' else 'a'} {words}" if words else "a garment"


def made_for(kind: ClothType, words: Mapping[str, str]) -> str:
    """What a kind of cloth is made for: 'linings', 'dresses and slips'."""
    said = sorted(words[f"use_{use}"] for use in kind.end_uses)
    return words["and"].join([", ".join(said[:-1]), said[-1]] if said[1:] else said)


class Blanks(Mapping[str, str]):
    """The blanks of one moment, by name."""

    def __init__(self, moment: Moment) -> None:
        self.moment = moment
        self.words = moment.tables.sayings.words

    def __getitem__(self, name: str) -> str:
        return BLANKS[name](self)

    def __iter__(self) -> Iterator[str]:
        return iter(BLANKS)

    def __len__(self) -> int:
        return len(BLANKS)

    def known(self, estimate: Estimate, quantity: Quantity) -> str:
        """'1.3 cm (measured)' or '1.2 to 1.7 cm (typical for its name)'."""
        how = self.words["typical" if estimate.known is Known.TYPICAL else estimate.known.word]
        units, up_to = self.moment.units, self.words["up_to"]
        return f"{span(estimate.low, estimate.high, quantity.unit, quantity.places, units, up_to)} ({how})"

    def known_in(self, quantity: Quantity) -> str:
        return self.known(self.moment.estimate(quantity), quantity)

    def window(self, window: Window) -> str:
        """'60 to 215 g/m²', 'at most 0.65 mm', 'at least 25 %'."""
        kind, units = window.quantity, self.moment.units
        if window.low > 0 and np.isfinite(window.high):
            low, high = (number(edge, kind.unit, kind.places, units) for edge in (window.low, window.high))
            return f"{self.words['up_to'].format(low=low, high=high)} {sign(kind.unit, units)}"
        if np.isfinite(window.high):
            return self.words["at_most"].format(high=amount(window.high, kind.unit, kind.places, units))
        return self.words["at_least"].format(low=amount(window.low, kind.unit, kind.places, units))

    def asker(self) -> str:
        sayings, finding = self.moment.tables.sayings, self.moment.finding
        asker = Asker.DETAIL if finding.detail else finding.asker
        return sayings.askers[asker.value].format_map(self)

    def asks(self) -> str:
        return self.window(self.moment.window)

    def asker_asks(self) -> str:
        """'the list asks 60 to 215 g/m²', 'the gathers ask at most 220 g/m²'."""
        detail = self.moment.finding.detail
        many = detail is not None and is_many(detail.name)
        return f"{self.asker()} {self.words['asks_many' if many else 'asks_one']} {self.asks()}"

    def because(self) -> str:
        detail = self.moment.finding.detail
        return f": {detail.why}" if detail and detail.why else ""

    def aim(self) -> str:
        """Where in the window the wanted look aims; what words rule out has its middle."""
        looks, finding = self.moment.tables.judging.look, self.moment.finding
        look = "balanced" if finding.rule is Rule.DRAPE_RULED_OUT else self.moment.demand.wish.look
        target = self.moment.window.target(looks[look].share)
        if not target:
            return ""
        kind = self.moment.window.quantity
        return self.words["aim"].format(look=look, target=number(target, kind.unit, kind.places, self.moment.units))

    def kind(self) -> str:
        cloth = self.moment.cloth
        return cloth.type.name if cloth.type else self.words["some_cloth"].format(structure=cloth.structure)

    def fibres(self) -> str:
        cloth = self.moment.cloth
        if cloth.fibres and cloth.fibres.shares:
            return ", ".join(f"{share * 100:.0f} % {name}" for name, share in cloth.fibres.shares.items())
        if cloth.type is None:
            return self.words["no_fibres"]
        usual = self.words["or"].join(self.words["and"].join(blend) for blend in cloth.type.fibres)
        return self.words["usual_fibres"].format(usual=usual)

    def condition(self) -> str:
        cloth = self.moment.cloth
        if cloth.type is None:
            return ""
        at, asked = self.moment.tables.lexicon.index[cloth.type.name], self.moment.demand
        return asked.conditional[at] if at in asked.conditional else asked.elastane[at].words

    def kin(self) -> str:
        """The nearest of the cloths that the list names."""
        return self.moment.nearest_named().name

    def surface(self, of_kin: bool = False) -> str:
        kind = self.moment.nearest_named() if of_kin else self.moment.cloth.type
        return self.words[f"of_{kind.surface}"] if kind else ""

    def uses(self) -> str:
        """What the cloth is made for: 'linings', 'dresses and slips'."""
        kind = self.moment.cloth.type
        return made_for(kind, self.words) if kind else ""

    def kin_span(self, quantity: Quantity) -> str:
        row = self.moment.tables.lexicon.get(self.kin())
        usual = row.weight_gsm if quantity is Quantity.WEIGHT else row.bend_cm
        low, high = (number(end, quantity.unit, quantity.places, self.moment.units) for end in (usual.low, usual.high))
        return f"{self.words['up_to'].format(low=low, high=high)} {sign(quantity.unit, self.moment.units)}"

    def best(self, quantity: Quantity) -> str:
        best = self.moment.estimate(quantity).best
        return amount(best, quantity.unit, quantity.places, self.moment.units)

    def cm(self, name: str, bare: bool = False) -> str:
        """A length among the finding's numbers, in whole centimetres."""
        value = self.moment.finding.numbers[name]
        return number(value, "cm", 0, self.moment.units) if bare else amount(value, "cm", 0, self.moment.units)

    def of_detail(self, name: str) -> str:
        detail = self.moment.finding.detail
        return str(getattr(detail, name)) if detail else ""

    def press_why(self) -> str:
        return self.of_detail("why") if self.moment.finding.detail else self.words["presses"]

    def unless(self) -> str:
        other = self.of_detail("unless")
        return self.words["unless"].format(detail=other) if other else ""

    def recovery(self) -> str:
        return f"{self.moment.cloth.recovery.best:.0f} %" if self.moment.cloth.recovery else ""

    def elastane(self) -> str:
        usual = self.moment.tables.judging.recovery.elastane_pct
        return span(usual.low, usual.high, "%", 0, self.moment.units, self.words["up_to"])

    def from_words(self) -> str:
        origin = self.moment.window.low_from
        return origin.words if origin else ""

    def family(self) -> str:
        return self.words["knits" if self.moment.cloth.structure == "knit" else "wovens"]


def _capital(text: str) -> str:
    return text.capitalize()


BLANKS: Mapping[str, Callable[[Blanks], str]] = {
    "has": lambda blanks: blanks.known_in(blanks.moment.window.quantity),
    "asks": Blanks.asks,
    "asker": Blanks.asker,
    "asker_asks": Blanks.asker_asks,
    "because": Blanks.because,
    "why": lambda blanks: blanks.of_detail("why"),
    "mend": lambda blanks: as_sentence(blanks.of_detail("remedy")),
    "detail": lambda blanks: blanks.of_detail("name"),
    "unless": Blanks.unless,
    "aim": Blanks.aim,
    "kind": Blanks.kind,
    "contradiction": lambda blanks: unsettled(blanks.moment.cloth)[0].text,
    "Kind": lambda blanks: _capital(blanks.kind()),
    "fibres": Blanks.fibres,
    "condition": Blanks.condition,
    "use": lambda blanks: blanks.moment.cloth.type.use if blanks.moment.cloth.type else "",
    "fibres_ruled_out": lambda blanks: ", ".join(blanks.moment.demand.interpretation.avoid_fibres),
    "fibres_asked": lambda blanks: ", ".join(blanks.moment.demand.interpretation.fibres),
    "surface": Blanks.surface,
    "kin_surface": lambda blanks: blanks.surface(of_kin=True),
    "uses": Blanks.uses,
    "a_garment": lambda blanks: a_garment(blanks.moment.demand.pattern.garment),
    "press_why": Blanks.press_why,
    "press_mend": lambda blanks: as_sentence(blanks.of_detail("remedy") or blanks.words["edge_stitch"]),
    "weight": lambda blanks: blanks.best(Quantity.WEIGHT),
    "bend": lambda blanks: blanks.best(Quantity.BENDING_LENGTH),
    "kin": Blanks.kin,
    "kin_weight": lambda blanks: blanks.kin_span(Quantity.WEIGHT),
    "kin_bend": lambda blanks: blanks.kin_span(Quantity.BENDING_LENGTH),
    "weight_known": lambda blanks: blanks.known_in(Quantity.WEIGHT),
    "bend_known": lambda blanks: blanks.known_in(Quantity.BENDING_LENGTH),
    "width_known": lambda blanks: blanks.known_in(Quantity.WIDTH),
    "across_known": lambda blanks: blanks.known_in(Quantity.STRETCH_ACROSS),
    "along_known": lambda blanks: blanks.known_in(Quantity.STRETCH_ALONG),
    "sheerness": lambda blanks: blanks.moment.cloth.sheerness,
    "ramp": lambda _: f"{RAMP_DEGREES:g}",
    "stable": lambda blanks: f"{blanks.moment.tables.judging.knit_in_woven.stable_stretch_pct:.0f} %",
    "structure": lambda blanks: blanks.moment.cloth.structure,
    "family": Blanks.family,
    "A_structure": lambda blanks: blanks.words[f"a_{blanks.moment.cloth.structure}"],
    "a_pattern": lambda blanks: blanks.words[f"for_{blanks.moment.demand.structure}"],
    "axis": lambda blanks: blanks.words["along" if blanks.moment.window.quantity is Quantity.STRETCH_ALONG else "across"],
    "from_words": Blanks.from_words,
    "recovery": Blanks.recovery,
    "recovery_good": lambda blanks: f"{blanks.moment.tables.judging.recovery.good_pct:.0f} %",
    "elastane": Blanks.elastane,
    "piece": lambda blanks: blanks.cm("piece_cm"),
    "loss": lambda blanks: blanks.cm("loss_cm", bare=True),
    "narrowest": lambda blanks: blanks.cm("narrowest_cm"),
    "least": lambda blanks: blanks.cm("least_cm"),
    "sources": lambda blanks: " ".join(blanks.moment.window.sources),
}
