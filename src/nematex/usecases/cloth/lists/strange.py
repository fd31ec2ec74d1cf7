"""Words of a list that nobody knows: each is asked about once, with what its rows suggest.

Invariant: a row of which the kind of cloth is known is asked nothing about its name; a word that is told is never asked.
"""

from __future__ import annotations

import re
from collections import Counter, defaultdict
from collections.abc import Iterable
from dataclasses import dataclass

from nematex.core.cloth.estimates import placed_cloth
from nematex.core.cloth.fibres import read_fibres
from nematex.core.cloth.lexicon import key
from nematex.core.quantity.estimate import Known
from nematex.core.tables import Tables
from nematex.store.records import ClothRecord
from nematex.tables import colour_words
from nematex.usecases.cloth.lists.describing import words_of_cloth
from nematex.usecases.cloth.lists.told import CLOTH, FIBRE

MOST_ASKED = 30  # words of one list
LONGEST_ASKED = 60  # letters
_WORD = re.compile(r"[^\W\d_]{3,}(?:['’-][^\W\d_]+)*")


@dataclass(frozen=True)
class Strange:
    """A word that nobody knows: the field it stands in, in how many rows, one of them, and what it may be."""

    word: str
    kind: str
    rows: int
    example: str
    likely: tuple[str, ...] = ()


def strange_names(name: str, cloth: str, tables: Tables) -> tuple[str, ...]:
    """Of a cloth that nothing places: what stands for its kind, else the words of its name that mean nothing here."""
    if cloth:
        return (re.split(r"[,;(/]", cloth, maxsplit=1)[0].strip()[:LONGEST_ASKED],)
    known = words_of_cloth(tables)
    words = (word for word in _WORD.findall(name[:400]) if colour_words().find(word.casefold()) is None)
    return tuple(dict.fromkeys(word for word in words if not all(each in known for each in key(word).split())))


def _asked(rows: list[tuple[str, ...]]) -> Counter[str]:
    """The words that rows share, and of a row that shares none the last, where a cloth's noun stands: word → rows."""
    shared = Counter(word.casefold() for words in rows for word in set(words))
    asked: Counter[str] = Counter()
    for words in rows:
        common = [word for word in words if shared[word.casefold()] > 1]
        best = max(common, key=lambda word: shared[word.casefold()], default=words[-1])
        asked[best.casefold()] += 1
    return asked


def likely_kinds(record: ClothRecord, tables: Tables) -> tuple[str, ...]:
    """What cloths are made like this one, of its fibre: by weight, stretch and how it falls; none where nobody weighed it."""
    cloth = placed_cloth(record.facts, tables)
    if cloth.weight.known < Known.STATED:
        return ()
    label = read_fibres(record.facts.fibres, tables.fibres) if record.facts.fibres else None
    kin = [each for each in tables.lexicon.types if each.use in ("garment", "occasion") and each.structure == cloth.structure]
    if label and label.main:
        kin = [each for each in kin if label.main in each.all_fibres] or kin
    best = (cloth.weight.best, cloth.bending_length.best, cloth.stretch_cross.best)
    return tuple(tables.lexicon.nearest(*best, cloth.structure, among=kin))


def strange_words(rows: Iterable[tuple[tuple[tuple[str, str], ...], ClothRecord | None, str]], tables: Tables) -> list[Strange]:
    """Each once, the most frequent first; a row is its (kind, word) pairs, its cloth where it is one, and what it is called."""
    by_kind: dict[str, list[tuple[str, ...]]] = defaultdict(list)
    spelt: dict[tuple[str, str], tuple[str, ClothRecord | None, str]] = {}
    for pairs, record, called in rows:
        for kind in dict.fromkeys(kind for kind, _ in pairs):
            by_kind[kind].append(tuple(word for of, word in pairs if of == kind))
        for kind, word in pairs:
            spelt.setdefault((kind, word.casefold()), (word, record, called))
    found = []
    for kind, words in by_kind.items():
        every = Counter(word.casefold() for row in words for word in set(row))
        for small, count in (_asked(words) if kind == CLOTH else every).items():
            word, record, called = spelt[kind, small]
            found.append((Strange(word, kind, count, called), record))
    found.sort(key=lambda each: -each[0].rows)
    return [_suggested(each, record, tables) for each, record in found[:MOST_ASKED]]


def _suggested(each: Strange, record: ClothRecord | None, tables: Tables) -> Strange:
    if each.kind == FIBRE:
        near = tables.fibres.nearest(each.word)
        likely: tuple[str, ...] = (near,) if near else ()
    else:
        likely = likely_kinds(record, tables) if each.kind == CLOTH and record else ()
    return Strange(each.word, each.kind, each.rows, each.example, likely)
