"""Whose cloth a row of amounts is: the garment's own, its lining, its interfacing … Common practice, no source.

The words before the row's first number settle it, wherever the view stands among them.
"""

from __future__ import annotations

import re

from nematex.core.cloth.lexicon import key
from nematex.core.tables import Tables

_FIRST_NUMBER = re.compile(r"\d|[½¼¾⅛⅜⅝⅞]")
LONGEST = 4  # words


def use_named(text: str, tables: Tables) -> str | None:
    """The use that the words before the first number name; None where they name none."""
    number = _FIRST_NUMBER.search(text)
    label = key(re.sub(r"[:,;()\t|]", " ", text[: number.start()] if number else text)).split()
    uses = tables.paste_words["use"]
    for size in range(min(LONGEST, len(label)), 0, -1):
        for start in range(len(label) - size + 1):
            found = uses.get(" ".join(label[start : start + size]))
            if found and (found != "main" or start == 0):
                return found
    return None
