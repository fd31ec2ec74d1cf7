"""Nouns for cloths and structures, with the adjectives before and behind them, and the part that they are for."""

from __future__ import annotations

from nematex.core.cloth.lexicon import key
from nematex.core.pattern.envelope.clause import ALSO, FIRM, PRACTISED
from nematex.core.pattern.envelope.grammar import Phrase
from nematex.core.pattern.envelope.narrowed import narrow
from nematex.core.pattern.envelope.saying import Saying
from nematex.core.pattern.envelope.words import Item


class Naming(Saying):
    """Nouns for cloths and structures, with the adjectives before and behind them, and the part that they are for."""

    def _phrase(self, phrase: Phrase, at: int) -> int:
        noun, now = phrase.noun, self.open
        if now.scope.gives_up:
            now.scope.gives_up = False
            self._took(noun)
            return 1
        taken, role = self._role_behind(at)
        was = now.scope.role
        now.scope.role = role or was
        if noun.kind == "fabric":
            self._say_all(phrase.adjectives)
        elif noun.kind == "structure":
            taken += self._structure(phrase, at)
        else:
            self._cloth(phrase, at)
        now.scope.role = was
        return taken

    def _role_behind(self, at: int) -> tuple[int, str]:
        """'Rib bands', 'a velvet collar': how many chunks the phrase takes, and the part that it is for."""
        after = self._at(at + 1)
        if isinstance(after, Item) and after.kind in ("part", "layer"):
            behind = self._next(at + 2, "filler")
            main = after.kind == "part" and self.tables.parts.by_key[after.value[1]].main
            if not main and (behind is None or (behind.kind not in ("in", "lined in") and behind.words != ":")):
                return 2, self._role_of(after)
        return 1, ""

    def _structure(self, phrase: Phrase, at: int) -> int:
        """'Light wovens' asks light of wovens; 'no thin knits' and 'not for knits that are thin' rule out those knits alone."""
        now, structure = self.open, str(phrase.noun.value)
        behind, taken = self._adjectives_behind(at)
        was, now.scope.structure = now.scope.structure, structure
        self._say_all([*phrase.adjectives, *behind])
        now.scope.structure = was
        kind_of = any(word.kind in ("weight", "hand", "stretch") for word in (*phrase.adjectives, *behind))
        if not (now.scope.out and kind_of):
            said = now.say("structure", phrase.noun, structure)
            said.kind_of = kind_of
            if self._begins_with_or() and self._other_structure_asked(structure):
                said.standing = ALSO  # 'any light woven. Or use a knit for comfort.'
        else:
            self._took(phrase.noun)
        return taken

    def _begins_with_or(self) -> bool:
        first = self._at(0)
        return isinstance(first, Item) and first.words in ("or", "oder")

    def _other_structure_asked(self, structure: str) -> bool:
        return any(
            each.kind == "structure" and each.value != structure and each.standing in FIRM and not each.out
            for each in self.open.clauses
        )

    def _adjectives_behind(self, at: int) -> tuple[list[Item], int]:
        """'Knits that are thin or very stretchy': the adjectives, and how many chunks they take."""
        first, found, place, last = self._at(at + 1), [], at + 1, at
        if not (isinstance(first, Item) and first.kind == "filler" and first.words.split()[0] in ("that", "which")):
            return [], 0
        while isinstance(chunk := self._at(place), Item) and chunk.kind in ("filler", "join", "weight", "hand", "stretch"):
            if chunk.kind not in ("filler", "join"):
                found.append(chunk)
                last = place
            place += 1
        return found, last - at

    def _cloth(self, phrase: Phrase, at: int) -> None:
        noun, now = phrase.noun, self.open
        weight, hand, gsm, others = now.scope.weight, None, None, []
        for word in phrase.adjectives:
            figure = self.figures[word.value] if word.kind == "figure" else None
            if word.kind == "weight":
                weight = str(word.value)
                self._weight_said(word)
            elif word.kind == "hand":
                hand = self.tables.pattern_hands.get(word.value)
            elif figure and figure.kind == "gsm":
                gsm = figure.span
            else:
                others.append(word)
            self._took(word)
        self._say_all(others)
        if weight is None and not phrase.adjectives:
            weight = self._carried(at)
        clause = now.say("cloth", noun)
        clause.types, clause.hand = noun.value, None if clause.out else hand
        clause.start = phrase.start
        narrow(clause, weight, gsm, self.tables)
        if key(noun.words) == "stable knit" and not clause.out:
            of_knits = clause.standing in (ALSO, PRACTISED)
            now.say("stretch", noun, "stable", noun.words).structure = "knit" if of_knits else ""
            now.piece.pop()

    def _carried(self, at: int) -> str | None:
        """'Light linen and cotton': the weight reaches over the 'and'."""
        before = self._at(at - 1)
        if isinstance(before, Item) and before.kind == "join" and self.open.piece and self.open.piece[-1].kind == "cloth":
            return self.open.piece[-1].weight
        return None
