"""The words that tell what a line of an envelope is about; they are in data/paste_words.csv."""

from __future__ import annotations

import re
from collections.abc import Mapping

from nematex.core.cloth.lexicon import key
from nematex.core.tables import Tables

_BREAK = re.compile(r"\s*(?:[:\t|]|\s[-–—]\s)\s*")
_BRACKETS = re.compile(r"\([^)]*\)|\[[^\]]*\]")
_VIEW = re.compile(
    r"^\s*(?:views?|versions?|variations?|modelle?|ansicht(?:en)?)\s+(?P<names>[A-Z0-9]\b(?:\s*(?:,|&|and|/|\+)\s*[A-Z0-9]\b)*)",
    re.IGNORECASE,
)
# 'A: 150 cm 2.2 m': a letter that heads a row of numbers.
_BARE_VIEW = re.compile(r"^\s*(?P<names>[A-H](?:\s*(?:,|&|and|/|\+)\s*[A-H])*)\s*:(?=[^:]{0,20}\d)")
# 'Dress A', 'Tunic C', 'Dress A / Dress B / Tunic C': the garment stands for the word view; only a capital names one.
_NAMES = r"[A-Z](?:\s*(?:,|&|and|\+)\s*[A-Z])*"
_ENDS = r"(?=\s*(?:$|[:/,&*–—-]|\d|and\b|\())"
_GARMENT_VIEW = rf"(?:[A-Z]?[a-z]+\s+)?(?P<garment>[A-Z]?[a-z]+)\s+(?P<name>{_NAMES}){_ENDS}"
_FIRST = re.compile(r"^\s*" + _GARMENT_VIEW)
_NEXT = re.compile(r"\s*(?:/|,|&|and)\s*" + _GARMENT_VIEW)
LONGEST_LEAD = 60
REGIONS = ("us", "uk", "eu", "fr", "de", "au", "it")


def lead_and_rest(text: str) -> tuple[str, str]:
    """A line's heading and what follows it; the heading is "" where the line has no break near its start."""
    found = _BREAK.search(text)
    if found and 0 < found.start() <= LONGEST_LEAD:
        return text[: found.start()], text[found.end() :]
    return "", text


def plain(lead: str) -> str:
    """A heading as it is looked up: without brackets and bullets."""
    return key(_BRACKETS.sub(" ", lead).strip(" \t*•-–#"))


_BRACKET = re.compile(r"^([^()]{2,40}?)\s*\(([^()]{0,40}\d[^()]{0,40})\)$")

_AT_WIDTH = re.compile(r"^(.{2,40}?)\s+(?:for|at|bei|in)\s+(\d{2,3}\b[^:]{0,40})$")

_SAID_USE = re.compile(r"\(([^()\d]{3,30})\)$")


def heading(text: str, tables: Tables) -> tuple[str, str, str] | None:
    """(kind of heading, its words, what follows) of a line, or None."""
    words = tables.paste_words["heading"]
    lead, rest = lead_and_rest(text)
    if plain(lead) in tables.paste_words["row"]:
        return None  # 'cup sizes' is a row of the size table
    told = _BRACKET.match(lead)  # 'Fabric (150 cm): 1.7 m'
    if told and (kind := _kind(plain(told[1]), words)):
        return kind, told[1], f"{told[2]}: {rest}"
    told = _SAID_USE.search(lead)  # 'Fabric B (lining):'
    if told and (use := tables.paste_words["use"].get(key(told[1]))) and words.get(use) == use:
        return use, lead, rest
    told = _AT_WIDTH.match(lead)  # 'Quantities for 140 cm wide cloth:'
    if told and words.get(plain(told[1])) == "requirements":
        return "requirements", told[1], f"{told[2]}: {rest}"
    if lead and (kind := _kind(plain(lead), words)):
        return kind, lead, rest
    if not lead and plain(text) in words:
        return words[plain(text)], text, ""
    # 'Lining 150 cm 0.4 m', 'Sizes 8 10 12': the heading runs up to the first number or size.
    start = text[: 2 * LONGEST_LEAD]
    found = re.match(r"^\s*([A-Za-zÄÖÜäöüß][A-Za-zÄÖÜäöüß ()/.]*?)\s+(?=[\d½¼¾⅛⅜⅝⅞]|X{0,3}[SML]\b|[1-6]X|A[\s,|/]+B\b)", start)
    kind = _kind(plain(found[1]), words) if found else None
    if found and kind and (plain(found[1]) in words or kind == "sizes"):
        return kind, found[1], text[found.end() :]
    return None


def _kind(lead: str, words: Mapping[str, str]) -> str | None:
    """What a heading is about: as the table says, or by its outer word: 'curve sizes', 'contrast yoke', 'fabric B'."""
    if lead in words:
        return words[lead]
    few = lead.split()
    if len(few) == 2 and few[0] in ("size", "größe", "grosse", "gr") and few[1] in REGIONS:
        return "sizes"
    if 1 < len(few) <= 3 and (few[-1] == "size" or few[0] == "contrast"):
        return "sizes" if few[-1] == "size" else "contrast"
    if len(few) == 2 and few[0] in ("fabric", "cloth") and few[1] in ("a", "b", "c", "1", "2", "3"):
        return "requirements" if few[1] in ("a", "1") else "contrast"
    return None


def views_of(text: str, tables: Tables) -> tuple[list[str], str] | None:
    """The views that a line begins with and what follows: 'View A, B: 2 m' → (['A', 'B'], '2 m'); so does 'Dress A'."""
    found = _VIEW.match(text) or _BARE_VIEW.match(text)
    if found:
        return _letters(found["names"].upper()), _after(text, found.end())
    names: list[str] = []
    end, one = 0, _FIRST.match(text)
    while one and tables.garments.find_within(one["garment"]):
        names += _letters(one["name"])
        end = one.end()
        one = _NEXT.match(text, end)
    return (names, _after(text, end)) if names else None


def _letters(names: str) -> list[str]:
    return re.findall(r"[A-Z0-9]\b", re.sub(r"\bAND\b|\band\b", " ", names))


def _after(text: str, end: int) -> str:
    return re.sub(r"^\s*[:\t|–—-]?\s*", "", text[end:])


def measurement(lead: str, tables: Tables) -> tuple[str, bool] | None:
    """Which measurement a row's label names, and whether it is of the finished garment."""
    words = plain(lead)
    finished = bool(re.search(r"\bfinished\b|\bgarment\b", words))
    bare = key(re.sub(r"\b(?:finished|garment|body|your|cm|in|inch|measurement)\b", " ", words))
    found = tables.paste_words["row"].get(words) or tables.paste_words["row"].get(bare)
    return (found, finished) if found else None
