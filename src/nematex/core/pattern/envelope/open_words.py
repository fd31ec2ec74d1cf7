"""What is open while an envelope is read: the clause, and a weight word or a number that waits for its noun."""

from __future__ import annotations

from math import inf

from nematex.core.pattern.envelope.interpretation import Interpretation
from nematex.core.pattern.envelope.mention import Clause, Mention
from nematex.core.quantity.estimate import Range
from nematex.core.tables import HandWord, Tables


class OpenWords:
    """Weight words and numbers are bound to the noun they speak of; one without a noun speaks of the whole garment."""

    def __init__(self, interpretation: Interpretation, tables: Tables, avoid: bool) -> None:
        self.interpretation = interpretation
        self.tables = tables
        self.rule = tables.judging.words
        self.usual_avoid = avoid
        self.clause = Clause(avoid)
        self.mentions: list[Mention] = []
        self.weight: str | None = None
        self.carried: str | None = None
        self.hand: HandWord | None = None
        self.gsm: Range | None = None
        self.gsm_words = ""

    @property
    def avoid(self) -> bool:
        return self.clause.avoid

    def flush_weight(self) -> None:
        """A weight word without a noun of its own speaks of the whole garment."""
        if self.weight:
            (self.interpretation.avoid_weights if self.avoid else self.interpretation.weights).append(self.weight)
        if self.gsm:
            self._limit(self.gsm)
        self.weight = self.gsm = None

    def _limit(self, span: Range) -> None:
        """A number without a noun: a limit for the whole, or for the structure just named."""
        limit = _left_by(span) if self.avoid else span
        words, interpretation = f"{'not ' if self.avoid else ''}“{self.gsm_words}”", self.interpretation
        if limit is None:
            interpretation.unread.append(f"not {self.gsm_words}")
            return
        structure = self.clause.structure
        old = interpretation.gsm_of.get(structure) if structure else interpretation.gsm
        both = Range(max(old.low, limit.low), min(old.high, limit.high)) if old else limit
        if both.low > both.high:
            interpretation.unread.append(self.gsm_words)  # two numbers that no cloth can keep: the first one stands
        elif structure:
            interpretation.gsm_of[structure], interpretation.gsm_words = both, words
        else:
            interpretation.gsm, interpretation.gsm_words = both, words

    def comma(self) -> None:
        if self.gsm and self.clause.structure:
            self._limit(self.gsm)  # 'wovens up to 150 g/m², or knits from 200'
            self.gsm = None
        self.clause.run, self.carried, self.clause.structure = [], None, None
        if self.clause.until_comma:
            self.clause.avoid, self.clause.until_comma = self.usual_avoid, False

    def close_bracket(self) -> None:
        """'denim (8 to 10 oz)', 'linen (no lighter than 150 gsm)': what is open belongs to the noun before the bracket."""
        inner, outer = self.clause, self.clause.outer
        if outer and outer.run and (self.weight or self.gsm):
            self._bind(outer.run[-1], inner.avoid != outer.avoid)
        self.clause = outer or inner

    def _bind(self, mention: Mention, turned: bool) -> None:
        """A weight or number to the noun before it; `turned` where it is ruled out for a noun that is asked, or the reverse."""
        weight, gsm = self.weight, self.gsm
        self.weight = self.gsm = None
        if not turned:
            self._narrow(mention, weight or mention.weight, gsm or mention.gsm)
            return
        left = _left_by(gsm) if gsm else self._beyond(weight, mention)
        if left:
            self._narrow(mention, mention.weight, left)
        else:
            self.interpretation.unread.append(f"not {self.gsm_words or weight}")

    def _beyond(self, weight: str | None, mention: Mention) -> Range | None:
        """What a weight word that is ruled out leaves of a noun's cloths."""
        structure = self.tables.lexicon.get(mention.types[0]).structure if mention.types else "woven"
        row = self.tables.weight_word(weight or "medium", structure)
        if weight in ("heavy", "medium to heavy"):
            return Range(0.0, row.cloth_gsm.low)
        return Range(row.cloth_gsm.high, inf) if weight in ("light", "light to medium") else None

    def turn_about(self) -> None:
        """What the sentence has named is ruled out by its end."""
        interpretation = self.interpretation
        if self.weight:
            interpretation.avoid_weights.append(self.weight)
            self.weight = None
        for mention in self.clause.named:
            mention.avoided = True
        for structure in self.clause.structures:
            interpretation.structures.discard(structure)
            interpretation.avoid_structures.add(structure)

    def name(self, words: str, types: tuple[str, ...], weight: str | None, whole: bool = False) -> None:
        mention = Mention(words, types, self.avoid, part=self.clause.part, hand=self.hand, whole=whole)
        self._narrow(mention, weight, self.gsm)
        self.mentions.append(mention)
        self.clause.run.append(mention)
        self.clause.named.append(mention)
        self.weight = self.gsm = self.hand = None

    def _narrow(self, mention: Mention, weight: str | None, gsm: Range | None) -> None:
        """Of a group only the cloths of the weight named with it."""
        if (weight or gsm) and len(mention.types) > 1:
            mention.types = self._of_weight(mention.types, weight, gsm)
        mention.weight, mention.gsm = weight, gsm
        written = self.interpretation.weight_said.get(weight, weight) if weight else ""
        mention.said = f"{written} {mention.words}" if written and written not in mention.words else mention.words

    def _of_weight(self, types: tuple[str, ...], weight: str | None, gsm: Range | None) -> tuple[str, ...]:
        overlaps = {}
        for name in types:
            row = self.tables.lexicon.get(name)
            span = gsm or self.tables.weight_word(weight or "medium", row.structure).pattern_gsm
            inside = min(span.high, row.weight_gsm.high) - max(span.low, row.weight_gsm.low)
            overlaps[name] = inside / min(row.weight_gsm.high - row.weight_gsm.low, max(span.high - span.low, 1.0))
        fitting = tuple(name for name in types if overlaps[name] >= self.rule.group_fits)
        return fitting or (max(types, key=lambda name: overlaps[name]),)


def _left_by(span: Range) -> Range | None:
    """What is left where a span is ruled out; None where that would be a hole."""
    if span.low <= 0:
        return Range(span.high, inf)
    return Range(0.0, span.low) if span.high == inf else None
