"""Adjectives and numbers that stand alone, or behind the cloth that they speak of."""

from __future__ import annotations

from nematex.core.cloth.lexicon import key
from nematex.core.pattern.envelope.clause import Condition, nouns
from nematex.core.pattern.envelope.grammar import Phrase
from nematex.core.pattern.envelope.narrowed import left_by, narrow
from nematex.core.pattern.envelope.numbers import Figure, names_direction
from nematex.core.pattern.envelope.walk import Walk
from nematex.core.pattern.envelope.words import Item
from nematex.core.quantity.estimate import Range


class Saying(Walk):
    """Adjectives and numbers that stand alone, or behind the cloth that they speak of."""

    def _weight(self, item: Item, _: int) -> None:
        self.open.say("weight", item, item.value)

    def _hand(self, item: Item, at: int) -> int | None:
        after = self._at(at + 1)
        if item.words in self.tables.parts.by_key and isinstance(after, Item) and (after.kind == "in" or after.words == ":"):
            return self._enter("", at, 2 if after.kind == "in" else 1)  # 'the body in jersey' is no hand
        clause = self.open.say("hand", item, item.value)
        clause.whole = not any(each.kind == "cloth" for each in self.open.segment)
        return None

    def _alone(self, item: Item, at: int) -> None:
        after = self._at(at + 1)
        if isinstance(after, Item) and after.kind in ("part", "detail") and "band" in (after.value, after.value[0]):
            was, self.open.scope.role = self.open.scope.role, "band"  # 'stretchy rib bands'
            self._say_alone(item)
            self.open.scope.role = was
        else:
            self._say_alone(item)

    def _say_alone(self, item: Item) -> None:
        kind = "elastane" if item.kind == "fibre" and item.value == "elastane" else item.kind
        if kind == "fibre" and self.open.scope.role:
            return
        if kind == "sheer" and not self.open.scope.out:
            sheers = tuple(each.name for each in self.tables.lexicon.groups["sheer fabrics"])
            self.open.say("cloth", item).types = sheers
            self.open.clauses[-1].whole = True
            return
        words = item.words
        if kind == "stretch" and self._words_before(item).endswith("very"):
            words = f"very {words}"
        self.open.say(kind, item, item.value, words)

    def _words_before(self, item: Item) -> str:
        return key(self.text[max(0, item.start - 12) : item.start])

    def _figure(self, item: Item, at: int) -> None:
        figure, now = self.figures[item.value], self.open
        if figure.kind == "elastane":
            self._elastane(item, figure)
            return
        if figure.kind == "gsm" and self._of_the_noun_before(item, at, figure):
            return
        if figure.kind == "width" and not figure.low:
            return  # no rule asks a cloth to be narrow: it stays unread
        if figure.kind == "percent":
            self._second_limit(item, figure)
            return
        every_way = figure.kind == "cross" and not names_direction(figure.words) and self._is_said("stretch", "both")
        clause = now.say("both" if every_way else figure.kind, item, figure.span, figure.words)
        ruled = next((each for each in reversed(now.piece[:-1]) if each.kind == "structure"), None)
        if ruled and (figure.kind == "gsm" or ruled.out):
            clause.structure = ruled.value  # 'wovens up to 150 g/m²'
            if ruled.out and ruled in now.clauses:
                self.took.add(ruled.start)
                now.clauses.remove(ruled)  # 'avoid knits over 300 g/m²' rules out no other knit
                now.segment.remove(ruled)

    def _is_said(self, kind: str, value: str) -> bool:
        return any(each.kind == kind and each.value == value and not each.out for each in self.open.segment)

    def _second_limit(self, item: Item, figure: Figure) -> None:
        """'At least 25 % stretch, but not more than 40 %': the other edge of what was just said."""
        stretch = [each for each in self.open.clauses if each.kind in ("cross", "length", "both") and not each.out]
        if not stretch:
            return
        last = stretch[-1]
        low, high = max(last.value.low, figure.low), min(last.value.high, figure.high)
        if low <= high:
            last.value, last.words = Range(low, high), f"{last.words}, {figure.words}"
            self._took(item)

    def _elastane(self, item: Item, figure: Figure) -> None:
        span = Range(figure.low, figure.high)
        if figure.limits and self.open.named():
            self.open.bind(Condition("elastane", f"{span.low:g}-{span.high:g}", f"with {figure.words}"))
            self._took(item)
        else:
            self.open.say("elastane", item, span, figure.words)

    def _of_the_noun_before(self, item: Item, at: int, figure: Figure) -> bool:
        """'Denim (8 to 10 oz)', 'linen, no lighter than 150 gsm': the number belongs to the cloth before it."""
        now = self.open
        named = now.piece or now.before
        cloth = named[-1] if named and named[-1].kind == "cloth" else None
        if cloth is None:
            return False
        bracket = bool(now.around)
        turned = bracket and now.scope.out != now.around[-1][0].out
        span = left_by(figure.span) if turned or (cloth.out != bool(now.scope.out)) else figure.span
        if span is None:
            return False
        before = self._at(at - 1)
        last = self._at(at + 1) is None and isinstance(before, Item) and before.words == ","
        if last and figure.limits and not bracket and not cloth.out and len(nouns(now.segment)) > 1:
            return False  # 'poplin or lawn, max. 140 gsm' speaks of all
        self._took(item)
        if bracket or sum(isinstance(each, Phrase) for each in self.chunks) > 1:
            narrow(cloth, cloth.weight, span, self.tables)
            return True
        cloth.gsm = span  # 'denim, 4 to 6 oz': it is the only cloth, so the number speaks of all
        return False
