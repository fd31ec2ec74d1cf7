"""Views: 'for view B', 'A and B:', 'boucle, view C only'."""

from __future__ import annotations

from collections.abc import Sequence

from nematex.core.pattern.envelope.clause import nouns
from nematex.core.pattern.envelope.conditions import of_views
from nematex.core.pattern.envelope.naming import Naming
from nematex.core.pattern.envelope.walk import ENDS, LOOK_AHEAD
from nematex.core.pattern.envelope.words import Item

JOINING = ("for", "in", "für", "fur", "aus")
COPULAS = {"is", "are", "be", "made", "best", "both", "cut", "sewn", "meant", "only", "ist", "sind", "gedacht", "nur", *JOINING}


class Views(Naming):
    """Views."""

    def _view(self, _: Item, at: int) -> int:
        """The views after the word: a name, then names of one letter joined by commas and words."""
        following = [each for each in self.chunks[at + 1 : at + 1 + LOOK_AHEAD] if isinstance(each, Item)]
        views = self._letters(following)
        if not views:
            return 1
        return self._viewed(views, at, self._extent(at + 1, len(views)))

    def _extent(self, place: int, count: int) -> int:
        """Behind how many chunks so many views have been named."""
        while count and isinstance(chunk := self._at(place), Item):
            count -= chunk.kind not in ("join",) and chunk.words not in (",", "/")
            place += 1
        return place

    def _viewed(self, views: list[str], at: int, after: int) -> int:
        now, condition = self.open, of_views(views)
        self._took_all([each for each in self.chunks[at:after] if isinstance(each, Item)])
        before = self._at(at - 1)
        behind = isinstance(before, Item) and before.kind == "for" and (now.piece or now.around)
        bracket = bool(now.around) and not now.piece
        alone = (
            bool(now.before) and not now.piece and self._ends(after) and not self._noun_ahead(after)
        )  # 'boucle, view C only'
        if behind or bracket or alone:
            for clause in now.named() if nouns(now.named()) else now.piece:
                clause.views = tuple(views)
                if clause.kind in ("cloth", "structure"):
                    clause.conditions.append(condition)
            return after - at
        now.scope.views = tuple(views)
        now.scope.conditions = (condition,)
        return after - at

    def _ends(self, at: int) -> bool:
        """Whether nothing but 'only' follows before the next mark."""
        after = self._next(at, "only")
        return after is None or after.kind in ENDS

    def _letters(self, words: Sequence[Item]) -> list[str]:
        """Names of views at the beginning of these words."""
        views: list[str] = []
        for place, word in enumerate(words):
            if word.kind == "join" or word.words in (",", "/"):
                following = words[place + 1] if place + 1 < len(words) else None
                if views and following is not None and self._is_letter(following):
                    continue
                break
            if (not views and word.kind in ("unknown", "filler")) or self._is_letter(word):
                views.append(word.words)
            else:
                break
        return views

    def _is_letter(self, item: Item) -> bool:
        written = self.text[item.start : item.end]
        return len(written) == 1 and (written.isupper() or written.isdigit())

    def _letter(self, item: Item, at: int) -> int | None:
        """'A and B: poplin': letters that stand as a heading are views; so are those in brackets, 'georgette (B only)'."""
        before = self._at(at - 1)
        if self._is_letter(item) and self.open.around and not self.open.piece:
            named = self._letters([each for each in self.chunks[at : at + LOOK_AHEAD] if isinstance(each, Item)])
            inside = self._extent(at, len(named))
            if self._ends(inside) and all(len(each) == 1 for each in named):
                return self._viewed(named, at, inside)
        begun = bool(self.open.segment) and (bool(self.open.piece) or not self.open.scope.views)  # 'A in linen, B in crepe'
        if not self._is_letter(item) or begun or (isinstance(before, Item) and self._is_letter(before)):
            return None
        following = [each for each in self.chunks[at : at + LOOK_AHEAD] if isinstance(each, Item)]
        views = [each for each in self._letters(following) if len(each) == 1]
        end = self._extent(at, len(views))
        after = self._heads(end)
        if views and after is not None:
            return after - at if self._viewed(views, at, end) else None
        return None

    def _heads(self, at: int) -> int | None:
        """Where what is said of views begins, if they head something: 'B: linen', 'A and B are for cotton', 'C in lawn'."""
        colon, place = self._at(at), at
        if isinstance(colon, Item) and colon.words == ":":
            return at
        said: list[str] = []
        while isinstance(chunk := self._at(place), Item) and {*chunk.words.split()} <= COPULAS:
            said += chunk.words.split()
            place += 1
        return place if said and said[-1] in JOINING and self._noun_ahead(place) else None
