"""One rule held against n cloths. What was found are facts; `saying` turns them into words."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
from enum import Enum
from math import isfinite, nan

import numpy as np
from propcache.api import cached_property

from nematex.core.cloth.columns import ClothColumns
from nematex.core.judging.demand import Demand
from nematex.core.judging.verdict import SUITS, UNPROVEN, WITH_CARE, Origin, Verdict, Window, compare
from nematex.core.quantity.arrays import Codes, Floats, Mask
from nematex.core.quantity.elementwise import as_codes, at, somewhere, where
from nematex.core.quantity.estimate import STATED, TYPICAL
from nematex.core.quantity.kinds import Quantity
from nematex.core.rules import Rules
from nematex.core.tables import Detail, Tables


class Rule(Enum):
    """What the cloths were held against; the value is its name where a shop's records keep it."""

    ON_LIST = "list"
    UNSETTLED = "unsettled"
    RULED_OUT = "ruled out"
    CONDITION = "condition"
    USE = "use"
    NATURAL = "natural"
    FIBRE_NAMES = "fibre names"
    BREATHES = "breathes"
    FLAME = "flame"
    PRESS = "press"
    REFUSED = "refused"
    PRINT = "print"
    LIKE_NONE = "like none"
    UNLIKE = "unlike"
    FOREIGN = "foreign use"
    WEIGHT_LIST = "weight list"
    WEIGHT_NUMBER = "weight number"
    WEIGHT_DETAIL = "weight"
    WEIGHT_UNASKED = "weight unasked"
    BULK = "bulk"
    COVER = "cover"
    DRAPE_LIST = "drape list"
    DRAPE_RULED_OUT = "drape ruled out"
    DRAPE_DETAIL = "drape"
    FACING = "facing"
    LOOK = "look"
    DRAPE_UNASKED = "drape unasked"
    STRUCTURE = "structure"
    LEAST_STRETCH = "least stretch"
    LEAST_STRETCH_ALONG = "least stretch along"
    STRETCH_OF_LIST = "stretch of the list"
    STRETCH_BY_EASE = "stretch by ease"
    STRETCH_DETAIL = "stretch"
    MOST_STRETCH = "most stretch"
    BAND = "band"
    RECOVERY = "recovery"
    BAGS = "bags"
    WIDEST_PIECE = "widest piece"
    WIDTH_TABLE = "width table"
    WIDTH_DETAIL = "width"
    WIDTH_NUMBER = "width number"
    WIDTH_UNASKED = "width unasked"


# Rules whose window is what the list or the envelope's number asks: the ones a tape draws first.
OF_THE_ENVELOPE = (Rule.WEIGHT_LIST, Rule.WEIGHT_NUMBER, Rule.DRAPE_LIST)


class Asker(Enum):
    """Who asks: the words for each are in the sayings."""

    LIST = "list"
    ENVELOPE = "envelope"
    PATTERN = "pattern"
    KNITS_NAMED = "knits_named"
    DETAIL = "detail"
    BAND = "band"
    EASE = "ease"
    WORDS = "words"


@dataclass(frozen=True)
class Finding:
    """Verdict codes and margins of one rule for n cloths; margins are NaN where the rule has no number.

    `detail` is the row that asked, `numbers` what else decided, in the units of their names.
    """

    rule: Rule
    verdict: Codes
    margin: Floats
    window: Window | None = None
    asker: Asker = Asker.ENVELOPE
    detail: Detail | None = None
    numbers: Mapping[str, float] = field(default_factory=dict)

    @property
    def name(self) -> str:
        """As a shop's records keep it: 'weight list', 'refused gathers'."""
        named = self.detail and self.rule in (Rule.REFUSED, Rule.WEIGHT_DETAIL, Rule.DRAPE_DETAIL, Rule.STRETCH_DETAIL)
        named = named or self.rule in (Rule.BULK, Rule.WIDTH_DETAIL)
        return f"{self.rule.value} {self.detail.name}" if named and self.detail else self.rule.value

    def at_most(self, mask: Mask | bool, worst: Verdict = WITH_CARE) -> Finding:
        """The finding, no worse than `worst` where the mask holds."""
        if not somewhere(self.verdict):
            return self
        return self._with(where(mask & (self.verdict > worst), worst, self.verdict), self.margin)

    def passed(self, masks: tuple[Mask, Mask]) -> Finding:
        """No worse than suits where the first mask holds, and than with care where the second does."""
        return self.at_most(masks[0], SUITS).at_most(masks[1])

    def only(self, mask: Mask | bool) -> Finding:
        """The finding where the mask holds; elsewhere nothing is found."""
        if mask is True:
            return self
        return self._with(where(mask, self.verdict, SUITS), where(mask, self.margin, nan))

    def _with(self, verdict: Codes, margin: Floats) -> Finding:
        return Finding(self.rule, as_codes(verdict), margin, self.window, self.asker, self.detail, self.numbers)

    def alone(self, place: int) -> Finding:
        """The finding on one of the cloths, free of the arrays of all."""
        return self._with(at(self.verdict, place), at(self.margin, place))

    def speaks(self, place: int) -> bool:
        """Whether it concerns cloth number `place`: one that does not has nothing to say when all is well."""
        return self.window is None or isfinite(at(self.margin, place))


@dataclass(frozen=True)
class Comparison:
    """What a check works with: n cloths, what is demanded of them, and the tables."""

    cloths: ClothColumns
    demand: Demand
    tables: Tables

    @property
    def rules(self) -> Rules:
        return self.tables.judging

    def of_types(self, types: Iterable[int]) -> Mask:
        """Which cloths are of one of these types; a cloth of no known type (−1) is of none."""
        if not isinstance(self.cloths.type, np.ndarray):
            return self.cloths.type in types
        chosen = np.zeros(len(self.tables.lexicon.types) + 1, dtype=np.bool_)
        chosen[list(types)] = True
        member: Mask = chosen[self.cloths.type]
        return member

    @cached_property
    def named(self) -> Mask:
        return self.of_types(self.demand.named)

    @cached_property
    def welcome(self) -> Mask:
        """Cloths that a detail being made calls for by name."""
        return self.of_types(self.demand.once("welcome", self._welcome))

    def _welcome(self) -> frozenset[int]:
        index = self.tables.lexicon.index
        return frozenset(index[name] for detail in self.demand.made.all_details for name in detail.welcomes)

    @cached_property
    def alone(self) -> Mask:
        """Cloths that the list names by a noun that means no other."""
        return self.of_types(self.demand.alone)

    @cached_property
    def by_name(self) -> Mask:
        """Cloths that the list names by their own name, whether or not the noun means others as well."""
        return self.of_types(self.demand.by_name)

    @cached_property
    def as_its_name(self) -> Mask:
        """Cloths whose label, if there is one, is what a cloth of their name is usually made of."""
        labelled = self.cloths.main_fibre
        found: Mask = (labelled < 0) | self.tables.usual_fibres[self.cloths.type, labelled]
        return found

    def of_family(self, family: str) -> Mask | bool:
        """The wovens or the knits; every cloth where no family is meant."""
        return self.cloths.knit == (family == "knit") if family else True

    def by_construction(self, quantity: Quantity, detail: Detail | None = None) -> tuple[Mask, Mask]:
        """Whom the list lets pass in this quantity, as long as no number says otherwise: who suits, who is with care.

        What is within the range that its kind usually has is what the designer had in mind when she named the kind.

        A cloth named by a noun of its own suits, but for what only an option asks; one of a group is with care.
        """
        column = self.cloths.of(quantity)
        outranks = detail is None or self.demand.outranks(detail)
        # A linen of any weight is a linen in how it hangs; how heavy it may be the other linens say as well.
        suits = self.by_name if quantity is Quantity.BENDING_LENGTH else self.alone
        usual = self._as_usual if quantity is Quantity.BENDING_LENGTH else False
        guessed = (column.known == TYPICAL) | ((column.known < STATED) & usual)
        return suits & guessed & outranks, self.named & ((column.known < STATED) | usual)

    @cached_property
    def _as_usual(self) -> Mask:
        """Cloths that bend as their kind usually does, and no otherwise."""
        bend, (low, high) = self.cloths.bending_length, self.tables.usual_bends
        found: Mask = (bend.low >= low[self.cloths.type]) & (bend.high <= high[self.cloths.type])
        return found

    def applies(self, detail: Detail) -> Mask | bool:
        """Which cloths a detail speaks of."""
        return self.of_family("" if detail.structure == "any" else detail.structure)

    def against_window(self, rule: Rule, window: Window, asker: Asker, detail: Detail | None = None) -> Finding:
        """The window's own quantity of every cloth, held against it."""
        column = self.cloths.of(window.quantity)
        compared = compare(column, window, self.rules.shares)
        finding = Finding(rule, compared.verdict, compared.margin, window, asker, detail)
        # Where even the kind of cloth is a guess, nothing is ruled out by what is typical of it.
        guess = self.cloths.guessed | (self.cloths.type < 0)
        return finding.at_most(guess & (column.known == TYPICAL), UNPROVEN)

    def flat(
        self, rule: Rule, verdict: Codes | Mask | int = SUITS, asker: Asker = Asker.ENVELOPE, detail: Detail | None = None
    ) -> Finding:
        """A finding without a number; suits everything where no verdict is given."""
        return Finding(rule, as_codes(self.cloths.each(verdict)), self.cloths.each(nan), asker=asker, detail=detail)


def of_detail(detail: Detail, field_name: str, value: float | None) -> Origin | None:
    """The origin of an edge that a detail asks for; None where it asks nothing there."""
    return None if value is None else Origin(f"the {detail.name}", "details", detail.name, field_name, value)
