"""From an envelope's words to an Interpretation.

Common practice, no source: a weight word belongs to its noun; "not suitable for" reaches to the end of its
sentence or to a word that turns it ("use", "instead"); "without the tucks" belongs to the cloths just named; what stands
in brackets speaks of the noun before them. What is not understood is unread, and no text whatever raises.
"""

from __future__ import annotations

from nematex.core.cloth.lexicon import key
from nematex.core.pattern.envelope.conditions import LINED, Handler, qualify, read_condition, read_for, read_left_off
from nematex.core.pattern.envelope.interpretation import Interpretation
from nematex.core.pattern.envelope.kinds import adjectives, rule_out, ruled_out, speaks_of_a_band, speaks_of_a_kind
from nematex.core.pattern.envelope.mention import Clause
from nematex.core.pattern.envelope.numbers import Figure, lift_figures
from nematex.core.pattern.envelope.open_words import OpenWords
from nematex.core.pattern.envelope.words import Cursor, Item, items, normalise
from nematex.core.tables import Tables

LONGEST_TEXT = 5000  # letters that are read; no envelope has more
HANDED_ON = ("stretch", "print", "fibre")


class _Reader(OpenWords):
    """Walks the items once, each handed to the method of its kind."""

    def __init__(self, interpretation: Interpretation, tables: Tables, figures: list[Figure], avoid: bool) -> None:
        super().__init__(interpretation, tables, avoid)
        self.figures = figures
        self.unread: list[str] = []
        self.handlers: dict[str, Handler] = {
            "unknown": self._unknown,
            "stop": self._stop,
            "mark": self._mark,
            "such": lambda *_: self.flush_weight(),
            "fabric": lambda *_: self.flush_weight(),
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
            "for": lambda _, cursor: read_for(self, cursor),
            "part": self._part,
        }
        self.handed_on = {kind: self.handlers[kind] for kind in HANDED_ON}

    # -- walking ---------------------------------------------------------------------------------

    def read(self, every: list[Item]) -> None:
        cursor = Cursor(every)
        while (item := cursor.peek(0)) is not None:
            if item.kind not in ("unknown", "filler"):
                self._flush_unread()
            handler = self.handlers.get(item.kind)
            cursor.place += (handler(item, cursor) if handler else None) or 1
        self.flush_weight()
        self._flush_unread()
        for mention in self.mentions:
            (self.interpretation.avoid_cloths if mention.avoided else self.interpretation.cloths).append(mention.named())

    def _flush_unread(self) -> None:
        if self.unread:
            self.interpretation.unread.append(" ".join(self.unread))
        self.unread = []

    def _unknown(self, item: Item, _: Cursor) -> None:
        if not item.words.isdigit():
            self.unread.append(item.words)

    def _stop(self, *_: object) -> None:
        self.flush_weight()
        self.clause = Clause(self.usual_avoid, hands_before=len(self.interpretation.hands))
        self.carried = None

    def _mark(self, item: Item, _: Cursor) -> None:
        if item.value == ":":
            self.flush_weight()  # 'medium to heavy weight: denim, twill' speaks of all that follows
        elif item.value == "(":
            self.clause = self.clause.bracket()
        elif item.value == ")":
            self.close_bracket()
        elif item.value == ",":
            self.comma()

    # -- numbers and words -----------------------------------------------------------------------

    def _weight(self, item: Item, cursor: Cursor) -> None:
        if ruled_out(self, cursor) and speaks_of_a_kind(cursor):
            return
        self.flush_weight()
        self.weight, self.carried = str(item.value), None
        self.interpretation.weight_said[self.weight] = item.words.removesuffix(" weight")

    def _figure(self, item: Item, _: Cursor) -> None:
        figure = self.figures[item.value]
        interpretation = self.interpretation
        if figure.kind == "gsm":
            if self.gsm:
                self.flush_weight()  # a second number without a noun: the first speaks for itself
            self.gsm, self.gsm_words = figure.gsm, figure.words
        elif self.avoid:
            interpretation.max_cross_pct, interpretation.most_stretch_words = figure.stretch_pct, f"not “{figure.words}”"
        else:
            interpretation.stretch_words = f"“{figure.words}”"
            if figure.kind in ("cross", "both"):
                interpretation.min_cross_pct = figure.stretch_pct
            if figure.kind in ("length", "both"):
                interpretation.min_length_pct = figure.stretch_pct

    def _structure(self, item: Item, cursor: Cursor) -> int | None:
        structure = str(item.value)
        if ruled_out(self, cursor) and (kind := adjectives(cursor)):
            self.flush_weight()
            rule_out(self.interpretation, structure, kind.words, self.tables)
            return kind.taken
        if self.weight and not self.avoid and self.weight not in self.interpretation.weights:
            self.interpretation.weight_structures[self.weight] = structure
        if self.gsm and self.clause.structure is None:
            self.clause.structure = structure  # 'up to 150 g/m² wovens'
        self.flush_weight()
        self.clause.structure = structure
        self.clause.structures.append(structure)
        (self.interpretation.avoid_structures if self.avoid else self.interpretation.structures).add(structure)
        return None

    def _hand(self, item: Item, cursor: Cursor) -> None:
        if ruled_out(self, cursor) and speaks_of_a_kind(cursor):
            return
        after = next((other for other in cursor.every[cursor.place + 1 :] if other.kind not in ("weight", "filler")), None)
        known = self.tables.avoid_hands if self.avoid else self.tables.pattern_hands
        if after and after.kind == "cloth" and not self.avoid:
            self.hand = known.get(item.value)  # 'soft denims': the word narrows its noun, whose own range is known
            return
        if item.value not in known:
            return
        if self.avoid:
            self.interpretation.avoid_hands.append((item.words, known[item.value]))
            return
        self.interpretation.hands.append((item.words, known[item.value]))
        if not self.clause.named:
            self.interpretation.lifting.add(item.words)  # of all that follows, and no alternative to what was named

    def _remark(self, *_: object) -> None:
        """'Stiffer fabrics will give a boxier shape' tells what happens and asks nothing."""
        del self.interpretation.hands[self.clause.hands_before :]

    def _press(self, *_: object) -> None:
        self.interpretation.presses = self.interpretation.presses or not self.avoid

    def _natural(self, *_: object) -> None:
        self.interpretation.natural = self.interpretation.natural or not self.avoid

    def _fibre(self, item: Item, _: Cursor) -> None:
        if item.value == "elastane":
            self.interpretation.recovers = self.interpretation.recovers or not self.avoid
        elif not self.clause.part:
            (self.interpretation.avoid_fibres if self.avoid else self.interpretation.fibres).append(str(item.value))

    def _stretch(self, item: Item, cursor: Cursor) -> None:
        interpretation = self.interpretation
        if (ruled_out(self, cursor) and speaks_of_a_kind(cursor)) or speaks_of_a_band(cursor):
            return
        if item.value == "recovery":
            interpretation.recovers = True
        elif self.avoid or item.value == "rigid":
            if item.value != "stable":
                interpretation.max_cross_pct = self.rule.rigid_most_pct
                interpretation.most_stretch_words = f"{'not ' if self.avoid else ''}“{item.words}”"
        elif item.value == "stable":
            interpretation.max_cross_pct, interpretation.most_stretch_words = self.rule.stable_most_pct, f"“{item.words}”"
        elif interpretation.min_cross_pct is None:
            self._stretchy(item)

    def _stretchy(self, item: Item) -> None:
        """A word for stretch where no number has been said."""
        interpretation = self.interpretation
        interpretation.stretchy, interpretation.stretch_words = True, f"“{item.words}”"
        interpretation.min_cross_pct = (
            self.rule.stretchy_least_pct if item.value == "stretchy" else self.rule.four_way_least_pct
        )
        if item.value == "both":
            interpretation.min_length_pct = self.rule.four_way_least_pct

    def _print(self, item: Item, _: Cursor) -> None:
        if self.avoid:
            self.interpretation.avoid_prints.add(str(item.value))

    def _sheer(self, item: Item, _: Cursor) -> None:
        if self.avoid:
            self.interpretation.avoid_sheer = True
        else:
            sheers = tuple(kind.name for kind in self.tables.lexicon.groups["sheer fabrics"])
            self.name(item.words, sheers, None, whole=True)

    # -- polarity --------------------------------------------------------------------------------

    def _negative(self, _: Item, cursor: Cursor) -> None:
        if self._ends_its_sentence(cursor) and not self.avoid and (self.clause.named or self.clause.structures):
            self.turn_about()
            return
        self.flush_weight()
        self.clause.avoid, self.clause.until_comma = True, False

    def _ends_its_sentence(self, cursor: Cursor) -> bool:
        """'Knits are not suitable.': nothing follows that could be ruled out."""
        after = next((item for item in cursor.every[cursor.place + 1 :] if item.kind != "filler"), None)
        return after is None or after.kind == "stop"

    def _weak(self, *_: object) -> None:
        self.flush_weight()
        self.clause.avoid, self.clause.until_comma = True, True

    def _positive(self, *_: object) -> None:
        if self.avoid:
            self.flush_weight()
        self.clause.avoid, self.clause.until_comma = False, False

    # -- cloths ----------------------------------------------------------------------------------

    def _cloth(self, item: Item, cursor: Cursor) -> None:
        before, after = cursor.peek(-1), cursor.peek()
        weight = self.weight or (self.carried if before and before.kind == "join" else None)
        self.name(item.words, item.value, weight)
        if after and after.kind == "part" and not self.tables.parts.by_key[after.value[1]].main:
            self.mentions[-1].part = after.value[0]  # 'rib bands', 'a velvet collar'
        self.carried = weight
        if weight and after and (after.kind == "such" or after.words == ":"):
            # 'light to medium weight cottons: lawn, poplin': the noun is a heading, its weight speaks of the whole list.
            (self.interpretation.avoid_weights if self.avoid else self.interpretation.weights).append(weight)
        if not self.avoid and key(item.words) == "stable knit" and self.interpretation.max_cross_pct is None:
            self.interpretation.max_cross_pct, self.interpretation.most_stretch_words = (
                self.rule.stable_most_pct,
                f"“{item.words}”",
            )

    # -- conditions and parts --------------------------------------------------------------------

    def _without(self, _: Item, cursor: Cursor) -> int:
        return read_left_off(self, cursor) or read_condition(self, cursor, True, self.handed_on)

    def _if(self, _: Item, cursor: Cursor) -> int:
        return read_condition(self, cursor, False, self.handed_on)

    def _lined(self, *_: object) -> None:
        if self.clause.outer:
            qualify(self, LINED)

    def _part(self, item: Item, cursor: Cursor) -> None:
        """'Sleeves: dotted tulle' and 'sleeves in tulle' bind what follows, to the end of the sentence."""
        after = cursor.peek()
        if after and after.words in (":", "in"):
            self.flush_weight()
            self.clause.part = None if item.value[0] == "body" else item.value[0]


def read_envelope(text: str, tables: Tables, avoid: bool = False, into: Interpretation | None = None) -> Interpretation:
    """Read recommended cloths (or, with `avoid`, cloths ruled out); what was not understood is in `unread`."""
    interpretation = into or Interpretation()
    interpretation.text = " / ".join(part for part in (interpretation.text, text) if part)
    if len(text) > LONGEST_TEXT:
        interpretation.unread.append(f"{text[LONGEST_TEXT : LONGEST_TEXT + 40]}… ({len(text) - LONGEST_TEXT} letters more)")
    plain, figures = lift_figures(normalise(text[:LONGEST_TEXT]), tables.judging.words.about)
    _Reader(interpretation, tables, figures, avoid).read(items(plain, tables))
    return interpretation
