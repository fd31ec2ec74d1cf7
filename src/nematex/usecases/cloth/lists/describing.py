"""Columns that describe a cloth in words: handle, see-through, kind, direction and size of the print, in any language.

Invariant: a word says the same in every column, the longest phrase counts, and what has a column of its own is never overruled.
"""

from __future__ import annotations

import re
from collections.abc import Mapping
from contextlib import suppress
from functools import lru_cache
from typing import Any

from nematex.core.cloth.lexicon import key
from nematex.core.colour.words import Palette, read_palette
from nematex.core.errors import FieldFault
from nematex.core.quantity.reader import read_length_cm, read_weight_gsm
from nematex.core.tables import Tables
from nematex.tables import colour_words, describing_words

LONGEST = 4  # words
LONGEST_TEXT = 400  # letters


@lru_cache(maxsize=1)
def _known() -> dict[str, tuple[str, Any]]:
    return {
        key(phrase): (row.property, _value(row.property, row.value)) for row in describing_words() for phrase in row.phrases
    }


def _value(name: str, said: str) -> Any:
    return float(said) if name.endswith("_cm") else said == "yes" if name == "nap" else said


def described(text: str) -> dict[str, Any]:
    """Property → value of all that the words say; of two words for one property the first."""
    words, known = key(text[:LONGEST_TEXT]).split(), _known()
    found: dict[str, Any] = {}
    at = 0
    while at < len(words):
        size = next((size for size in range(LONGEST, 0, -1) if " ".join(words[at : at + size]) in known), 0)
        if size:
            name, value = known[" ".join(words[at : at + size])]
            found.setdefault(name, value)
        at += size or 1
    if "print_scale_cm" in found and found.get("print_kind") not in ("stripe", "check", "motif", "border"):
        del found["print_scale_cm"]  # 'small' beside no print speaks of something else
    return found


_MASS = re.compile(r"(?<![\d.,])\d{1,4}(?:[.,]\d{1,2})?\s*(?:gsm|g/m2|g/m²|g/qm|oz)(?!\w)", re.IGNORECASE)
_WIDTH = re.compile(
    r"(?<![\d.,])(\d{2,3}(?:[.,]\d)?\s*(?:cm|in|inch|inches|\"))\s*(?:wide|width|breit)|(?:width|breite)\s*:?\s*(\d{2,3}\s*(?:cm|in|inch|\"))",
    re.IGNORECASE,
)

# A length between these that says nothing of itself is the width of a cloth: common practice, no source.
_BARE_WIDTH = re.compile(r"(?<![\d.,x×])1[0-7]\d\s*cm\b(?!\s*(?:repeat|drop|rapport|long|x|×))", re.IGNORECASE)


def measured(text: str) -> dict[str, float]:
    """Areal mass in g/m² and width in cm that a description says: 'Opaque, 210gsm, 165cm wide'; not what cannot be one."""
    found: dict[str, float] = {}
    mass, width = _MASS.search(text[:LONGEST_TEXT]), _WIDTH.search(text[:LONGEST_TEXT])
    bare = _BARE_WIDTH.search(text[:LONGEST_TEXT])
    with suppress(FieldFault):
        if mass:
            found["weight_gsm"] = read_weight_gsm(mass[0], "weight")
    with suppress(FieldFault):
        if width or bare:
            found["width_cm"] = read_length_cm((width[1] or width[2]) if width else bare[0], "width")  # type: ignore[index]
    return found


def coloured(texts: list[str]) -> Palette | None:
    """The colours that describing columns say with nothing beside them between two commas: 'black, good recovery'."""
    pieces = (piece.strip() for text in texts for piece in text[:LONGEST_TEXT].split(","))
    palettes = [palette for piece in pieces if piece and not (palette := read_palette(piece, colour_words())).unknown]
    return next((palette for palette in palettes if palette.colours), None)


OF_A_NAME = ("print_kind", "structure")  # a name may tell the kind of print; 'Soft Landing' is no handle


def named(text: str, values: Mapping[str, Any]) -> dict[str, Any]:
    """What a name tells beyond the kind of cloth, where no column says it."""
    return {name: value for name, value in described(text).items() if name in OF_A_NAME and name not in values}


def colour_in(name: str, tables: Tables) -> Palette | None:
    """The colours in a name all of whose other words are a cloth's: 'Navy cotton poplin', and not 'Kelp Ladder challis'."""
    palette, common = read_palette(name, colour_words()), words_of_cloth(tables)
    strange = [word for word in palette.unknown if any(each not in common for each in key(word).split())]
    return Palette(palette.colours, palette.by_word) if palette.colours and not strange else None


@lru_cache(maxsize=4)
def words_of_cloth(tables: Tables) -> frozenset[str]:
    """Every word of a cloth's name, or that describes one."""
    return frozenset(word for known in (*tables.lexicon.by_key, *_known()) for word in known.split())
