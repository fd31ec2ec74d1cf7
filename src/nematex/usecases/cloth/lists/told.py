"""Words of lists as somebody has told what they mean; told once, they are understood in every list.

Invariant: a word that is told changes what is read of the rows that have it, and of no other.
"""

from __future__ import annotations

import re
from collections.abc import Iterable, Mapping
from functools import lru_cache

from nematex.core.cloth.lexicon import SHORTEST
from nematex.core.errors import FieldFault, UnknownChoice
from nematex.core.tables import Tables
from nematex.store.cloth.list_words import forget_word, tell_word
from nematex.tables import colour_words
from nematex.usecases.cloth.lists.describing import described
from nematex.usecases.held.shop import Shop

FIBRE, COLOUR, CLOTH = "fibre", "colour", "cloth"
KINDS = (FIBRE, COLOUR, CLOTH)
LONGEST_WORD = 120
Told = Mapping[str, Mapping[str, str]]  # kind → word in small letters → what it means


@lru_cache(maxsize=64)
def _finder(words: frozenset[str], endings: bool) -> re.Pattern[str]:
    """Any of the words as a whole; of cloths also one that ends in it: 'Baumwollköper'."""
    longest = sorted(words, key=lambda word: (-len(word), word))
    whole = (rf"\w*{re.escape(word)}" if endings and len(word) >= SHORTEST else re.escape(word) for word in longest)
    return re.compile(rf"(?<!\w)(?:{'|'.join(whole)})(?!\w)", re.IGNORECASE)


def _word(found: str, words: Mapping[str, str]) -> str:
    """The word that was told, of one that is it or ends in it."""
    said = found.casefold()
    return said if said in words else next(word for word in words if said.endswith(word))


def _meant(found: str, words: Mapping[str, str]) -> str:
    return words[_word(found, words)]


def as_told(text: str, kind: str, told: Told) -> str:
    """The text with every word of this kind as it is meant."""
    words = told.get(kind)
    return _finder(frozenset(words), kind == CLOTH).sub(lambda found: _meant(found[0], words), text) if words else text


def meant_by(text: str, kind: str, told: Told) -> list[str]:
    """What the words in a text that somebody has told mean, in their order; without those that are only names."""
    words = told.get(kind)
    found = _finder(frozenset(words), kind == CLOTH).findall(text) if words else []
    return [meant for each in found if (meant := _meant(each, words or {}))]


def told_in(rows: Iterable[list[str]], told: Told) -> list[tuple[str, str, str]]:
    """Kind, word and meaning of the told words that stand in these rows."""
    every, found = ["\n".join(row) for row in rows], []
    for kind, words in told.items():
        finder = _finder(frozenset(words), kind == CLOTH)
        here = {_word(each, words) for text in every for each in finder.findall(text)}
        found += [(kind, word, words[word]) for word in sorted(here)]
    return found


def has_word(cells: list[str], kind: str, word: str) -> bool:
    """Whether a row may be read otherwise once this word is told."""
    finder = _finder(frozenset((word.casefold(),)), kind == CLOTH)
    return any(finder.search(cell) for cell in cells)


def checked_word(kind: str, said: str, meant: str, tables: Tables) -> tuple[str, str]:
    """The word in small letters and what it means, in a word of the tables; raises FieldFault, UnknownChoice."""
    word, meant = " ".join(said.casefold().split()), " ".join(meant.split())
    if kind not in KINDS:
        raise UnknownChoice("kind", kind, KINDS, "kind of word")
    if not word or len(word) > LONGEST_WORD:
        raise FieldFault("word", said[:40], "is missing, or too long; take one of those that the list has")
    if kind == FIBRE:
        if tables.fibres.find(meant) is None:
            raise UnknownChoice("fibre", meant, tables.fibres.on_labels, "generic fibre name")
    elif kind == COLOUR:
        if meant and colour_words().find(meant.casefold()) is None:
            raise UnknownChoice("colour", meant, colour_words().by_word, "colour word; leave it empty for a mere name")
    elif meant and not _says_something(meant, tables):
        known = [*tables.lexicon.by_key, *colour_words().by_word]
        raise UnknownChoice("cloth", meant, known, "cloth, handle or colour; leave it empty for a mere name")
    return word, meant


def _says_something(meant: str, tables: Tables) -> bool:
    is_cloth = tables.lexicon.find(meant, anywhere=False) is not None
    return is_cloth or bool(described(meant)) or colour_words().find(meant.casefold()) is not None


def keep_told(shop: Shop, kind: str, said: str, meant: str) -> str:
    """Keep what a word means for every list; returns the word as it is kept. Raises FieldFault."""
    word, meant = checked_word(kind, said, meant, shop.now().tables)
    with shop.database.work() as work:
        tell_word(work, kind, word, meant)
    return word


def forget_told(shop: Shop, kind: str, said: str) -> str:
    """Ask about a word again; returns the word."""
    word = " ".join(said.casefold().split())[:LONGEST_WORD]
    with shop.database.work() as work:
        forget_word(work, kind, word)
    return word
