"""Whose cloth a row of amounts is: the garment's own, its lining, its interfacing … Common practice, no source.

The words before the row's first number settle it, wherever the view stands among them.
"""

from __future__ import annotations

import re

from nematex.core.cloth.lexicon import key
from nematex.core.tables import Tables

_FIRST_NUMBER = re.compile(r"\d|[½¼¾⅛⅜⅝⅞]")
# '1 m of lining', '50 cm interfacing': an amount, and no width.
_AMOUNT_FIRST = re.compile(
    r"\s*[\d.,/½¼¾⅛⅜⅝⅞ ]+\s*(?:m|cm|yds?|yards?|metres?|meters?|meter)\b(?!\s*(?:wide|breit))\s*(?:of\s+)?", re.IGNORECASE
)
_TOLD = re.compile(r"\(([^()]{3,30})\)")
LONGEST = 4  # words


def use_named(text: str, tables: Tables) -> str | None:
    """The use that the words before the first number name, or behind an amount that begins the row; None for none."""
    number = _FIRST_NUMBER.search(text)
    if amount := _AMOUNT_FIRST.match(text):
        text = text[amount.end() :]  # '1 m lining, 140 cm wide'
        number = _FIRST_NUMBER.search(text)
    label = key(re.sub(r"[:,;()\t|]", " ", text[: number.start()] if number else text)).split()
    uses = tables.paste_words["use"]
    told = _TOLD.search(text[: number.start()] if number else text)
    if told and (found := uses.get(key(told[1]))):
        return found  # 'Fabric B (lining)'
    for size in range(min(LONGEST, len(label)), 0, -1):
        for start in range(len(label) - size + 1):
            found = uses.get(" ".join(label[start : start + size]))
            if found and (found != "main" or start == 0):
                return found
    return None
