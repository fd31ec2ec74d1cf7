"""What words of an envelope mean in this shop: a noun read otherwise, ignored, or one that was not read at all.

A fix speaks of words and not of places, so it stays when the envelope's text changes; where its words are gone it waits.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from nematex.core.cloth.lexicon import key
from nematex.core.pattern.envelope import Interpretation, NamedCloths
from nematex.core.pattern.facts import ReadingFix
from nematex.core.tables import Tables


def _renamed(named: list[NamedCloths], words: str, cloths: tuple[str, ...]) -> list[NamedCloths]:
    kept = []
    for item in named:
        if key(item.words) != key(words):
            kept.append(item)
        elif cloths:
            kept.append(replace(item, types=cloths))
    return kept


def with_reading_fixes(interpretation: Interpretation, fixes: Sequence[ReadingFix], tables: Tables) -> Interpretation:
    """The reading, changed in place, as the fixes say; a cloth name that the lexicon lacks means nothing."""
    for fix in fixes:
        cloths = tuple(name for name in fix.cloths if name in tables.lexicon.index)
        interpretation.cloths = _renamed(interpretation.cloths, fix.words, cloths)
        interpretation.avoid_cloths = _renamed(interpretation.avoid_cloths, fix.words, cloths)
        if any(key(fix.words) == key(words) for words in interpretation.unread):
            interpretation.unread = [words for words in interpretation.unread if key(words) != key(fix.words)]
            if cloths:
                interpretation.cloths.append(NamedCloths(fix.words, cloths))
    return interpretation


def waits(fix: ReadingFix, text: str) -> bool:
    """Whether the words of a fix are no longer on the envelope."""
    return f" {key(fix.words)} " not in f" {key(text)} "
