"""From an envelope's words to a Reading.

Common practice, no source: a weight word belongs to its noun; "not suitable for" reaches to the end of its
sentence or to a word that turns it ("use", "instead"); "without the tucks" belongs to the cloths just named; what stands
in brackets speaks of the noun before them. What is not understood is unread, and no text whatever raises.
"""

from __future__ import annotations

from collections.abc import Callable
from math import inf

from nematex.core.cloth.lexicon import key
from nematex.core.pattern.envelope.mention import Clause, Mention
from nematex.core.pattern.envelope.numbers import Figure, lift_figures
from nematex.core.pattern.envelope.reading import Condition, Reading
from nematex.core.pattern.envelope.words import Item, items, normalise
from nematex.core.quantity.estimate import Range
from nematex.core.tables import Tables

LOOK_AHEAD = 9  # items that a condition may reach over
LONGEST_TEXT = 5000  # letters that are read; no envelope has more
CROSSES_ENDS = ("stop", "mark")
HANDED_ON = ("stretch", "print", "fibre")


class Cursor:
    """The items of a text and the place that is read."""

    def __init__(self, every: list[Item]) -> None:
        self.every = every
        self.place = 0

    def peek(self, steps: int = 1) -> Item | None:
        """The item so many steps ahead (or back, where negative); None beyond the ends."""
        place = self.place + steps
        return self.every[place] if 0 <= place < len(self.every) else None

    def ahead(self, most: int) -> list[Item]:
        return self.every[self.place + 1 : self.place + 1 + most]


class _Reader:
    """Walks the items once; what is open stands in the clause, a weight word and a number wait for their noun."""

    def __init__(self, reading: Reading, tables: Tables, figures: list[Figure], avoid: bool) -> None:
        self.reading = reading
        self.tables = tables
        self.rule = tables.judging.words
        self.figures = figures
        self.usual_avoid = avoid
        self.clause = Clause(avoid)
        self.mentions: list[Mention] = []
        self.weight: str | None = None
        self.carried: str | None = None
        self.gsm: Range | None = None
        self.gsm_words = ""
        self.unread: list[str] = []
        self.handlers: dict[str, Callable[[Item, Cursor], int | None]] = {
            "unknown": self._unknown,
            "stop": self._stop,
            "mark": self._mark,
            "such": lambda *_: self._flush_weight(),
            "fabric": lambda *_: self._flush_weight(),
            "weight": self._weight,
            "figure": self._figure,
            "structure": self._structure,
            "hand": self._hand,
            "remark": self._remark,
            "press": self._press,
            "natural": self._natural,
            "fibre": self._fibre,
            "stretch": self._stretch,
            "print": self._print,
            "sheer": self._sheer,
            "negative": self._negative,
            "weak": self._weak,
            "positive": self._positive,
            "cloth": self._cloth,
            "without": self._without,
            "if": self._if,
            "lined": self._lined,
            "for": self._for,
            "part": self._part,
        }

    # -- walking ---------------------------------------------------------------------------------

    def read(self, every: list[Item]) -> None:
        cursor = Cursor(every)
        while (item := cursor.peek(0)) is not None:
            if item.kind not in ("unknown", "filler"):
                self._flush_unread()
            handler = self.handlers.get(item.kind)
            cursor.place += (handler(item, cursor) if handler else None) or 1
        self._flush_weight()
        self._flush_unread()
        for mention in self.mentions:
            (self.reading.avoid_cloths if mention.avoided else self.reading.cloths).append(mention.named())

    @property
    def avoid(self) -> bool:
        return self.clause.avoid

    def _flush_weight(self) -> None:
        """A weight word without a noun of its own speaks of the whole garment."""
        if self.weight:
            (self.reading.avoid_weights if self.avoid else self.reading.weights).append(self.weight)
        if self.gsm:
            self._limit(self.gsm)
        self.weight = self.gsm = None

    def _limit(self, span: Range) -> None:
        """A number without a noun: a limit for the whole, or for the structure just named."""
        limit = _without(span) if self.avoid else span
        words, reading = f"{'not ' if self.avoid else ''}“{self.gsm_words}”", self.reading
        if limit is None:
            reading.unread.append(f"not {self.gsm_words}")
            return
        structure = self.clause.structure
        old = reading.gsm_of.get(structure) if structure else reading.gsm
        both = Range(max(old.low, limit.low), min(old.high, limit.high)) if old else limit
        if both.low > both.high:
            reading.unread.append(self.gsm_words)  # two numbers that no cloth can keep: the first one stands
        elif structure:
            reading.gsm_of[structure], reading.gsm_words = both, words
        else:
            reading.gsm, reading.gsm_words = both, words

    def _flush_unread(self) -> None:
        if self.unread:
            self.reading.unread.append(" ".join(self.unread))
        self.unread = []

    def _unknown(self, item: Item, _: Cursor) -> None:
        if not item.words.isdigit():
            self.unread.append(item.words)

    def _stop(self, *_: object) -> None:
        self._flush_weight()
        self.clause = Clause(self.usual_avoid, hands_before=len(self.reading.hands))
        self.carried = None

    def _mark(self, item: Item, _: Cursor) -> None:
        if item.value == ":":
            self._flush_weight()  # 'medium to heavy weight: denim, twill' speaks of all that follows
        elif item.value == "(":
            self.clause = self.clause.bracket()
        elif item.value == ")":
            self._close_bracket()
        elif item.value == ",":
            self._comma()

    def _comma(self) -> None:
        if self.gsm and self.clause.structure:
            self._limit(self.gsm)  # 'wovens up to 150 g/m², or knits from 200'
            self.gsm = None
        self.clause.run, self.carried, self.clause.structure = [], None, None
        if self.clause.until_comma:
            self.clause.avoid, self.clause.until_comma = self.usual_avoid, False

    def _close_bracket(self) -> None:
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
        left = _without(gsm) if gsm else self._beyond(weight, mention)
        if left:
            self._narrow(mention, mention.weight, left)
        else:
            self.reading.unread.append(f"not {self.gsm_words or weight}")

    def _beyond(self, weight: str | None, mention: Mention) -> Range | None:
        """What a weight word that is ruled out leaves of a noun's cloths."""
        structure = self.tables.lexicon.get(mention.types[0]).structure if mention.types else "woven"
        row = self.tables.weight_word(weight or "medium", structure)
        if weight in ("heavy", "medium to heavy"):
            return Range(0.0, row.cloth_gsm.low)
        return Range(row.cloth_gsm.high, inf) if weight in ("light", "light to medium") else None

    # -- numbers and words -----------------------------------------------------------------------

    def _weight(self, item: Item, _: Cursor) -> None:
        self._flush_weight()
        self.weight, self.carried = str(item.value), None
        self.reading.weight_said[self.weight] = item.words.removesuffix(" weight")

    def _figure(self, item: Item, _: Cursor) -> None:
        figure = self.figures[item.value]
        reading = self.reading
        if figure.kind == "gsm":
            if self.gsm:
                self._flush_weight()  # a second number without a noun: the first speaks for itself
            self.gsm, self.gsm_words = figure.gsm, figure.words
        elif self.avoid:
            reading.max_cross_pct, reading.most_stretch_words = figure.stretch_pct, f"not “{figure.words}”"
        else:
            reading.stretch_words = f"“{figure.words}”"
            if figure.kind in ("cross", "both"):
                reading.min_cross_pct = figure.stretch_pct
            if figure.kind in ("length", "both"):
                reading.min_length_pct = figure.stretch_pct

    def _structure(self, item: Item, _: Cursor) -> None:
        structure = str(item.value)
        if self.weight and not self.avoid and self.weight not in self.reading.weights:
            self.reading.weight_structures[self.weight] = structure
        if self.gsm and self.clause.structure is None:
            self.clause.structure = structure  # 'up to 150 g/m² wovens'
        self._flush_weight()
        self.clause.structure = structure
        self.clause.structures.append(structure)
        (self.reading.avoid_structures if self.avoid else self.reading.structures).add(structure)

    def _hand(self, item: Item, cursor: Cursor) -> None:
        after = next((other for other in cursor.every[cursor.place + 1 :] if other.kind not in ("weight", "filler")), None)
        if after and after.kind == "cloth" and not self.avoid:
            return  # 'soft denims': the word speaks of its noun, whose own range is known
        known = self.tables.avoid_hands if self.avoid else self.tables.pattern_hands
        if item.value in known:
            (self.reading.avoid_hands if self.avoid else self.reading.hands).append((item.words, known[item.value]))

    def _remark(self, *_: object) -> None:
        """'Stiffer fabrics will give a boxier shape' tells what happens and asks nothing."""
        del self.reading.hands[self.clause.hands_before :]

    def _press(self, *_: object) -> None:
        self.reading.presses = self.reading.presses or not self.avoid

    def _natural(self, *_: object) -> None:
        self.reading.natural = self.reading.natural or not self.avoid

    def _fibre(self, item: Item, _: Cursor) -> None:
        if item.value == "elastane":
            self.reading.recovers = self.reading.recovers or not self.avoid
        elif not self.clause.part:
            (self.reading.avoid_fibres if self.avoid else self.reading.fibres).append(str(item.value))

    def _stretch(self, item: Item, _: Cursor) -> None:
        reading = self.reading
        if item.value == "recovery":
            reading.recovers = True
        elif self.avoid or item.value == "rigid":
            if item.value != "stable":
                reading.max_cross_pct = self.rule.rigid_most_pct
                reading.most_stretch_words = f"{'not ' if self.avoid else ''}“{item.words}”"
        elif item.value == "stable":
            reading.max_cross_pct, reading.most_stretch_words = self.rule.stable_most_pct, f"“{item.words}”"
        elif reading.min_cross_pct is None:
            self._stretchy(item)

    def _stretchy(self, item: Item) -> None:
        """A word for stretch where no number has been said."""
        reading = self.reading
        reading.stretchy, reading.stretch_words = True, f"“{item.words}”"
        reading.min_cross_pct = self.rule.stretchy_least_pct if item.value == "stretchy" else self.rule.four_way_least_pct
        if item.value == "both":
            reading.min_length_pct = self.rule.four_way_least_pct

    def _print(self, item: Item, _: Cursor) -> None:
        if self.avoid:
            self.reading.avoid_prints.add(str(item.value))

    def _sheer(self, item: Item, _: Cursor) -> None:
        if self.avoid:
            self.reading.avoid_sheer = True
        else:
            self._mention(item.words, tuple(kind.name for kind in self.tables.lexicon.groups["sheer fabrics"]), None)

    # -- polarity --------------------------------------------------------------------------------

    def _negative(self, _: Item, cursor: Cursor) -> None:
        if self._ends_its_sentence(cursor) and not self.avoid and (self.clause.named or self.clause.structures):
            self._turn_about()
            return
        self._flush_weight()
        self.clause.avoid, self.clause.until_comma = True, False

    def _ends_its_sentence(self, cursor: Cursor) -> bool:
        """'Knits are not suitable.': nothing follows that could be ruled out."""
        after = next((item for item in cursor.every[cursor.place + 1 :] if item.kind != "filler"), None)
        return after is None or after.kind == "stop"

    def _turn_about(self) -> None:
        """What the sentence has named is ruled out by its end."""
        reading = self.reading
        if self.weight:
            reading.avoid_weights.append(self.weight)
            self.weight = None
        for mention in self.clause.named:
            mention.avoided = True
        for structure in self.clause.structures:
            reading.structures.discard(structure)
            reading.avoid_structures.add(structure)

    def _weak(self, *_: object) -> None:
        self._flush_weight()
        self.clause.avoid, self.clause.until_comma = True, True

    def _positive(self, *_: object) -> None:
        if self.avoid:
            self._flush_weight()
        self.clause.avoid, self.clause.until_comma = False, False

    # -- cloths ----------------------------------------------------------------------------------

    def _cloth(self, item: Item, cursor: Cursor) -> None:
        before, after = cursor.peek(-1), cursor.peek()
        weight = self.weight or (self.carried if before and before.kind == "join" else None)
        self._mention(item.words, item.value, weight)
        self.carried = weight
        if weight and after and (after.kind == "such" or after.words == ":"):
            # 'light to medium weight cottons: lawn, poplin': the noun is a heading, its weight speaks of the whole list.
            (self.reading.avoid_weights if self.avoid else self.reading.weights).append(weight)
        if not self.avoid and key(item.words) == "stable knit" and self.reading.max_cross_pct is None:
            self.reading.max_cross_pct, self.reading.most_stretch_words = self.rule.stable_most_pct, f"“{item.words}”"

    def _mention(self, words: str, types: tuple[str, ...], weight: str | None) -> None:
        mention = Mention(words, types, self.avoid, part=self.clause.part)
        self._narrow(mention, weight, self.gsm)
        self.mentions.append(mention)
        self.clause.run.append(mention)
        self.clause.named.append(mention)
        self.weight = self.gsm = None

    def _narrow(self, mention: Mention, weight: str | None, gsm: Range | None) -> None:
        """Of a group only the cloths of the weight named with it."""
        if (weight or gsm) and len(mention.types) > 1:
            mention.types = self._of_weight(mention.types, weight, gsm)
        mention.weight, mention.gsm = weight, gsm
        written = self.reading.weight_said.get(weight, weight) if weight else ""
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

    # -- conditions and parts --------------------------------------------------------------------

    def _without(self, _: Item, cursor: Cursor) -> int:
        return self._condition(cursor, without=True)

    def _if(self, _: Item, cursor: Cursor) -> int:
        return self._condition(cursor, without=False)

    def _condition(self, cursor: Cursor, without: bool) -> int:
        """'without the tucks', 'if you leave out the pleats', 'when lined': how many items it takes."""
        for step, item in enumerate(cursor.ahead(LOOK_AHEAD), 1):
            if item.kind in CROSSES_ENDS:
                break
            without = without or item.kind in ("without", "weak", "negative")
            detail = self.tables.details.find(item.words) if without and item.kind in ("detail", "part") else None
            if detail:
                self._qualify(Condition("without", detail.name, f"without the {item.words}"))
                return step + 1
            if item.kind == "lined":
                self._qualify(Condition("lined", "lined", "if lined"))
                return step + 1
            if item.kind == "sheer":
                return step + 1  # 'line if sheer' is advice and names no cloth
            if item.kind in HANDED_ON and without:
                was, self.clause.avoid = self.avoid, True
                self.handlers[item.kind](item, cursor)
                self.clause.avoid = was
                return step + 1
        return 1

    def _lined(self, *_: object) -> None:
        if self.clause.outer:
            self._qualify(Condition("lined", "lined", "if lined"))

    def _qualify(self, condition: Condition) -> None:
        for mention in self.clause.run:
            if mention.avoided == (self.clause.outer or self.clause).avoid:
                mention.condition = condition

    def _for(self, _: Item, cursor: Cursor) -> int:
        """'for the sleeves', 'for view B' and 'for views A and B' belong to the cloths just named."""
        for step, item in enumerate(cursor.ahead(4), 1):
            if item.kind == "part" and self.clause.run and item.value[0] != "body":
                for mention in self.clause.run:
                    mention.part = item.value[0]
                return step + 1
            if item.words in ("view", "views"):
                return self._for_views(cursor, step)
            if item.kind != "filler":
                break
        return 1

    def _for_views(self, cursor: Cursor, step: int) -> int:
        """The views after the word: a name, then names of one letter joined by commas and words."""
        first = cursor.peek(step + 1)
        if first is None or first.kind in CROSSES_ENDS:
            return step + 1
        views, taken = [first.words], step + 2
        while (item := cursor.peek(taken)) and (item.kind == "join" or item.words == "," or len(item.words) == 1):
            if item.words.isalpha() and len(item.words) == 1:
                views.append(item.words)
            elif not (after := cursor.peek(taken + 1)) or not (len(after.words) == 1 and after.words.isalpha()):
                break
            taken += 1
        names = " and ".join(view.upper() for view in views)
        self._qualify(Condition("view", "|".join(views), f"for view{'s' if len(views) > 1 else ''} {names}"))
        return taken

    def _part(self, item: Item, cursor: Cursor) -> None:
        """'Sleeves: dotted tulle' and 'sleeves in tulle' bind what follows, to the end of the sentence."""
        after = cursor.peek()
        if after and after.words in (":", "in"):
            self._flush_weight()
            self.clause.part = None if item.value[0] == "body" else item.value[0]


def _without(span: Range) -> Range | None:
    """What is left where a span is ruled out; None where that would be a hole."""
    if span.low <= 0:
        return Range(span.high, inf)
    return Range(0.0, span.low) if span.high == inf else None


def read_envelope(text: str, tables: Tables, avoid: bool = False, into: Reading | None = None) -> Reading:
    """Read recommended cloths (or, with `avoid`, cloths ruled out); what was not understood is in `unread`."""
    reading = into or Reading()
    reading.text = " / ".join(part for part in (reading.text, text) if part)
    if len(text) > LONGEST_TEXT:
        reading.unread.append(f"{text[LONGEST_TEXT : LONGEST_TEXT + 40]}… ({len(text) - LONGEST_TEXT} letters more)")
    plain, figures = lift_figures(normalise(text[:LONGEST_TEXT]), tables.judging.words.about)
    _Reader(reading, tables, figures, avoid).read(items(plain, tables))
    return reading
