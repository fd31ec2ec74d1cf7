"""One rule held against n cloths, and how to say what it found for one of them."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from nematex.core.cloth import Cloth
from nematex.core.columns import ClothColumns
from nematex.core.demand import Demand
from nematex.core.estimate import Estimate, Known
from nematex.core.tables import Detail, Tables
from nematex.core.verdict import Codes, Column, Floats, Mask, Origin, Shares, Verdict, Window, compare

Words = tuple[str, str]  # a reason and a remedy, each "" where there is nothing to say
Say = Callable[[Cloth, Verdict], Words]


@dataclass(frozen=True)
class Finding:
    """Verdict codes and margins of one rule for n cloths; margins are NaN where the rule has no number."""

    rule: str
    verdict: Codes
    margin: Floats
    say: Say
    window: Window | None = None


@dataclass(frozen=True)
class Bench:
    """What a check works with."""

    cloths: ClothColumns
    demand: Demand
    tables: Tables

    @cached_property
    def shares(self) -> Shares:
        return Shares(**self.tables.judging["shares"])

    def of_types(self, types: Iterable[int]) -> Mask:
        """Which cloths are of one of these types; a cloth of no known type (−1) is of none."""
        chosen = np.zeros(len(self.tables.lexicon.types) + 1, dtype=np.bool_)
        chosen[list(types)] = True
        found: Mask = chosen[self.cloths.type]
        return found

    @cached_property
    def named(self) -> Mask:
        return self.of_types(self.demand.named)

    @cached_property
    def welcome(self) -> Mask:
        """Cloths that a detail being made calls for by name."""
        index = self.tables.lexicon.index
        return self.of_types(index[n] for d in self.demand.made.all_details for n in d.welcomes)

    def applies(self, detail: Detail) -> Mask:
        """Which cloths a detail speaks of."""
        if detail.structure == "any":
            return np.ones(len(self.cloths), dtype=np.bool_)
        same: Mask = self.cloths.knit == (detail.structure == "knit")
        return same

    def against_window(self, rule: str, column: Column, window: Window, say: Say) -> Finding:
        found = compare(column, window, self.shares)
        return Finding(rule, found.verdict, found.margin, say, window)

    def flat(self, rule: str, verdict: Codes, say: Say) -> Finding:
        """A finding without a number."""
        return Finding(rule, verdict.astype(np.int8), np.full(len(self.cloths), np.nan), say)


def at_most(finding: Finding, mask: Mask, worst: Verdict = Verdict.WITH_CARE) -> Finding:
    """The finding, no worse than `worst` where the mask holds."""
    verdict = np.where(mask & (finding.verdict > worst), worst, finding.verdict).astype(np.int8)
    return Finding(finding.rule, verdict, finding.margin, finding.say, finding.window)


def only(finding: Finding, mask: Mask) -> Finding:
    """The finding where the mask holds; elsewhere nothing is found."""
    verdict = np.where(mask, finding.verdict, Verdict.SUITS).astype(np.int8)
    return Finding(finding.rule, verdict, np.where(mask, finding.margin, np.nan), finding.say, finding.window)


def of_detail(detail: Detail, field: str, value: float | None) -> Origin | None:
    """The origin of an edge that a detail asks for; None where it asks nothing there."""
    return None if value is None else Origin(f"the {detail.name}", "details", detail.name, field, value)


def asked(part: str, asks: str) -> str:
    """'the list asks 60 to 215 g/m²', 'the gathers ask at most 220 g/m²'."""
    return f"{part} {'ask' if part.endswith('s') else 'asks'} {asks}"


def sentence(words: str) -> str:
    """A table's words as a sentence; nothing stays nothing."""
    return f"{words[:1].upper()}{words[1:]}." if words else ""


def number(value: float, unit: str) -> str:
    """A value as it is said aloud: cm and mm with one place, the rest whole."""
    places = {"cm": 1, "mm": 2, "cm wide": 0}.get(unit, 0)
    return f"{value:.{places}f}"


def say_estimate(estimate: Estimate, unit: str) -> str:
    """'1.3 cm (measured)' or '1.2 to 1.7 cm (typical for its name)'."""
    how = "typical for its name" if estimate.known is Known.TYPICAL else estimate.known.word
    shown = unit.removesuffix(" wide")
    low, high = number(estimate.low, unit), number(estimate.high, unit)
    span = low if low == high else f"{low} to {high}"
    return f"{span} {shown} ({how})"


def say_window(window: Window, unit: str) -> str:
    """'60 to 215 g/m²', 'at most 0.65 mm', 'at least 25 %'."""
    shown = unit.removesuffix(" wide")
    if window.low > 0 and np.isfinite(window.high):
        return f"{number(window.low, unit)} to {number(window.high, unit)} {shown}"
    if np.isfinite(window.high):
        return f"at most {number(window.high, unit)} {shown}"
    return f"at least {number(window.low, unit)} {shown}"
