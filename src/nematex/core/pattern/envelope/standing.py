"""How firmly something is said: ruled out, also possible, for practised hands; and comparisons with a cloth everybody knows."""

from __future__ import annotations

from math import inf
from statistics import median

from nematex.core.pattern.envelope.clause import ALSO, PRACTISED, Clause, Condition, nouns
from nematex.core.pattern.envelope.grammar import Phrase
from nematex.core.pattern.envelope.views import Views
from nematex.core.pattern.envelope.walk import ENDS, LOOK_AHEAD
from nematex.core.pattern.envelope.words import Item
from nematex.core.quantity.estimate import Range


class Standing(Views):
    """How firmly something is said."""

    def _weak(self, item: Item, at: int) -> int | None:
        after = self._at(at + 1)
        if item.words == "non" and isinstance(after, Phrase) and after.adjectives:
            was, self.open.scope.out = self.open.scope.out, "word"  # 'non-clingy knits' are knits
            self._say_all(after.adjectives)
            self.open.scope.out = was
            self._took(item)
            return 1 + self._phrase(Phrase((), after.noun), at + 1)
        self.open.scope.out = self.open.scope.out or "word"
        self._took_if_followed(item, at)
        return None

    def _negative(self, item: Item, at: int) -> None:
        now = self.open
        after = self._next(at + 1, "filler")
        ends = self._at(at + 1) is None or (after is not None and after.words == ";")
        rest = [each for each in self.chunks[at + 1 :] if not (isinstance(each, Item) and each.kind == "filler")]
        if (ends or not rest) and not now.scope.out and now.turn_about():
            self._took(item)
            return
        now.scope.out = "list"
        self._took_if_followed(item, at)

    def _fails(self, item: Item, at: int) -> int | None:
        now = self.open
        if not now.segment or (not nouns(now.segment) and self._noun_ahead(at + 1)):
            now.scope.out = "list"
            self._took_if_followed(item, at)
        elif now.scope.out or now.turn_about():  # 'avoid velvet, it is too thick' says once more what was said
            self._took(item)
            after = self._at(at + 1)
            if item.words.endswith("too") and isinstance(after, Item) and after.kind in ("weight", "hand", "stretch"):
                self._took(after)  # 'velvet is too heavy'
                return 2
        return None

    def _except(self, item: Item, at: int) -> int | None:
        if taken := self._except_view(at):
            return taken
        # 'soft but not clingy: double gauze' rules out what is clingy, and no cloth behind the colon
        self.open.scope.out = "list" if self._noun_ahead(at + 1) or item.words.split()[0] not in ("but", "aber") else "word"
        self._took_if_followed(item, at)
        return None

    def _except_view(self, at: int) -> int:
        """'Poplin, except for view B': how many chunks it takes; 0 where no view follows."""
        view = self._next(at + 1, "for", "filler", "in")
        if view is None or view.kind != "view" or not self.open.named():
            return 0
        end = next(place for place, chunk in enumerate(self.chunks) if chunk is view)
        views = self._letters([each for each in self.chunks[end + 1 : end + 1 + LOOK_AHEAD] if isinstance(each, Item)])
        said = f"not for view {' and '.join(each.upper() for each in views)}"
        if not views or not self.open.bind(Condition("other", said, said)):
            return 0
        after = self._extent(end + 1, len(views))
        self._took_all([each for each in self.chunks[at:after] if isinstance(each, Item)])
        return after - at

    def _positive(self, *_: object) -> None:
        self.open.scope.out = self.open.head.out if self.open.head.out == "list" and self.open.usual_out else ""

    def _remark(self, item: Item, at: int) -> int:
        """'Stiffer fabrics will give a boxier shape' tells what happens and asks nothing."""
        now, place = self.open, at
        for clause in [each for each in now.segment if each.kind in ("hand", "weight")]:
            now.clauses.remove(clause)
            now.segment.remove(clause)
            self.took.add(clause.start)
        now.piece = [each for each in now.piece if each in now.segment]
        at += 1
        while (chunk := self._at(at)) is not None and not (isinstance(chunk, Item) and chunk.kind in ENDS):
            self.took.add(chunk.start)
            at += 1
        self._took(item)
        return at - place

    def _standing(self, item: Item, at: int, standing: str) -> None:
        """'Also linen' speaks of what follows, 'linen works too' of what stands before."""
        now = self.open
        after, around = self._at(at + 1), now.around[-1] if now.around else None
        closes = isinstance(after, Item) and after.words == ")"
        if around and closes and not around[1] and self._noun_ahead(at + 2):
            around[0].standing = standing  # 'tweed, or (at a pinch) moleskin'
            self._took(item)
            return
        colon = self._next(at + 1, "filler", "fabric")
        if self._noun_ahead(at + 1) or (colon is not None and colon.words == ":"):
            practised = standing == ALSO and now.scope.standing == PRACTISED  # 'with practice also silk'
            if not (practised or (standing == ALSO and self._only_before(at))):  # 'only view C can be made in jersey'
                now.scope.standing = standing
            self._took(item)
        elif now.stand(standing, every=item.words.split()[0] in ("are", "sind") and self._is_list(at)):
            self._took(item)
        else:
            now.scope.standing = standing

    def _is_list(self, at: int) -> bool:
        """Whether 'A, B and C' stands before this, so that 'are also …' speaks of all three."""
        before = [each for each in self.chunks[:at] if isinstance(each, Item)]
        last = max((place for place, each in enumerate(before) if each.kind == "stop"), default=-1)
        joins = [each for each in before[last + 1 :] if each.kind == "join"]
        return bool(joins) and any(each.words == "," for each in before[last + 1 :])

    def _only_before(self, at: int) -> bool:
        return any(isinstance(each, Item) and each.kind == "only" for each in self.chunks[:at])

    def _swap(self, item: Item, _: int) -> None:
        self.open.scope.gives_up, self.open.scope.standing = True, ALSO
        self._took(item)

    def _unsaid(self, clauses: list[Clause]) -> None:
        """Take back what took no effect, so that it is told as not read."""
        gone = {id(clause) for clause in clauses}
        self.took -= {clause.start for clause in clauses}
        for said in (self.open.clauses, self.open.segment, self.open.piece):
            said[:] = [clause for clause in said if id(clause) not in gone]

    def _than(self, item: Item, at: int) -> int:
        """'Heavier than a lawn, but not as heavy as quilting cotton': a limit by a cloth that everybody knows."""
        if item.value == "other":  # 'no corduroy wider than 8 wale' rules out no other corduroy, and is not read
            self._unsaid([clause for clause in self.open.piece if clause.out])
            return 1
        place = at + 1
        while isinstance(chunk := self._at(place), Item) and chunk.kind == "filler":
            place += 1
        if not (isinstance(chunk, Phrase) and chunk.noun.kind == "cloth"):
            return 1
        rows = [self.tables.lexicon.get(name) for name in chunk.noun.value]
        middle = median(row.weight_gsm.middle for row in rows)
        span = Range(middle, inf) if item.value == "heavier" else Range(0.0, middle)
        said = self.open.say("gsm", item, span, f"{item.words} {chunk.noun.words}")
        said.end = chunk.end
        self._took_all([item, *chunk.adjectives, chunk.noun])
        return place + 1 - at

    def _unless_practised(self, item: Item, _: int) -> None:
        """'Not for velvet unless you are experienced': those who are may."""
        for clause in nouns(self.open.segment):
            clause.standing = PRACTISED
            self._took(item)
