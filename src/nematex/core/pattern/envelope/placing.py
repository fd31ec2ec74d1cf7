"""Parts and layers: 'sleeves: tulle', 'bib lined in lawn', 'ribbing for the cuffs', 'the rest in tweed'."""

from __future__ import annotations

from nematex.core.cloth.lexicon import key
from nematex.core.pattern.envelope.clause import ALSO, Condition, nouns
from nematex.core.pattern.envelope.conditional import Conditional
from nematex.core.pattern.envelope.conditions import condition_of
from nematex.core.pattern.envelope.grammar import Chunk, Phrase
from nematex.core.pattern.envelope.walk import ENDS, LOOK_AHEAD
from nematex.core.pattern.envelope.words import Item

WITH = ("with", "in", "mit")
LINE = ("line", "lining", "füttern", "futtern")
BESIDE_A_PART = ("part", "layer", "join", "filler", "detail", "only", "positive", "idle")

ASIDE = ("filler", "join", "only", "weight", "unknown", "detail", "hand", "stretch", "idle")  # 'for the sleeveless version'


class Placing(Conditional):
    """Parts and layers."""

    def _role(self, role: str, at: int) -> int:
        """A layer that what follows is for."""
        return self._enter(role, at, 1)

    def _part(self, item: Item, at: int) -> int:
        """'Sleeves: dotted tulle', 'bands in ribbing', 'bib lined in lawn': what follows is the part's."""
        if taken := self._left_off(item, at):
            return taken
        roles, place = [self._role_of(item)], at + 1
        lining = item.kind == "part" and item.value[0] == "lining"
        verb = self._line(at)
        while isinstance(chunk := self._bare(place), Item) and (chunk.kind in BESIDE_A_PART or (verb and chunk.words in WITH)):
            if verb and chunk.words in WITH:  # 'line the bodice with lawn'
                self._took(verb)
                return self._enter(f"{_singular(item.words)} lining" if roles[0] else "lining", at, place - at + 1)
            if (chunk.words == "with" and self._trims(at)) or _says_in(chunk):
                return self._enter(roles[0], at, place - at + 1)
            if chunk.kind == "part" and chunk.value[0] == "lining" and not lining:
                roles, lining = [f"{_singular(item.words)} lining"], True
            elif chunk.kind in ("part", "layer"):
                roles.append(self._role_of(chunk))
            place += 1
        roles = roles[1:] if roles[0] == "contrast" and roles[1:] else roles  # 'contrast collar in velvet'
        if isinstance(chunk, Item) and (chunk.words == ":" or chunk.kind in ("in", "such")):
            self._adjectives_of_the_part(item, roles[0])
            return self._enter(roles[0], at, place - at)
        if isinstance(chunk, Item) and chunk.kind == "lined in":
            return self._enter(f"{_singular(item.words)} lining" if roles[0] else "lining", at, place - at + 1)
        if isinstance(chunk, Item) and chunk.kind in ("also", "only") and self._noun_ahead(place):
            self.open.scope.standing = ALSO if chunk.kind == "also" else self.open.scope.standing
            self._took(chunk)
            return self._enter(roles[0], at, place - at + 1)
        return 1

    def _line(self, at: int) -> Item | None:
        """The verb, where it stands shortly before a part."""
        before = (each for each in reversed(self.chunks[max(0, at - 3) : at]) if isinstance(each, Item))
        return next((each for each in before if each.words in LINE), None)

    def _bare(self, at: int) -> Chunk | None:
        """The chunk here; 'fabric' by itself ('lining fabric: cupro') is a word beside others."""
        chunk = self._at(at)
        if isinstance(chunk, Phrase) and chunk.noun.kind == "fabric" and not chunk.adjectives:
            return Item("filler", None, chunk.noun.words, chunk.noun.start, chunk.noun.end)
        return chunk

    def _trims(self, at: int) -> bool:
        return any(isinstance(each, Item) and each.kind == "trim" for each in self.chunks[max(0, at - 3) : at])

    def _adjectives_of_the_part(self, part: Item, role: str) -> None:
        """'A light lining such as habotai': the weight is asked of the lining."""
        for clause in self.open.piece:
            if clause.kind in ("weight", "hand", "stretch") and 0 <= part.start - clause.end <= 2:
                clause.role = role

    def _detail(self, item: Item, at: int) -> int | None:
        """'Ties of satin ribbon': a detail that is made of something is a part for the while."""
        if taken := self._left_off(item, at):
            return taken
        after = self._at(at + 1)
        of = isinstance(after, Item) and after.kind == "in" and after.words in ("of", "in", "from", "aus")
        return self._enter(str(item.value), at, 2) if of and self._noun_ahead(at + 2) else None

    def _garment(self, item: Item, at: int) -> int | None:
        """'Velvet for the collar, coat in melton': the garment's own cloth, behind a part's."""
        after = self._at(at + 1)
        told = isinstance(after, Item) and after.kind == "in" and self.tables.garments.find(item.words) is not None
        if told and self.open.scope.role:
            return self._enter("", at, 2)
        return self._letter(item, at)

    def _rest(self, item: Item, _: int) -> None:
        self.open.scope.role = ""
        self._took(item)

    def _for(self, _: Item, at: int) -> int:
        """'for the sleeves', 'for view B', 'for views A and B', 'for the long version'."""
        place = at + 1
        while isinstance(chunk := self._at(place), Item) and chunk.kind in ASIDE:
            if chunk.kind == "filler" and self._is_letter(chunk):
                break
            place += 1
        if isinstance(chunk, Item) and chunk.kind in ("part", "layer"):
            return self._for_part(chunk, at, place)
        following = [each for each in self.chunks[at + 1 : at + 1 + LOOK_AHEAD] if isinstance(each, Item)]
        if following and self._is_letter(following[0]) and (views := self._letters(following)):
            return 1 + self._viewed(views, at + 1, self._extent(at + 1, len(views)))
        if isinstance(chunk, Item) and chunk.kind == "version":
            return self._for_version(at, place)
        return 1

    def _for_version(self, at: int, place: int) -> int:
        """'for the long version', 'for the version without the tucks'."""
        words = [each for each in self.chunks[at : place + 1] if isinstance(each, Item)]
        after, extra = self._at(place + 1), 0
        if isinstance(after, Item) and after.kind == "without":
            extra = 3 if isinstance(self._at(place + 2), Item) else 1
            words += [each for each in self.chunks[place + 1 : place + 1 + extra] if isinstance(each, Item)]
        said = " ".join(word.words for word in words)
        condition = condition_of(words[place + 1 - at :], self.tables) if extra else None
        if self._placed(condition or Condition("other", said, said), place + 1 + extra):
            self._took_all(words)
        return place + 1 + extra - at

    def _for_part(self, part: Item, at: int, place: int) -> int:
        now, role = self.open, self._role_of(part)
        last = nouns(now.piece)[-1:]
        if last and last[0].role == "lining":  # 'denim, with a cotton lining for the bib'
            last[0].role = f"{_singular(part.words)} lining"
            self._took(part)
            return place - at + 1
        named = [clause for clause in now.piece if not clause.role]
        if not nouns(named):
            return self._enter(role, at, place - at + 1)
        for clause in named:
            clause.role = role
        self._took(part)
        while isinstance(more := self._at(place + 1), Item) and more.kind in ("join", "part", "layer", "filler"):
            place += 1
        return place - at + 1

    def _version(self, _: Item, at: int) -> None:
        """'Double gauze (shorts version only)': words that name a version are a condition on what stands before."""
        first = at
        while isinstance(before := self._at(first - 1), Item) and before.kind not in ENDS:
            first -= 1
        words = [each for each in self.chunks[first : at + 1] if isinstance(each, Item) and each.kind != "only"]
        said = " ".join(word.words for word in words)
        if len(words) > 1 and not self.open.piece and self.open.bind(Condition("other", said, said)):
            self._took_all(words)


def _says_in(word: Item) -> bool:
    """'Sleeves look lovely in …'."""
    return word.kind in ("positive", "filler") and word.words.endswith(" in")


def _singular(words: str) -> str:
    return key(words.rsplit(maxsplit=1)[-1])
