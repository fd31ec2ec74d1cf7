"""The garments that a text names, in either language."""

from __future__ import annotations

from dataclasses import dataclass

from nematex.core.cloth.lexicon import key
from nematex.core.tables import Tables

SHORTEST_ENDING, LONGEST_NAME = 4, 4  # letters; words


@dataclass(frozen=True, slots=True)
class Named:
    """A garment, and which words of the text's key name it."""

    garment: str
    start: int
    end: int


def named_garments(words: list[str], tables: Tables) -> list[Named]:
    """In the order of the words, a text's key; of two names that overlap the longer. 'Bleistiftrock' is a Rock."""
    abroad, rows = tables.paste_words["garment"], tables.garments.by_key
    found: list[Named] = []
    at = 0
    while at < len(words):
        for size in range(LONGEST_NAME, 0, -1):
            phrase = " ".join(words[at : at + size])
            name = abroad.get(phrase) or (rows[phrase].name if phrase in rows else "")
            if name:
                break
        else:
            size = 1
            name = abroad.get(next((word for word in abroad if _ends_in(words[at], word)), ""), "")
        if name:
            found.append(Named(name, at, at + size))
        at += size
    return found


def _ends_in(word: str, garment: str) -> bool:
    return len(garment) >= SHORTEST_ENDING and len(word) > len(garment) + 2 and word.endswith(garment)


def garments_of(text: str, tables: Tables) -> list[str]:
    """The garments that a text names in their order, each once."""
    return list(dict.fromkeys(each.garment for each in named_garments(key(text).split(), tables)))
