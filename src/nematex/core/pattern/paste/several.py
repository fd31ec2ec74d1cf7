"""Two garments of one envelope: 'Hoodie and joggers' is two patterns, each with its own list, amounts and details.

Which they are stands in the title ('joggers and hoodie') or in the rows that each begins. A line belongs to the garment
that leads it or heads its block; what none leads, and sizes, measurements and notions that are said once, belong to all.
Every line goes to at least one garment. Common practice, no source.
"""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from itertools import pairwise

from nematex.core.cloth.lexicon import key
from nematex.core.pattern.paste.draft import Line
from nematex.core.pattern.paste.garments import Named, named_garments
from nematex.core.pattern.paste.words import heading, lead_and_rest, measurement, views_of
from nematex.core.quantity.scan import once
from nematex.core.tables import Tables

JOINED = {"and", "&", "und", "plus", "with matching", "mit passender", "mit passendem"}
NOT_GARMENTS = ("version", "variation", "view", "length", "lengths", "option", "modell", "variante")  # 'dress and top length'
SHARED = ("sizes", "body", "finished", "notions", "difficulty", "name", "code", "house", "wearer", "season", "licence")
ELSEWHERE = re.compile(r"\b(?:with|over|under|for|worn|wear|pair(?:ed)?|mit|über|unter|zu)\b(?!\s+(?:matching|passende))", re.I)
TITLE_LINES, MOST_GARMENTS, LONGEST_LEAD = 3, 4, 60
UPPER, LOWER = ("top", "oberteil", "upper"), ("bottom", "bottoms", "unterteil", "hose", "trousers", "pants")
_SET = re.compile(r"\b(?:sets?|suit|two[- ]piece|twin ?set|pyjamas?|pajamas?|anzug|zweiteiler|schlafanzug)\b", re.IGNORECASE)
_ARTICLES = re.compile(r"^(?:a|an|the|ein|eine)\s+")
_THE = re.compile(r"^(?:the|der|die|das)\s+", re.IGNORECASE)
_LISTED = re.compile(r"[,;]|\b(?:and|und|plus)\b")
_SENTENCES = re.compile(r"(?<=[.;])\s+")
_FOR = re.compile(r"^(?:for|für)\s+(?:the|die|den|das|der)?\s*", re.IGNORECASE)
_FOLLOWS = re.compile(r"\s*(?:$|[:,\t|–—-]|(?=\d)|(?:in|aus)\b)\s*")  # what may stand behind a garment that leads a row


@dataclass(frozen=True, slots=True)
class Share:
    """One garment of an envelope: its name, and the lines that speak of it, as they are read for it."""

    garment: str
    lines: tuple[Line, ...]


def shares(lines: Sequence[Line], tables: Tables) -> list[Share]:
    """The envelope parted by garments; nothing where it is of one."""
    rows = [row for line in lines for row in _sentences(line, tables)]
    garments = _titled(rows, tables) or _leading(rows, tables)
    if not 1 < len(garments) <= MOST_GARMENTS or any(_is_view(row.said, tables) for row in rows):
        return []
    owners = _once_for_all(rows, _owners(rows, garments, tables), tables)
    return [Share(each, tuple(_own(rows, owners, each, tables))) for each in garments]


def _sentences(line: Line, tables: Tables) -> list[Line]:
    """A line by its sentences where each begins with a garment: 'Hoodie: French terry. Joggers: jersey.'"""
    found = heading(line.said, tables)
    told = found[2] if found and found[0] == "recommended" else ""
    for text in (told, line.said):
        pieces = [piece for piece in _SENTENCES.split(text) if piece.strip()]
        if len(pieces) > 1 and all(_lead(piece, tables) for piece in pieces[0 if told else 1 :]):
            return [replace(line, row=piece.strip(" ;")) for piece in pieces]
    return [line]


def _is_view(text: str, tables: Tables) -> bool:
    """Whether a garment's name stands for a view's: 'Dress A 150 cm 2.4 m'."""
    named = named_garments(key(text[:LONGEST_LEAD]).split(), tables)
    return bool(named) and named[0].start == 0 and views_of(text, tables) is not None


def _titled(rows: Sequence[Line], tables: Tables) -> list[str]:
    """Those that a title joins: 'Redshank joggers and hoodie'."""
    for row in [row for row in rows if row.said.strip()][:TITLE_LINES]:
        if told := _set_of(row.said, tables):
            return told
        joined = _joined(row.said, tables)
        if joined and not views_of(row.said, tables) and not heading(row.said, tables):
            return list(dict.fromkeys(each.garment for each in joined))
    return []


def _set_of(text: str, tables: Tables) -> list[str]:
    """'Pyjama set: shirt with a collar, trousers with a drawstring' is what it lists."""
    head, colon, rest = text.partition(":")
    if not colon or len(head) > LONGEST_LEAD or not _SET.search(head):
        return []
    firsts = (named_garments(_ARTICLES.sub("", key(piece)).split(), tables)[:1] for piece in _LISTED.split(rest))
    found = [each.garment for first in firsts for each in first if each.start == 0]
    several = list(dict.fromkeys(found))
    return several if len(several) > 1 else []


def _joined(text: str, tables: Tables) -> list[Named]:
    """The garments that a title's words join, in their order; none where they are worn with it, or lengths of one."""
    if len(text.partition(".")[0]) > LONGEST_LEAD:
        return []
    words = key(text.replace("+", " and ")).split()
    found: list[Named] = []
    named = named_garments(words, tables)
    for one, other in pairwise(named):
        before = ELSEWHERE.search(" ".join(words[: one.start]))
        after = words[other.end : other.end + 1]
        if " ".join(words[one.end : other.start]) in JOINED and not before and not (after and after[0] in NOT_GARMENTS):
            found += [other] if found and found[-1] is one else [one, other]
    return found


def _leading(rows: Sequence[Line], tables: Tables) -> list[str]:
    """Those that begin rows of amounts, or stand alone above them."""
    found: list[str] = []
    for at, row in enumerate(rows):
        lead = _lead(row.said, tables)
        if lead is None or (at == 0 and lead[1] and not _amounts(lead[1])):
            continue
        below = next((each.said for each in rows[at + 1 :] if each.said.strip()), "")
        if _amounts(lead[1]) or (not lead[1] and (_amounts(below) or heading(below, tables))):
            found.append(lead[0])
    several = list(dict.fromkeys(found))
    return several if len(several) > 1 else []


def _amounts(text: str) -> bool:
    return any(each.unit in ("m", "yd") for each in once(text))


def _lead(text: str, tables: Tables) -> tuple[str, str] | None:
    """The garment that a line begins with, and what follows: 'Joggers 150 cm: 1.4 m' → joggers; 'Dress A' is a view."""
    bare = _FOR.sub("", text.strip())
    told = bare != text.strip()  # 'for the blouse lawn, voile'
    bare = _THE.sub("", bare)  # 'The tee: a neckband'
    if not bare or views_of(bare, tables):
        return None
    words = bare.split()
    named = named_garments(key(" ".join(words[:5])).split(), tables)
    if not named or named[0].start != 0:
        return None
    rest = bare[len(_prefix(words, named[0].end)) :]
    follows = _FOLLOWS.match(rest)
    return (named[0].garment, rest[follows.end() if follows else 0 :].strip()) if follows or told else None


def _prefix(words: list[str], count: int) -> str:
    """The words as written whose key is the first `count` words of the whole key."""
    taken = ""
    for word in words:
        if len(key(taken).split()) >= count:
            break
        taken = f"{taken} {word}" if taken else word
    return taken.rstrip(":,")


def _owner(lead: str, garments: Sequence[str], tables: Tables) -> str | None:
    """Which of the garments a lead means: itself, or the only one at its layer ('top' of 'hoodie and joggers')."""
    if lead in garments:
        return lead
    below = {each: _below(each, tables) for each in garments}
    alike = [each for each in garments if below[each] == _below(lead, tables)]
    return alike[0] if len(alike) == 1 else None


def _below(garment: str, tables: Tables) -> bool:
    row = tables.garments.find(garment)
    return bool(row and row.below_waist)


def _owners(rows: Sequence[Line], garments: Sequence[str], tables: Tables) -> list[str]:
    """Whose each row is; "" for all."""
    found: list[str] = []
    open_, heads = "", False
    for at, row in enumerate(rows):
        lead = _lead(row.said, tables)
        owner = _owner(lead[0], garments, tables) if lead else None
        if owner and lead and not (at == 0 and lead[1] and not _amounts(lead[1])):
            open_, heads = owner, not lead[1]
        elif not row.said.strip() or (not heads and not _amounts(row.said)):
            open_ = open_ if heads and row.said.strip() else ""
        found.append(open_)
    return found


def _once_for_all(rows: Sequence[Line], owners: list[str], tables: Tables) -> list[str]:
    """Rows of a kind that is said once in the whole envelope are for all its garments."""
    kinds = [_kind(row.said, tables) for row in rows]
    return ["" if kind and kinds.count(kind) == 1 else owner for kind, owner in zip(kinds, owners, strict=True)]


def _kind(text: str, tables: Tables) -> str:
    found = heading(text, tables)
    if found and found[0] in SHARED:
        return found[0]
    lead = lead_and_rest(text)[0]
    measured = measurement(lead, tables) if lead else None
    return f"{measured[0]} {measured[1]}" if measured else ""


def _own(rows: Sequence[Line], owners: Sequence[str], garment: str, tables: Tables) -> Iterator[Line]:
    """The rows of one garment, its name taken from their beginnings and the others' from the title."""
    titled = False
    for row, owner in zip(rows, owners, strict=True):
        if owner not in ("", garment):
            continue
        lead = _lead(row.said, tables) if owner else None
        joined = [] if owner or titled else _joined(row.said, tables)
        titled = titled or bool(joined)
        yield replace(row, row=lead[1] if lead else _only(row.said, joined, garment) if joined else row.row)


def _only(title: str, joined: Sequence[Named], garment: str) -> str:
    """A title with this one of its garments: 'Redshank joggers and hoodie' → 'Redshank hoodie'."""
    words = title.split()
    before, through = _prefix(words, joined[0].start), _prefix(words, joined[-1].end)
    return f"{before} {garment}{title[len(through) :]}".strip()
