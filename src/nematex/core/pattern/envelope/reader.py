"""From an envelope's words to a Reading.

Common practice, no source: a weight word belongs to its noun; "not suitable for" reaches to the end of its
sentence or to a word that turns it ("use", "instead"); "without the tucks" belongs to the cloths just named.
"""

from __future__ import annotations

from dataclasses import replace

from nematex.core.cloth.lexicon import key
from nematex.core.pattern.envelope.numbers import Figure, lift_figures
from nematex.core.pattern.envelope.reading import Condition, NamedCloths, Reading
from nematex.core.pattern.envelope.words import Item, items, normalise
from nematex.core.quantity.estimate import Range
from nematex.core.tables import Tables

LOOK_AHEAD = 9


class _Reader:
    """Walks the items once; holds what is open: polarity, weight word, the nouns a condition may reach."""

    def __init__(self, reading: Reading, tables: Tables, figures: list[Figure], avoid: bool) -> None:
        self.reading = reading
        self.tables = tables
        self.rule = tables.judging.words
        self.figures = figures
        self.default_avoid = self.avoid = avoid
        self.weak = False
        self.weight: str | None = None
        self.carried: str | None = None
        self.gsm: Range | None = None
        self.gsm_words = ""
        self.run: list[int] = []
        self.part: str | None = None
        self.in_brackets = False
        self.hands_before = 0
        self.unread: list[str] = []

    # -- what is open is closed ------------------------------------------------------------------

    def _flush_weight(self) -> None:
        """A weight word without a noun of its own speaks of the whole garment."""
        if self.weight:
            target = self.reading.avoid_weights if self.avoid else self.reading.weights
            target.append(self.weight)
        if self.gsm:
            self._limit(self.gsm)
        self.weight = self.gsm = None

    def _limit(self, span: Range) -> None:
        if self.avoid:
            span = Range(span.high, float("inf")) if span.low == 0 else Range(0.0, span.low)
        old = self.reading.gsm
        self.reading.gsm_words = f"{'not ' if self.avoid else ''}“{self.gsm_words}”"
        self.reading.gsm = Range(max(old.low, span.low), min(old.high, span.high)) if old else span

    def _flush_unread(self) -> None:
        if self.unread:
            self.reading.unread.append(" ".join(self.unread))
        self.unread = []

    # -- one item at a time ----------------------------------------------------------------------

    def read(self, found: list[Item]) -> None:
        at = 0
        while at < len(found):
            item = found[at]
            if item.kind not in ("unknown", "filler"):
                self._flush_unread()
            step = getattr(self, f"_on_{item.kind}", None)
            at += (step(item, found, at) or 1) if step else 1
        self._flush_weight()
        self._flush_unread()

    def _on_unknown(self, item: Item, found: list[Item], at: int) -> None:
        if not item.words.isdigit():
            self.unread.append(item.words)

    def _on_stop(self, item: Item, found: list[Item], at: int) -> None:
        self._flush_weight()
        self.avoid, self.weak = self.default_avoid, False
        self.run, self.part, self.carried = [], None, None
        self.hands_before = len(self.reading.hands)

    def _on_mark(self, item: Item, found: list[Item], at: int) -> None:
        if item.value == ":":
            self._flush_weight()  # 'medium to heavy weight: denim, twill' speaks of all that follows
        if item.value in "()":
            if item.value == ")" and self.run and (self.weight or self.gsm):
                self._bind_backwards()
            self.in_brackets = item.value == "("
        if item.value == ",":
            self.run, self.carried = [], None
            if self.weak:
                self.avoid, self.weak = self.default_avoid, False

    def _bind_backwards(self) -> None:
        """'denim (8 to 10 oz)': a weight in brackets belongs to the noun before them."""
        cloths = self.reading.avoid_cloths if self.avoid else self.reading.cloths
        last = cloths[-1]
        cloths[-1] = self._named(last.noun, last.types, self.weight, self.gsm, last.condition, last.part)
        self.weight = self.gsm = None

    def _on_such(self, item: Item, found: list[Item], at: int) -> None:
        self._flush_weight()

    def _on_fabric(self, item: Item, found: list[Item], at: int) -> None:
        self._flush_weight()

    def _on_weight(self, item: Item, found: list[Item], at: int) -> None:
        self._flush_weight()
        self.weight, self.carried = item.value, None
        self.reading.weight_said[item.value] = item.words.removesuffix(" weight")

    def _on_figure(self, item: Item, found: list[Item], at: int) -> None:
        figure = self.figures[item.value]
        if figure.kind == "gsm":
            self.gsm, self.gsm_words = figure.gsm, figure.words
            return
        if self.avoid:
            self.reading.max_cross_pct, self.reading.most_stretch_words = figure.stretch_pct, f"not “{figure.words}”"
            return
        self.reading.stretch_words = f"“{figure.words}”"
        if figure.kind in ("cross", "both"):
            self.reading.min_cross_pct = figure.stretch_pct
        if figure.kind in ("length", "both"):
            self.reading.min_length_pct = figure.stretch_pct

    def _on_structure(self, item: Item, found: list[Item], at: int) -> None:
        if self.weight and not self.avoid and self.weight not in self.reading.weights:
            self.reading.weight_structures[self.weight] = item.value
        self._flush_weight()
        (self.reading.avoid_structures if self.avoid else self.reading.structures).add(item.value)

    def _on_hand(self, item: Item, found: list[Item], at: int) -> None:
        after = next((other for other in found[at + 1 :] if other.kind not in ("weight", "filler")), None)
        if after and after.kind == "cloth" and not self.avoid:
            return  # 'soft denims': the word speaks of its noun, whose own range is known
        known = self.tables.avoid_hands if self.avoid else self.tables.pattern_hands
        if item.value in known:
            (self.reading.avoid_hands if self.avoid else self.reading.hands).append((item.words, known[item.value]))

    def _on_remark(self, item: Item, found: list[Item], at: int) -> None:
        """'Stiffer fabrics will give a boxier shape' tells what happens and asks nothing."""
        del self.reading.hands[self.hands_before :]

    def _on_press(self, item: Item, found: list[Item], at: int) -> None:
        self.reading.presses = self.reading.presses or not self.avoid

    def _on_natural(self, item: Item, found: list[Item], at: int) -> None:
        self.reading.natural = self.reading.natural or not self.avoid

    def _on_fibre(self, item: Item, found: list[Item], at: int) -> None:
        if item.value == "elastane":
            self.reading.recovers = self.reading.recovers or not self.avoid
            return
        if self.part:
            return
        (self.reading.avoid_fibres if self.avoid else self.reading.fibres).append(item.value)

    def _on_stretch(self, item: Item, found: list[Item], at: int) -> None:
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
            reading.stretchy, reading.stretch_words = True, f"“{item.words}”"
            reading.min_cross_pct = self.rule.stretchy_least_pct if item.value == "stretchy" else self.rule.four_way_least_pct
            if item.value == "both":
                reading.min_length_pct = self.rule.four_way_least_pct

    def _on_print(self, item: Item, found: list[Item], at: int) -> None:
        if self.avoid:
            self.reading.avoid_prints.add(item.value)

    def _on_sheer(self, item: Item, found: list[Item], at: int) -> None:
        if self.avoid:
            self.reading.avoid_sheer = True
        else:
            self._add_cloths(item.words, tuple(kind.name for kind in self.tables.lexicon.groups["sheer fabrics"]))

    def _on_negative(self, item: Item, found: list[Item], at: int) -> None:
        self._flush_weight()
        self.avoid, self.weak = True, False

    def _on_weak(self, item: Item, found: list[Item], at: int) -> None:
        self._flush_weight()
        self.avoid, self.weak = True, True

    def _on_positive(self, item: Item, found: list[Item], at: int) -> None:
        if self.avoid:
            self._flush_weight()
        self.avoid, self.weak = False, False

    def _on_cloth(self, item: Item, found: list[Item], at: int) -> None:
        joined = at > 0 and found[at - 1].kind == "join"
        weight = self.weight or (self.carried if joined else None)
        self._add_cloths(item.words, item.value, weight)
        self.carried = weight
        after = found[at + 1] if at + 1 < len(found) else None
        if weight and after and (after.kind == "such" or after.words == ":"):
            # 'light to medium weight cottons: lawn, poplin': the noun is a heading, its weight speaks of the whole list.
            (self.reading.avoid_weights if self.avoid else self.reading.weights).append(weight)
        if not self.avoid and key(item.words) == "stable knit" and self.reading.max_cross_pct is None:
            self.reading.max_cross_pct, self.reading.most_stretch_words = self.rule.stable_most_pct, f"“{item.words}”"

    def _add_cloths(self, words: str, types: tuple[str, ...], weight: str | None = None) -> None:
        cloths = self.reading.avoid_cloths if self.avoid else self.reading.cloths
        cloths.append(self._named(words, types, weight, self.gsm, None, self.part))
        self.run.append(len(cloths) - 1)
        self.weight = self.gsm = None

    def _named(
        self,
        words: str,
        types: tuple[str, ...],
        weight: str | None,
        gsm: Range | None,
        condition: Condition | None,
        part: str | None,
    ) -> NamedCloths:
        """The cloths a noun stands for; of a group only those of the weight named with it."""
        kept = types
        if (weight or gsm) and len(types) > 1:
            kept = self._of_weight(types, weight, gsm)
        written = self.reading.weight_said.get(weight, weight) if weight else ""
        said = f"{written} {words}" if written and written not in words else words
        return NamedCloths(said, kept, weight, gsm, condition, part, words)

    def _of_weight(self, types: tuple[str, ...], weight: str | None, gsm: Range | None) -> tuple[str, ...]:
        lexicon = self.tables.lexicon
        overlaps = {}
        for name in types:
            row = lexicon.get(name)
            span = gsm or self.tables.weight_word(weight or "medium", row.structure).pattern_gsm
            inside = min(span.high, row.weight_gsm.high) - max(span.low, row.weight_gsm.low)
            overlaps[name] = inside / min(row.weight_gsm.high - row.weight_gsm.low, max(span.high - span.low, 1.0))
        fitting = tuple(name for name in types if overlaps[name] >= self.rule.group_fits)
        return fitting or (max(types, key=lambda name: overlaps[name]),)

    # -- conditions and parts --------------------------------------------------------------------

    def _on_without(self, item: Item, found: list[Item], at: int) -> int:
        return self._condition(found, at, without=True)

    def _on_if(self, item: Item, found: list[Item], at: int) -> int:
        return self._condition(found, at, without=False)

    def _condition(self, found: list[Item], at: int, without: bool) -> int:
        """'without the tucks', 'if you leave out the pleats', 'when lined', 'for view B'."""
        ahead = found[at + 1 : at + 1 + LOOK_AHEAD]
        for step, item in enumerate(ahead, 1):
            if item.kind in ("stop", "mark"):
                break
            without = without or item.kind in ("without", "weak", "negative")
            if item.kind in ("detail", "part") and without:
                detail = self.tables.details.find(item.words)
                if detail:
                    self._qualify(Condition("without", detail.name, f"without the {item.words}"))
                    return step + 1
            if item.kind == "lined":
                self._qualify(Condition("lined", "lined", "if lined"))
                return step + 1
            if item.kind in ("stretch", "print", "fibre") and without:
                was, self.avoid = self.avoid, True
                getattr(self, f"_on_{item.kind}")(item, found, at)
                self.avoid = was
                return step + 1
        return 1

    def _on_lined(self, item: Item, found: list[Item], at: int) -> None:
        if self.in_brackets:
            self._qualify(Condition("lined", "lined", "if lined"))

    def _qualify(self, condition: Condition) -> None:
        cloths = self.reading.avoid_cloths if self.avoid else self.reading.cloths
        for number in self.run:
            old = cloths[number]
            cloths[number] = replace(old, condition=condition)

    def _on_for(self, item: Item, found: list[Item], at: int) -> int:
        """'for the sleeves' and 'for view B' belong to the cloths just named."""
        for step, ahead in enumerate(found[at + 1 : at + 5], 1):
            if ahead.kind == "part" and self.run and ahead.value[0] != "body":
                self._bind_part(ahead.value[0])
                return step + 1
            if ahead.words == "view" and at + step + 1 < len(found):
                view = found[at + step + 1].words
                self._qualify(Condition("view", view, f"for view {view.upper()}"))
                return step + 2
            if ahead.kind != "filler":
                break
        return 1

    def _bind_part(self, part: str) -> None:
        cloths = self.reading.avoid_cloths if self.avoid else self.reading.cloths
        for number in self.run:
            old = cloths[number]
            cloths[number] = replace(old, part=part)

    def _on_part(self, item: Item, found: list[Item], at: int) -> None:
        """'Sleeves: dotted tulle' and 'sleeves in tulle' bind what follows, to the end of the sentence."""
        after = found[at + 1] if at + 1 < len(found) else None
        if after and after.words in (":", "in"):
            self._flush_weight()
            self.part = None if item.value[0] == "body" else item.value[0]


def read_envelope(text: str, tables: Tables, avoid: bool = False, into: Reading | None = None) -> Reading:
    """Read recommended cloths (or, with `avoid`, cloths ruled out); what was not understood is in `unread`."""
    reading = into or Reading()
    reading.text = " / ".join(part for part in (reading.text, text) if part)
    plain, figures = lift_figures(normalise(text), tables.judging.words.about)
    _Reader(reading, tables, figures, avoid).read(items(plain, tables))
    return reading
