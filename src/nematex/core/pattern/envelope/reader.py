"""From an envelope's words to clauses, and from those to an Interpretation.

Common practice, no source: a weight word belongs to its noun; "not suitable for" reaches to the end of its part of the
sentence or to a word that turns it ("use", "instead"); "without the tucks" belongs to the cloths just named; what stands in
brackets speaks of the noun before them; a heading holds to the end of its sentence. Every word ends as understood, as
having no bearing, or as unread; a word that rules out or sets a condition and finds nothing to bind to is unread. No text
whatever raises.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from nematex.core.pattern.envelope.clause import ALSO, PRACTISED, Clause, Heap
from nematex.core.pattern.envelope.compiled import compile_into
from nematex.core.pattern.envelope.grammar import Chunk, Phrase, read_chunks
from nematex.core.pattern.envelope.interpretation import BETWEEN, Interpretation
from nematex.core.pattern.envelope.numbers import Figure, lift_figures
from nematex.core.pattern.envelope.placing import Placing
from nematex.core.pattern.envelope.walk import SAID_ALONE
from nematex.core.pattern.envelope.words import Item, items, normalised
from nematex.core.tables import Tables

LONGEST_TEXT = 5000  # letters that are read; no envelope has more
CONTINUES = ("join", "for", "in", "such", "lined in", "weak")  # behind these a line's end is none of the sentence
IDLE = (
    "filler", "fabric", "idle", "join", "such", "positive", "mark", "stop", "same", "novice", "lined", "in", "for", "version",
    "detail", "part", "washed", "unlined", "remark", "swap", "enough", "turn",
)  # fmt: skip


class _Reader(Placing):
    """Walks the chunks of each sentence once; each kind has a method, which says how many chunks it took."""

    def __init__(self, text: str, tables: Tables, figures: Sequence[Figure], avoid: bool, said: dict[str, str]) -> None:
        super().__init__(text, tables, figures, avoid, said)
        self.handlers = {
            "mark": self._mark,
            "weight": self._weight,
            "hand": self._hand,
            "figure": self._figure,
            **dict.fromkeys(SAID_ALONE, self._alone),
            "weak": self._weak,
            "negative": self._negative,
            "fails": self._fails,
            "except": self._except,
            "positive": self._positive,
            "turn": lambda *_: self.open.turn(),
            "remark": self._remark,
            "also": lambda item, at: self._standing(item, at, ALSO),
            "practised": lambda item, at: self._standing(item, at, PRACTISED),
            "only": self._only,
            "than": self._than,
            "version": self._version,
            "swap": self._swap,
            "if": self._condition,
            "unless": self._condition,
            "without": self._condition,
            "lined": self._lined,
            "unlined": self._unlined,
            "wants lining": self._wants_lining,
            "unless practised": self._unless_practised,
            "trim": self._took,
            "washed": self._washed,
            "lined in": lambda _, at: self._role("lining", at),
            "layered": lambda item, at: self._role(str(item.value), at),
            "layer": self._part,
            "part": self._part,
            "detail": self._detail,
            "rest": self._rest,
            "for": self._for,
            "view": self._view,
            "unknown": self._unknown,
            "filler": self._garment,
        }

    def read(self, every: list[Item]) -> None:
        for sentence in self._sentences(every):
            self.chunks = read_chunks(sentence)
            self.open.begin()
            at = 0
            while at < len(self.chunks):
                chunk = self.chunks[at]
                if isinstance(chunk, Phrase):
                    at += self._phrase(chunk, at)
                elif chunk.kind == "stop":
                    self.open.part()
                    at += 1
                else:
                    handler = self.handlers.get(chunk.kind)
                    at += (handler(chunk, at) if handler else None) or 1
        _possible_structures(self.open.clauses)

    def _sentences(self, every: list[Item]) -> Iterator[list[Item]]:
        """Up to full stops and line ends; a line that ends in a comma or an open word goes on."""
        sentence: list[Item] = []
        for item in every:
            if item.kind == "stop" and item.words != ";":
                last = sentence[-1] if sentence else None
                if item.words == "\n" and last and (last.words == "," or last.kind in CONTINUES):
                    continue
                if sentence:
                    yield sentence
                sentence = []
            else:
                sentence.append(item)
        if sentence:
            yield sentence

    def _mark(self, item: Item, at: int) -> None:
        if item.words == ":":
            self._colon(at)
        elif item.words == "(":
            self.open.open_bracket()
        elif item.words == ")":
            self.open.close_bracket()
        elif item.words == ",":
            self.open.comma()

    def _colon(self, at: int) -> None:
        """A heading: 'light to medium: linen, denim' narrows those, 'wovens: linen' is a list of its own."""
        now = self.open
        waiting = [clause for clause in now.segment if clause.kind == "weight" and not clause.out]
        if waiting and waiting[-1].structure == "" and not any(_is_fabric(chunk) for chunk in self.chunks[:at]):
            nouns = [clause for clause in now.segment if clause.kind in ("cloth", "structure")]
            if not nouns and not waiting[-1].words.endswith("weight"):  # 'medium weight: …' speaks of every cloth
                now.scope.weight = str(waiting[-1].value)
                now.clauses.remove(waiting[-1])
                self.took.add(waiting[-1].start)
        for clause in now.segment:
            if clause.kind == "cloth" and clause.weight and not clause.role:
                # 'light to medium weight cottons: lawn, poplin': the noun is a heading, its weight speaks of the whole list.
                whole = Clause("weight", clause.weight, clause.standing, clause.weight, start=clause.start, end=clause.end)
                now.clauses.append(whole)
            if clause.kind == "cloth" and clause.hand and not clause.role:  # 'crisp cottons: poplin, shirting'
                said = Clause("hand", clause.hand.word, clause.standing, clause.hand.word, start=clause.start, end=clause.end)
                now.clauses.append(said)
        structures = [clause.value for clause in now.segment if clause.kind == "structure" and not clause.out]
        if len(structures) == 1:
            now.scope.structure = structures[0]
        now.colon()

    def _unknown(self, item: Item, at: int) -> int | None:
        return self._letter(item, at)


def _possible_structures(clauses: Sequence[Clause]) -> None:
    """'Jersey, ponte, or woven viscose if you go up a size': a structure under a condition is possible beside the others."""
    named = [each for each in clauses if each.kind in ("cloth", "structure") and not each.out and not each.role]
    bound = [each for each in named if each.kind == "structure" and any(one.kind == "other" for one in each.conditions)]
    if not bound or len(named) < 3 or any(not each.conditions for each in named if each.kind == "structure"):
        return
    for clause in bound:
        clause.standing = ALSO
        for cloth in named:
            if 0 <= cloth.start - clause.end <= 1:  # 'woven viscose'
                cloth.standing = ALSO


def _is_fabric(chunk: Chunk) -> bool:
    return isinstance(chunk, Phrase) and chunk.noun.kind in ("fabric", "structure")


def heaps(every: Sequence[Item], clauses: Sequence[Clause], took: set[int], figures: Sequence[Figure]) -> list[Heap]:
    """Each word of the text in exactly one heap: read, idle or unread."""
    read = {clause.start for clause in clauses} | took
    ends = {clause.end for clause in clauses}
    found = []
    for item in every:
        if item.start in read or item.end in ends:
            kind = "read"
        elif item.kind in IDLE or (item.kind == "figure" and figures[item.value].words == ""):
            kind = "idle"
        else:
            kind = "unread"
        found.append(Heap(kind, item.start, item.end))
    return found


def read_envelope(text: str, tables: Tables, avoid: bool = False, into: Interpretation | None = None) -> Interpretation:
    """Read recommended cloths (or, with `avoid`, cloths ruled out); what was not understood is in `unread`."""
    interpretation = into or Interpretation()
    offset = len(interpretation.text) + len(BETWEEN) if interpretation.text else 0
    interpretation.text = BETWEEN.join(part for part in (interpretation.text, text) if part)
    if len(text) > LONGEST_TEXT:
        interpretation.unread.append(f"{text[LONGEST_TEXT : LONGEST_TEXT + 40]}… ({len(text) - LONGEST_TEXT} letters more)")
    read = text[:LONGEST_TEXT]
    lifted, figures = lift_figures(normalised(read), tables.judging.words.about)
    every = items(lifted, tables)
    reader = _Reader(read, tables, figures, avoid, interpretation.weight_said)
    reader.read(every)
    found = heaps(every, reader.open.clauses, reader.took, figures)
    for clause in reader.open.clauses:
        clause.start, clause.end = clause.start + offset, clause.end + offset
    compile_into(interpretation, reader.open.clauses, tables)
    interpretation.unread += _unread(every, found)
    interpretation.heaps += [Heap(each.kind, each.start + offset, each.end + offset) for each in found]
    return interpretation


def _unread(every: Sequence[Item], found: Sequence[Heap]) -> list[str]:
    """The runs of words that were not read, as they are written."""
    runs: list[list[str]] = [[]]
    for item, heap in zip(every, found, strict=True):
        if heap.kind == "unread":
            runs[-1].append(item.words)
        elif item.kind != "filler" and runs[-1]:
            runs.append([])
    return [" ".join(run) for run in runs if run]
