"""How words stand together: adjectives before their noun, and everything else by itself. A grammar of phrases in parsy.

Every repetition has an end, so that reading is linear in the text.
"""

from __future__ import annotations

from dataclasses import dataclass

from parsy import Parser, any_char, peek, seq, test_item

from nematex.core.pattern.envelope.words import Item

ADJECTIVES = ("weight", "hand", "stretch", "natural", "press", "sheer", "fibre", "print")
NOUNS = ("cloth", "structure", "fabric")
MOST_ADJECTIVES, MOST_BETWEEN = 6, 4


@dataclass(frozen=True, slots=True)
class Phrase:
    """A noun for cloths with the adjectives before it."""

    adjectives: tuple[Item, ...]
    noun: Item

    @property
    def start(self) -> int:
        return self.adjectives[0].start if self.adjectives else self.noun.start

    @property
    def end(self) -> int:
        return self.noun.end


Chunk = Phrase | Item


def of(*kinds: str) -> Parser:
    return test_item(lambda item: item.kind in kinds, " or ".join(kinds))


def mark(*signs: str) -> Parser:
    return test_item(lambda item: item.kind == "mark" and item.words in signs, " or ".join(signs))


small = of("filler").times(0, MOST_BETWEEN)
# 'soft, flowing fabrics', 'light and fluid': what stands between two adjectives of one noun.
between = small >> (mark(",", "/") | of("join")).optional() >> small
# '8 oz denim': a number stands directly before its noun.
number = of("figure").times(0, 1)
before = seq(number, of(*ADJECTIVES).sep_by(between, max=MOST_ADJECTIVES), number << small)
phrase = peek(of("figure", *ADJECTIVES, *NOUNS)) >> seq(
    before.combine(lambda first, words, last: [*first, *words, *last]), of(*NOUNS)
).combine(lambda words, noun: Phrase(tuple(words), noun))
chunks = (phrase | any_char).many()


def read_chunks(sentence: list[Item]) -> list[Chunk]:
    """The sentence as phrases and single words; total, nothing is left out."""
    found: list[Chunk] = chunks.parse(sentence)
    return found
