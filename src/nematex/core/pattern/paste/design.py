"""Prose about the design: 'true wrap dress, elasticated sleeves, ruffle at the hem' is garment and details, no cloth.

Common practice, no source: what stands behind no, without or -less is not there; optional and removable is an option.
"""

from __future__ import annotations

import re

from nematex.core.pattern.envelope.traced import Traced
from nematex.core.pattern.envelope.words import items, normalised
from nematex.core.pattern.paste.garments import garments_of
from nematex.core.pattern.paste.open_state import Open
from nematex.core.tables import Tables

_PIECES = re.compile(r"[,;.&/()]|\b(?:and|with|plus|into|und|mit|sowie)\b", re.IGNORECASE)
_NOT_THERE = re.compile(r"\b(?:no|not|without|ohne|kein\w*)\b|\w+less\b|\bunlined\b|\bungefüttert\w*", re.IGNORECASE)
_MAY_BE = re.compile(r"\b(?:optional(?:ly)?|removable|detachable|wahlweise|abnehmbar\w*)\b", re.IGNORECASE)
_ARTICLE = re.compile(r"^\s*(?:has|have|a|an|the|der|die|das|eine[rnm]?)\s+", re.IGNORECASE)
_LINED = re.compile(r"\b(?:lined|gefüttert\w*)\b", re.IGNORECASE)
_PART_LINED = re.compile(r"\b(?:pocket|yoke|hood|part|half|un)[\w-]*\s*-?\s*lin|ungefüttert", re.IGNORECASE)
MOST_PIECES = 60


def pieces(text: str) -> list[str]:
    """The things that a run of prose names, each by itself."""
    return [_ARTICLE.sub("", piece).strip() for piece in _PIECES.split(text)[:MOST_PIECES] if piece.strip()]


def detail_of(piece: str, tables: Tables) -> str | None:
    """The detail that a piece of prose names, in either language; None for none, or for one that is not there."""
    if _NOT_THERE.search(piece):
        return None
    found = tables.details.find_within(piece)
    if found:
        return found.name
    words: Traced = normalised(piece)
    for item in items(words, tables):
        if item.kind == "detail":
            return str(item.value)
        if item.kind == "part" and (of_part := tables.details.find(item.value[1])):
            return of_part.name  # 'Kragen'
    return None


def _said(piece: str, tables: Tables) -> str:
    """Of a title's words those that name the detail: 'Dunlin wrap dress' has a 'wrap dress'."""
    words = piece.casefold().split()
    for size in range(len(words), 0, -1):
        for start in range(len(words) - size + 1):
            if tables.details.find(" ".join(words[start : start + size])):
                return " ".join(words[start : start + size])
    return piece.casefold()


def _goes_without_saying(piece: str, detail: str, tables: Tables) -> bool:
    """Whether a piece only names the garment, whose kind brings the detail with it: 'hoodie'."""
    garment = tables.garments.find(piece)
    return garment is not None and detail in garment.details


def _note(details: list[str], word: str) -> None:
    if word not in details:
        details.append(word)


def read_design(at: Open, text: str, title: bool = False) -> bool:
    """Take garment, details, options and lining from prose; whether there was anything."""
    draft, taken = at.draft, False
    for piece in pieces(text):
        detail = detail_of(piece, at.tables)
        if detail is None:
            continue
        taken = True
        if detail == "sleepwear":
            draft.flags["nightwear"] = True
        word = _said(piece, at.tables) if title or garments_of(piece, at.tables) else piece.casefold()
        if _goes_without_saying(word, detail, at.tables):
            continue
        if _MAY_BE.search(piece):
            draft.options.append(
                {"name": word, "part": "", "views": [], "details": [word if at.tables.details.find_within(word) else detail]}
            )
        else:
            _note(draft.details, word if at.tables.details.find_within(word) else detail)
    if _LINED.search(text) and not _PART_LINED.search(text):
        draft.flags["lined"] = taken = True
    named = garments_of(text, at.tables)
    if named and "garment" not in draft.texts:
        draft.texts["garment"], taken = named[0], True
    return taken


def is_prose(text: str) -> bool:
    """Whether a line tells of the design in a sentence, and is no name."""
    words = text.split()
    ends, article = text.rstrip().endswith("."), re.match(r"(?:a|an|the|ein|eine)\s", text, re.IGNORECASE) is not None
    return (len(words) > 3 and (ends or article)) or (len(words) > 2 and ends and article)
