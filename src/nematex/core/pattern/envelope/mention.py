"""What a clause holds while it is read: named cloths as objects, so that what follows them can bind to them.

A clause runs to the end of its sentence. Its polarity (asked or ruled out) belongs to it; a bracket opens one inside it.
"""

from __future__ import annotations

from dataclasses import dataclass, field, replace

from nematex.core.pattern.envelope.interpretation import Condition, NamedCloths
from nematex.core.quantity.estimate import Range
from nematex.core.tables import HandWord


@dataclass(eq=False)
class Mention:
    """One noun for cloths, with the weight, condition and part that bind to it."""

    words: str
    types: tuple[str, ...]
    avoided: bool
    weight: str | None = None
    gsm: Range | None = None
    condition: Condition | None = None
    part: str | None = None
    said: str = ""
    hand: HandWord | None = None
    whole: bool = False

    def named(self) -> NamedCloths:
        return NamedCloths(
            self.said, self.types, self.weight, self.gsm, self.condition, self.part, self.words, self.hand, self.whole
        )


@dataclass
class Clause:
    """The state of a sentence: its polarity, whether that ends at a comma, the part spoken of, and what it has named.

    `run` are the nouns since the last comma: a condition or a part reaches those. `named` and `structures` are all of
    the sentence's, for a predicate at its end ("knits are not suitable").
    """

    avoid: bool = False
    until_comma: bool = False
    part: str | None = None
    run: list[Mention] = field(default_factory=list)
    named: list[Mention] = field(default_factory=list)
    structures: list[str] = field(default_factory=list)
    structure: str | None = None  # the structure that a number after it speaks of
    hands_before: int = 0
    outer: Clause | None = None  # where this one is in brackets, the clause around it

    def bracket(self) -> Clause:
        """A clause inside this one: a "not" in brackets ends with them."""
        return replace(self, until_comma=False, outer=self)
