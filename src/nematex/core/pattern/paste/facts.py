"""Headings with one fact behind them: difficulty, stretch, parts, nap, how it is sold."""

from __future__ import annotations

import math
import re

from nematex.core.cloth.lexicon import key
from nematex.core.pattern.envelope import read_envelope
from nematex.core.pattern.paste.draft import Line
from nematex.core.pattern.paste.garments import garments_of
from nematex.core.pattern.paste.open_state import Open
from nematex.core.pattern.paste.options import details_in
from nematex.core.quantity.scan import once


def on_difficulty(at: Open, line: Line, lead: str, rest: str) -> bool:
    """One of the four levels, by many words."""
    levels = at.tables.paste_words["level"]
    word = re.split(r"[,;./(]", rest)[0]
    found = levels.get(key(word)) or next((levels[key(each)] for each in word.split() if key(each) in levels), None)
    if found is None:
        line.fault = "is no difficulty; choose from easy, improver, intermediate, advanced"
        return True
    at.draft.texts["difficulty"], line.field, at.section = found, "difficulty", ""
    return True


def on_stretch(at: Open, line: Line, lead: str, rest: str) -> bool:
    """The least stretch, across and along."""
    if re.match(r"\s*(?:none|no\b|non)", rest, re.IGNORECASE):
        line.field = "stretch"
        return True
    words = rest if "stretch" in rest.casefold() else f"{rest} stretch"
    reading = read_envelope(words, at.tables)
    if reading.min_cross_pct is None and reading.max_cross_pct is None:
        line.fault = "says no stretch; write it like 40 % across"
        return True
    for name, value in (("cross", reading.min_cross_pct), ("length", reading.min_length_pct)):
        if value:
            at.draft.numbers[f"min_stretch_{name}_pct"] = value
    line.field, at.section = "stretch", ""
    return True


def on_sold_as(at: Open, line: Line, lead: str, rest: str) -> bool:
    """Paper, PDF or both."""
    low = rest.casefold()
    both = "pdf" in low and "paper" in low  # a PDF to print at home is a PDF
    at.draft.texts["sold_as"] = "paper and PDF" if both else "PDF" if "pdf" in low or "download" in low else "paper"
    line.field, at.section = "sold as", ""
    return True


def on_parts(at: Open, line: Line, lead: str, rest: str) -> bool:
    """'body (close); sleeves (free, full sleeve)', or how the whole sits."""
    for piece in re.split(r";|,(?![^(]*\))", rest):
        found = re.match(r"\s*(?P<name>[^()]*?)\s*(?:\((?P<more>[^)]*)\))?\s*$", piece)
        if not found or not found["name"]:
            continue
        name, words = found["name"], (found["more"] or found["name"]).casefold()
        fit = next((fit for fit in ("semi", "loose", "free", "close") if fit in words), None)
        if re.fullmatch(r"(?:very\s+)?(?:close|semi|loose|free)[\w\s-]*", name.casefold()):
            name = "body"
        at.draft.parts.append({"name": name, "fit": fit, "details": details_in(at, found["more"] or "")})
    line.field, at.section = "parts", ""
    return True


def on_nap(at: Open, line: Line, lead: str, rest: str) -> bool:
    """Whether every amount below is with nap."""
    at.nap = at.always_nap = bool(re.match(r"\s*(?:yes|with|required)\b", rest, re.IGNORECASE))
    line.field = "nap"
    return True


def level(at: Open, line: Line, text: str) -> bool:
    """'Easy.' as a line of its own."""
    found = at.tables.paste_words["level"].get(key(text))
    if found is None or text.strip().isdigit() or at.section:
        return False
    at.draft.texts.setdefault("difficulty", found)
    line.field = "difficulty"
    return True


_AUDIENCE = re.compile(
    r"^\s*(?:for\s+|für\s+)?"
    r"(?:(?:children|child|kids|boys|girls|babies|baby|toddlers|kinder)\b|(?:ages?|aged)\s*:?\s+\d)",
    re.IGNORECASE,
)


def audience(at: Open, line: Line, text: str) -> bool:
    """'For children aged 4 to 10', 'Ages 2 4 6 8': it is a child's; a list of ages is read as sizes as well."""
    if not _AUDIENCE.match(text):
        return False
    at.draft.texts["for"], line.field = "child", "worn by"
    return not re.match(r"\s*(?:for\s+)?ages?\b", text, re.IGNORECASE) and not garments_of(text, at.tables)


LEGEND = re.compile(
    r"(?<!\*)(?P<stars>\*{1,3})(?!\*)\s*=?\s*(?P<words>(?:with or without|without|with|w/o|no)\s+nap)", re.IGNORECASE
)
USUAL_STARS = {1: True, 2: False, 3: False}  # with, without, with or without nap: common practice, no source


def stars_of(text: str) -> dict[int, bool]:
    """How many stars beside a width mean that its amount is with nap: as the envelope says, else as is usual."""
    said = {len(each["stars"]): each["words"].casefold().startswith("with ") for each in LEGEND.finditer(text)}
    said |= {len(each["stars"]): False for each in LEGEND.finditer(text) if " or " in each["words"].casefold()}
    return USUAL_STARS | said


_PULLED = re.compile(
    r"\b(?:must|should|needs? to|has to|will)?\s*stretch(?:es)?\s+(?:easily\s+)?(?:from\s+)?(?:at least\s+)?to\b", re.IGNORECASE
)
MOST_PCT = 400


def pulled_pct(text: str) -> float | None:
    """The stretch in whole percent of '10 cm must stretch to 14 cm'; None where the line says no such thing."""
    found = _PULLED.search(text)
    if not found:
        return None
    before, after = once(text[: found.start()]), once(text[found.end() :])
    if not before or not after:
        return None
    relaxed, pulled = before[-1].cm("in"), after[0].cm(before[-1].unit or "in")
    percent = math.floor(100 * (pulled / relaxed - 1) + 1e-6) if relaxed else 0
    return float(percent) if 0 < percent <= MOST_PCT else None


def on_widest(at: Open, line: Line, lead: str, rest: str) -> bool:
    """The widest piece."""
    found = once(rest)
    if found:
        at.draft.numbers["widest_piece_cm"], line.field = round(found[0].cm("cm"), 1), "widest piece"
    else:
        line.fault = "holds no measurement; write it like 62 cm"
    return True


def on_structure(at: Open, line: Line, lead: str, rest: str) -> bool:
    """Woven, knit or either."""
    low = rest.casefold()
    knit, woven = bool(re.search(r"\bknits?\b|\bjersey\b|\bstretch\b", low)), bool(re.search(r"\bwovens?\b", low))
    if not (knit or woven or "either" in low):
        return False
    both = (knit and woven) or "either" in low
    at.draft.texts["structure"] = "either" if both else "knit" if knit else "woven"
    line.field, at.section = "structure", ""
    return True


def on_wearer(at: Open, line: Line, lead: str, rest: str) -> bool:
    """Adult or child."""
    at.draft.texts["for"] = "child" if re.search(r"child|kid|baby|toddler|boy|girl", rest.casefold()) else "adult"
    line.field = "worn by"
    return True
