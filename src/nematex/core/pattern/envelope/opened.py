"""What is open while a sentence is read: what holds for all of it, and what was named since its last comma."""

from __future__ import annotations

from copy import copy

from nematex.core.pattern.envelope.clause import ALSO, OUT, Clause, Condition, Scope, nouns
from nematex.core.pattern.envelope.narrowed import left_by
from nematex.core.pattern.envelope.words import Item


class Opened:
    """Clauses are added here; conditions, parts and standings that come behind them reach back to those they speak of."""

    def __init__(self, usual_out: bool) -> None:
        self.usual_out = usual_out
        self.clauses: list[Clause] = []
        self.begin()

    # -- sentences and their pieces --------------------------------------------------------------

    def begin(self) -> None:
        """A new sentence."""
        self.head = Scope(out="list" if self.usual_out else "")
        self.part()
        self.around: list[tuple[Scope, list[Clause], list[Clause]]] = []

    def part(self) -> None:
        """A new part of the sentence, as after ';' or 'but': what its heading said still holds."""
        self.scope = copy(self.head)
        self.segment: list[Clause] = []
        self.piece: list[Clause] = []
        self.before: list[Clause] = []

    def turn(self) -> None:
        """'… but': a new part of the sentence, whose condition may still speak of what was just named."""
        named = self.piece or self.before
        self.part()
        self.before = named

    def comma(self) -> None:
        if self.piece:
            self.before = self.piece
        self.piece = []
        if self.scope.out == "word":
            self.scope.out = self.head.out

    def colon(self) -> None:
        """What was read so far is a heading: it holds to the end of the sentence, a single 'not' only up to here."""
        self.scope.out = self.head.out if self.scope.out == "word" else self.scope.out
        self.head = copy(self.scope)
        self.segment, self.piece, self.before = [], [], []

    def open_bracket(self) -> None:
        self.around.append((copy(self.scope), self.piece, self.before))
        self.before = self.piece or self.before
        self.piece = []

    def close_bracket(self) -> None:
        if self.around:
            self.scope, self.piece, self.before = self.around.pop()

    # -- what is said ----------------------------------------------------------------------------

    def say(self, kind: str, item: Item, value: object = None, words: str = "") -> Clause:
        scope = self.scope
        clause = Clause(
            kind,
            words or item.words,
            OUT if scope.out else scope.standing,
            value,
            structure=scope.structure,
            role=scope.role,
            views=scope.views,
            conditions=list(scope.conditions),
            start=item.start,
            end=item.end,
        )
        self.clauses.append(clause)
        self.segment.append(clause)
        self.piece.append(clause)
        return clause

    def named(self) -> list[Clause]:
        """The cloths and structures that what comes behind speaks of: since the last comma, else of the piece before it."""
        return nouns(self.piece) or nouns(self.before)

    def turn_about(self) -> bool:
        """'… are not suitable': what this part of the sentence has named is ruled out; whether there was anything."""
        named = [clause for clause in self.segment if not clause.out]
        for clause in named:
            if clause.kind == "cloth" and clause.gsm and (rest := left_by(clause.gsm)):
                clause.gsm = rest  # 'denim over 14 oz is too heavy' leaves the lighter ones
                continue
            clause.standing = OUT
            if clause.kind_of:  # 'heavy knits are not suitable' leaves the others
                self.clauses.remove(clause)
        return bool(named)

    def stand(self, standing: str = ALSO, every: bool = False) -> bool:
        """'… works too': how firmly the cloths just named stand, or `every` one of this part; whether there are any."""
        named = [clause for clause in (nouns(self.segment) if every else self.named()) if not clause.out]
        for clause in named:
            clause.standing = standing
        return bool(named)

    def bind(self, condition: Condition) -> bool:
        """A condition on the cloths just named; whether there are any."""
        out = bool(self.around[-1][0].out if self.around else self.scope.out)
        named = [clause for clause in self.named() if clause.out == out]
        for clause in named:
            clause.conditions.append(condition)
        return bool(named)
