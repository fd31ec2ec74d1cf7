"""Walking over the chunks of a sentence: what stands where, and which words have taken effect."""

from __future__ import annotations

from collections.abc import Callable, Sequence

from nematex.core.pattern.envelope.grammar import Chunk, Phrase
from nematex.core.pattern.envelope.numbers import Figure
from nematex.core.pattern.envelope.opened import Opened
from nematex.core.pattern.envelope.words import Item
from nematex.core.tables import Tables

LOOK_AHEAD = 12  # chunks that are looked over for what belongs together
ENDS = ("stop", "mark")
SAID_ALONE = ("natural", "press", "sheer", "print", "fibre", "stretch")
NOWHERE = -2  # of a word that stands in a phrase: nothing is looked for beside it
Handler = Callable[[Item, int], int | None]  # the word and its place; how many chunks it took, where not one


class Walk:
    """The chunks of the sentence in hand, and what is open in it. `handlers` is filled by the reader."""

    def __init__(self, text: str, tables: Tables, figures: Sequence[Figure], avoid: bool, said: dict[str, str]) -> None:
        self.text, self.tables, self.figures, self.said = text, tables, figures, said
        self.open = Opened(avoid)
        self.chunks: list[Chunk] = []
        self.took: set[int] = set()  # starts of words that took effect
        self.handlers: dict[str, Handler] = {}

    def _at(self, at: int) -> Chunk | None:
        return self.chunks[at] if 0 <= at < len(self.chunks) else None

    def _next(self, at: int, *skipped: str) -> Item | None:
        """The next single word that is none of these; None at an end or before a phrase."""
        chunk = self._at(at)
        while isinstance(chunk, Item) and chunk.kind in skipped:
            at += 1
            chunk = self._at(at)
        return chunk if isinstance(chunk, Item) else None

    def _noun_ahead(self, at: int) -> bool:
        """Whether a cloth or a structure follows before the next comma, bracket or stop."""
        for chunk in self.chunks[at : at + LOOK_AHEAD]:
            if isinstance(chunk, Phrase):
                if chunk.noun.kind != "fabric":
                    return True
            elif chunk.kind in ENDS or chunk.kind == "turn":
                return False
        return False

    def _took(self, item: Item, *_: object) -> None:
        self.took.add(item.start)

    def _took_all(self, words: Sequence[Item]) -> None:
        self.took.update(word.start for word in words)

    def _took_if_followed(self, item: Item, at: int) -> None:
        """A word that rules out has taken effect where something that can be ruled out follows it."""
        for chunk in self.chunks[at + 1 : at + 1 + LOOK_AHEAD]:
            if isinstance(chunk, Phrase) or chunk.kind in ("weight", "hand", "figure", "idle", *SAID_ALONE):
                self._took(item)
                return
            if chunk.kind == "stop":
                return

    def _say_all(self, words: Sequence[Item]) -> None:
        for word in words:
            self.handlers[word.kind](word, NOWHERE)

    def _role_of(self, item: Item) -> str:
        """The part that a word names; "" for the garment's own cloth."""
        if item.kind == "layer":
            return str(item.value)
        return "" if item.value[0] == "body" else str(item.value[0])

    def _enter(self, role: str, at: int, taken: int) -> int:
        self.open.scope.role = role
        self._took_all([each for each in self.chunks[at : at + taken] if isinstance(each, Item)])
        return taken

    def _weight_said(self, word: Item) -> None:
        self.said.setdefault(str(word.value), word.words.removesuffix(" weight"))
