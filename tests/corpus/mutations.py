"""The corpus said otherwise: what changes no meaning to whoever cuts by it. Common practice, no source."""

from __future__ import annotations

import re
from collections.abc import Callable

from means import TABLES

SENTENCE = re.compile(r"(?<=[.!]) +(?=[A-ZÄÖÜ])")
# What speaks of a sentence before it cannot stand before that one.
LEANS = re.compile(
    r"\b(?:it|they|these|this|that|those|rest|otherwise|others?|else|also|too|same|either|both|but|however|again|instead|"
    r"or|oder|more|less|only|lighter|heavier|everything|all|auch|sonst|aber|übrige[ns]?|rest|es|sie|dies\w*|andere\w*|nur|alles|noch)\b",
    re.IGNORECASE,
)
FRACTIONS = {"1/2": "½", "1/4": "¼", "3/4": "¾", "1/8": "⅛", "3/8": "⅜", "5/8": "⅝", "7/8": "⅞"}
FRACTION = re.compile(r"(?<=\d) (1/2|1/4|3/4|1/8|3/8|5/8|7/8)\b")


# Between commas, or at the beginning: neither an adjective nor a condition is the first's or the second's alone.
NEIGHBOURS = re.compile(r"(?:(?<=, )|(?<=: )|^)([A-Za-zäöüß]+(?: [a-zäöüß]+)?), ([a-zäöüß]+(?: [a-zäöüß]+)?)(?=, )")


def sentences_turned(text: str) -> str:
    """The last sentence first, where none leans on another and none is a heading."""
    found = SENTENCE.split(text)
    if "\n" in text or len(found) < 2 or any(LEANS.search(each) for each in found):
        return text
    return " ".join(each if each.endswith((".", "!")) else f"{each}." for each in reversed(found))


def percent_in_words(text: str) -> str:
    return re.sub(r"(?<=\d) ?%", " percent", text)


def percent_apart(text: str) -> str:
    return re.sub(r"(?<=\d)\s*%", " %", text)


def grams_as_gsm(text: str) -> str:
    return re.sub(r"(?<=\d)\s*(?:g/m²|g/m2|g/qm)", " gsm", text)


def gsm_as_grams(text: str) -> str:
    return re.sub(r"(?<=\d)\s*gsm\b", " g/m²", text)


def long_dashes(text: str) -> str:
    return re.sub(r"(?<=\d)\s*-\s*(?=\d)", "–", text)


def joined_by_sign(text: str) -> str:
    """'linen and hemp' as 'linen & hemp', between two words of a list."""
    return re.sub(r"(?<=[a-z]) (?:and|und) (?=[a-z])", " & ", text)


def cloths_turned(text: str) -> str:
    """Two names of cloths that stand side by side between commas, the other way round."""
    return NEIGHBOURS.sub(lambda two: f"{two[2]}, {two[1]}" if _both(two[1], two[2]) else two[0], text)


def _both(*names: str) -> bool:
    return all(TABLES.lexicon.find(name, anywhere=False) for name in names)


def fractions_as_signs(text: str) -> str:
    """In amounts; a size is called as it is written."""
    lines = text.split("\n")
    return "\n".join(
        line if line.casefold().startswith(("size", "größe")) else FRACTION.sub(lambda found: FRACTIONS[found[1]], line)
        for line in lines
    )


def lines_apart(text: str) -> str:
    """Trailing spaces and carriage returns, as a page of a browser pastes them."""
    return text.replace("\n", " \r\n")


def quiet(text: str) -> str:
    """A dash of the typesetter's for a hyphen between spaces."""
    return text.replace(" - ", " – ")


IN_LISTS: tuple[Callable[[str], str], ...] = (
    sentences_turned, cloths_turned, percent_in_words, percent_apart, grams_as_gsm, gsm_as_grams, long_dashes,
    joined_by_sign, quiet,
)  # fmt: skip
IN_TABLES: tuple[Callable[[str], str], ...] = (
    percent_in_words, percent_apart, grams_as_gsm, gsm_as_grams, long_dashes, fractions_as_signs, lines_apart, quiet,
)  # fmt: skip


def columns_turned(text: str) -> str:
    """A list with its columns in the opposite order."""
    rows = text.split("\n")
    sign = max(";\t|,", key=rows[0].count)
    cells = [row.split(sign) for row in rows]
    if '"' in text or len({len(row) for row in cells}) != 1:
        return text
    return "\n".join(sign.join(reversed(row)) for row in cells)


def other_separator(text: str) -> str:
    rows = text.split("\n")
    sign = max(";\t|,", key=rows[0].count)
    if '"' in text or any(row.count(sign) != rows[0].count(sign) for row in rows) or "|" in text:
        return text
    return text.replace(sign, "|") if sign != "," else text


IN_ROWS: tuple[Callable[[str], str], ...] = (percent_apart, grams_as_gsm, gsm_as_grams, columns_turned, other_separator)
