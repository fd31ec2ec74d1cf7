"""Conditions and what they bind to: the cloths before them, else those behind."""

from __future__ import annotations

from collections.abc import Sequence

from nematex.core.pattern.envelope.clause import ALSO, Condition, nouns
from nematex.core.pattern.envelope.conditions import LINED, condition_of, of_views
from nematex.core.pattern.envelope.grammar import Phrase
from nematex.core.pattern.envelope.narrowed import left_by, narrow
from nematex.core.pattern.envelope.standing import Standing
from nematex.core.pattern.envelope.walk import ENDS, LOOK_AHEAD
from nematex.core.pattern.envelope.words import Item

FEW_WORDS = 6
BY_ITSELF = ("heavier", "lighter", "schwerer", "leichter")  # and nothing that it is compared with


class Conditional(Standing):
    """Conditions and what they bind to."""

    def _condition(self, item: Item, at: int) -> int:
        """'If lined', 'without the tucks', 'omit the tucks for velvet': how many chunks it takes."""
        words, nouns, taken = [item], [], 1
        for chunk in self.chunks[at + 1 : at + 1 + LOOK_AHEAD]:
            if isinstance(chunk, Item) and (chunk.kind in ENDS or chunk.kind == "turn"):
                break
            if isinstance(chunk, Phrase):
                if not self._inside_condition(words):
                    break
                nouns.append(chunk)
                words += [*chunk.adjectives, chunk.noun]
            elif chunk.kind == "for" and any(word.kind in ("detail", "part") for word in words):
                break
            elif chunk.kind in ("also", "fails", "join") and condition_of(words, self.tables):
                if chunk.kind != "join" or self._noun_ahead(at + taken):
                    break
                words.append(chunk)
            else:
                words.append(chunk)
            taken += 1
        return self._conditioned(item, at, words, nouns, taken)

    def _conditioned(self, item: Item, at: int, words: list[Item], nouns: list[Phrase], taken: int) -> int:
        now = self.open
        if now.piece and all(clause.words in BY_ITSELF for clause in now.piece):
            self._unsaid(now.piece)  # 'denim to 8 oz, or heavier if you omit the gathers': another edge, under a condition
            return taken
        ruled = [word for word in words[1:] if word.kind in ("stretch", "print", "fibre", "figure")]
        if item.kind == "without" and ruled and not any(word.kind in ("detail", "part") for word in words):
            was, now.scope.out = now.scope.out, "word"
            self._say_all(ruled[:1])
            now.scope.out = was
            self._took_all(words)
            return taken
        if any(word.kind == "sheer" for word in words[1:]):
            self._took_all(words)  # 'line if sheer' is advice and names no cloth
            return taken
        figure = next((self.figures[word.value] for word in words[1:] if word.kind == "figure"), None)
        condition = condition_of(words, self.tables)
        if nouns and not now.named() and (condition is None or condition.kind == "other"):
            self._possible(nouns, at)
            self._took_all(words)
            return taken
        if figure and figure.kind == "elastane":
            condition = Condition("elastane", f"{figure.low:g}-{figure.high:g}", " ".join(word.words for word in words))
        if condition and condition.kind == "other" and now.named() and self._about_what_is_named(words):
            return taken
        view = next((place for place, word in enumerate(words) if word.kind == "view"), None)
        if view is not None and (views := self._letters(words[view + 1 :])):
            condition = of_views(views)
        if condition is None:
            return 1
        if self._placed(condition, at + taken):
            self._took_all(words)
        self._lining_behind(words[-1], at + taken)
        return taken

    def _lining_behind(self, last: Item, after: int) -> None:
        """'If the yoke is lined in lawn': the cloth behind the condition is a lining's."""
        if last.kind == "lined in" and isinstance(self._at(after), Phrase):
            self.open.scope.role = "lining"

    def _possible(self, nouns: Sequence[Phrase], at: int) -> None:
        """'If you use a knit, …': it is possible."""
        was, self.open.scope.standing = self.open.scope.standing, ALSO
        for each in nouns:
            self._phrase(each, at)
        self.open.scope.standing = was

    def _about_what_is_named(self, words: list[Item]) -> bool:
        """'As long as it weighs less than 250 gsm', 'unless it is stretchy': what the cloth is, said as a condition."""
        now, named = self.open, self.open.named()[-1]
        turned = words[0].kind == "unless" or any(word.kind == "weak" for word in words)
        figure = next((self.figures[word.value] for word in words[1:] if word.kind == "figure"), None)
        stretch = next((word for word in words[1:] if word.kind == "stretch"), None)
        if figure and figure.kind == "gsm" and named.kind == "cloth":
            span = left_by(figure.span) if turned else figure.span
            if span is None:
                return False
            narrow(named, named.weight, span, self.tables)
        elif stretch:
            was, now.scope.out = now.scope.out, "word" if turned else now.scope.out
            structure, now.scope.structure = now.scope.structure, str(named.value) if named.kind == "structure" else ""
            self._say_all([stretch])
            now.scope.out, now.scope.structure = was, structure
        else:
            return False
        self._took_all(words)
        return True

    def _inside_condition(self, words: Sequence[Item]) -> bool:
        """Whether a cloth stands inside a condition ('if you use a knit'), and is not what the condition is about."""
        if condition_of(words, self.tables) and any(
            word.kind in ("detail", "part", "lined", "washed", "view", "layer") for word in words
        ):
            return False
        return words[0].kind != "without"

    def _placed(self, condition: Condition, after: int) -> bool:
        """Bind a condition to what it speaks of: the cloths before it, else those behind it."""
        now = self.open
        if now.piece and nouns(now.piece):
            return now.bind(condition)
        if self._inserted(condition, after):
            return True
        if self._noun_ahead(after) or not (now.segment or now.before):
            now.scope.conditions = (*now.scope.conditions, condition)
            return True
        return now.bind(condition)

    def _inserted(self, condition: Condition, after: int) -> bool:
        """'Wool crepe and, when underlined, silk dupion': what stands between 'and' and the cloth behind speaks of that one."""
        places = [at for at in range(after - 1, -1, -1) if isinstance(each := self._at(at), Item) and each.words == ","]
        comma = self._at(after)
        joined = places and isinstance(before := self._at(places[0] - 1), Item) and before.kind == "join"
        if not (joined and isinstance(comma, Item) and comma.words == "," and self._noun_ahead(after + 1)):
            return False
        self.open.scope.conditions = (*self.open.scope.conditions, condition)
        return True

    def _left_off(self, item: Item, at: int) -> int | None:
        """'(Tucks omitted)', 'with the tucks left out': the word stands behind what it leaves off."""
        place = at + 1
        while isinstance(chunk := self._at(place), Item) and chunk.kind == "filler":
            place += 1
        if not (isinstance(chunk, Item) and chunk.kind == "without"):
            return None
        after = self._at(place + 1)
        if isinstance(after, Item) and after.kind in ("detail", "part"):
            return None
        condition = condition_of([chunk, item], self.tables)
        if condition is None or condition.kind != "without" or not self._placed(condition, place + 1):
            return None
        self._took_all([item, chunk])
        return place + 1 - at

    def _lined(self, _: Item, at: int) -> None:
        """'(Lined)' and 'lined, choose crepe' are conditions; 'fully lined' alone tells of the garment."""
        now = self.open
        if now.around and now.around[-1][1]:
            now.bind(LINED)
        elif (comma := self._at(at + 1)) and isinstance(comma, Item) and comma.words == ",":
            if not now.segment:
                now.scope.conditions = (LINED,)
            elif not now.piece and isinstance(before := self._at(at - 1), Item) and before.words == ",":
                now.bind(LINED)  # 'tweed - underlined - or flannel'

    def _only(self, item: Item, at: int) -> int | None:
        """'Chiffon only lined' is a condition; every other 'only' is heard by what stands beside it."""
        self._took(item)
        after = self._at(at + 1)
        if isinstance(after, Item) and after.kind == "lined" and self.open.bind(LINED):
            self._took(after)
            return 2
        rest = self.chunks[at + 1 :]
        words = [each for each in rest if isinstance(each, Item) and each.kind in ("unknown", "filler")]
        structure = [each for each in self.open.named() if each.kind == "structure"]
        if structure and 0 < len(rest) == len(words) <= FEW_WORDS:  # 'wovens only one size larger'
            said = " ".join(word.words for word in words)
            self.open.bind(Condition("other", said, f"only {said}"))
            self._took_all(words)
            return 1 + len(words)
        return None

    def _unlined(self, _: Item, at: int) -> None:
        condition, comma = Condition("other", "unlined", "unlined"), self._at(at + 1)
        before = self._at(at - 1)
        inserted = isinstance(before, Item) and before.words == "," and self.open.before
        if self.open.around or self.open.piece or inserted:
            self.open.bind(condition)
        elif isinstance(comma, Item) and comma.words == ",":
            self.open.scope.conditions = (condition,)

    def _wants_lining(self, item: Item, _: int) -> None:
        """'Voile must be lined'."""
        if self.open.bind(LINED):
            self._took(item)

    def _washed(self, item: Item, _: int) -> None:
        if self.open.bind(Condition("washed", "washed", "once washed")):
            self._took(item)
