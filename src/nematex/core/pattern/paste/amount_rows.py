"""Lines that say how much cloth: alone, for each size, or for groups of sizes."""

from __future__ import annotations

import re
from collections.abc import Callable
from typing import Any

from nematex.core.pattern.paste.amounts import Amounts, read_amounts
from nematex.core.pattern.paste.draft import Line
from nematex.core.pattern.paste.open_state import UNSAID, USES, Open
from nematex.core.pattern.paste.reckoned import between
from nematex.core.pattern.paste.sizes import read_sizes
from nematex.core.pattern.paste.uses import use_named
from nematex.core.quantity.scan import once

# Clauses with a width of their own: '45": 3 3/8 yds, 60": 2 5/8 yds'.
_CLAUSES = re.compile(
    r";|\bor\b|(?<=[a-z])(?<!gr)\.\s|"
    # '…, sizes 12-14 2.4 m' and '(sizes 8-10), 2.4 m': a clause has sizes of its own.
    r",\s+(?=(?:gr(?:öße|ößen|\.)|sizes?)\s)|(?<=\)),\s|(?<=[a-z\d]),\s+(?=[\d.,]+\s*(?:m|yds?)\s+(?:\(|for\b|sizes?\s|gr))|"
    r",(?=\s*\d{2,3}\s*(?:\"|”|″|in\b|inch|cm)\s*(?:wide)?\s*\**\s*[:=])",
    re.IGNORECASE,
)


def amounts_line(at: Open, line: Line, text: str) -> bool:
    """Amounts of cloth, in one or several clauses; outside a table only with a unit."""
    use = use_named(text, at.tables) or at.use
    if at.width and at.section == "requirements" and not width_said(text):
        text = f"{at.width}: {_SIZES_LEAD.sub(_with_word(at), text, count=1)}"
    table = at.section in ("requirements", *USES) or _is_row_of_groups(at, text)
    clauses = _with_their_width([_sized(at, part) for part in _CLAUSES.split(text) if part.strip()])

    def read(part: str) -> Amounts | None:
        return read_amounts(part, at.unit, table, at.stars, narrow=use == "interfacing")

    found = [read(part) for part in clauses]
    if len(clauses) < 2 or not all(found):
        found = [read(text)]
    if not all(found) or (not table and not _plain_amount(text)):
        return False
    for amounts in found:
        if amounts and not _add(at, line, amounts, use):
            return True
    line.field = use if use != "main" else "requirements"
    return True


_SIZES_LEAD = re.compile(r"^\s*(?P<sizes>[\dXSML/]{1,5}(?:\s*(?:-|–|to|bis)\s*[\dXSML]{1,4})?)\s*:?\s+(?=[\d.,]+\s*(?:m|yd))")


def _with_word(at: Open) -> Callable[[re.Match[str]], str]:
    """'14-20 2.1 m' begins with sizes where the envelope has such."""
    known = {size["label"] for size in at.draft.sizes}

    def named(match: re.Match[str]) -> str:
        labels = read_sizes(match["sizes"])
        return f"sizes {match['sizes']} " if labels and set(labels) <= known else match[0]

    return named


_LABEL = r"(?:X{0,4}[SML]|[1-6]XL?)"
_OWN_SIZES = re.compile(
    rf"(?<![\w.,/½¼¾-])(?P<sizes>{_LABEL}(?:\s*(?:-|–|to|bis|,|/)\s*{_LABEL})*|\d{{1,2}}\s*(?:-|–|to|bis)\s*\d{{1,2}})"
    r"\s*:?\s+(?=\d[\d.,/ ½¼¾⅛⅜⅝⅞]*\s*(?:m|yds?)\b)"
)


def _sized(at: Open, clause: str) -> str:
    """'XS-M 1.1 m' and '8-14 2.1 m' begin with sizes where the envelope has such: no amount is for more than it says."""
    found = _OWN_SIZES.findall(clause)
    if len(found) != 1 or _WORD_OF_SIZES.search(clause):
        return clause
    labels, known = read_sizes(found[0]), [size["label"] for size in at.draft.sizes]
    here = labels and {labels[0], labels[-1]} <= set(known)
    return _OWN_SIZES.sub(r"sizes \g<sizes> ", clause) if here else clause


_WORD_OF_SIZES = re.compile(r"\b(?:sizes?|gr(?:ö(?:ß|ss)en?|\.))\s", re.IGNORECASE)
WIDTH_AND_LENGTH = re.compile(
    r"\b(?:width|breite)\b[^a-z]{0,12}(?:cm|m|in|\")\W+(?:length|länge)\b[^a-z]{0,12}(?:m|cm|yds?)\b", re.IGNORECASE
)


def width_and_length(at: Open, line: Line, text: str) -> bool:
    """'Width: 1.40 m. Length: 2.10 m.' is one amount."""
    found = WIDTH_AND_LENGTH.search(text)
    return found is not None and amounts_line(at, line, re.sub(r"(?<=[a-z])\.\s", " ", found[0]))


def _is_row_of_groups(at: Open, text: str) -> bool:
    """'140 cm | 2.6 | 2.6 | 2.7': a width, then an amount for each size, without a unit."""
    found = once(text)
    first = found[0] if found else None
    wide = (
        first is not None
        and first.unit in ("cm", "in")
        and 70 <= first.cm("cm") <= 320
        and re.search(r"\d", text[: first.start]) is None
    )
    return bool(wide) and len(found) - 1 == len(at.groups) > 1


def _with_their_width(clauses: list[str]) -> list[str]:
    """'140 cm wide: 2.1 m (sizes 8-10), 2.4 m (sizes 12-14)': the width of the first is that of those that say none."""
    said = [words for clause in clauses if (words := width_said(clause))]
    return clauses if len(said) != 1 else [each if width_said(each) else f"{said[0]}: {each}" for each in clauses]


def lengths_in(text: str) -> bool:
    """Whether a text says a length in metres or yards."""
    return any(each.unit in ("m", "yd") for each in once(text))


def only_width(text: str) -> bool:
    """Whether a text says a width of cloth and no other number."""
    wide = width_said(text)
    return bool(wide) and re.search(r"\d", text.replace(wide, "", 1)) is None


def width_said(text: str) -> str:
    """The width of cloth that a text says, as it is written; "" where it says none."""
    wide = next((each for each in once(text) if each.unit in ("cm", "in") and 70 <= each.cm("cm") <= 320), None)
    return text[wide.start : wide.end] if wide else ""


def _plain_amount(text: str) -> bool:
    """Outside a table of amounts a line must say a length with its unit, or a width that is called so."""
    found = once(text)
    return any(each.unit in ("m", "yd") for each in found) or (
        len(found) > 1 and re.search(r"\b(?:wide|breit|width)\b", text, re.IGNORECASE) is not None
    )


def _add(at: Open, line: Line, amounts: Amounts, use: str) -> bool:
    lengths = list(amounts.lengths_m)
    if len(lengths) == 1:
        known = {size["label"] for size in at.draft.sizes}
        there = [label for label in map(at.own_label, amounts.sizes) if label in known]  # a range names no size that is not
        labels = there or list(amounts.sizes) or [label for group in at.groups for label in group]
        rows = [(labels, lengths[0])]
    elif len(lengths) == len(at.groups):
        rows = _together(at, lengths)
    elif len(lengths) == 2 and lengths[0] <= lengths[1] and not amounts.sizes and len(at.groups) > 2:
        return _add_between(at, amounts, use)
    else:
        line.fault = f"has {len(lengths)} amounts for {len(at.groups)} sizes; give one, or one for each"
        return False
    for view in at.views or [UNSAID]:
        at.draft.requirements += [_row(at, view, labels, amounts, length, use) for labels, length in rows]
    at.last_count = len(lengths)
    return True


def _row(at: Open, view: str, labels: list[str], amounts: Amounts, length_m: float, use: str) -> dict[str, Any]:
    nap = amounts.with_nap or at.nap
    return {"view": view, "sizes": labels, "width_cm": amounts.width_cm, "length_m": length_m, "with_nap": nap, "use": use}


def _add_between(at: Open, amounts: Amounts, use: str) -> bool:
    """Amounts of the smallest and the largest size: those between lie between, and are said to be reckoned."""
    least, most = amounts.lengths_m
    last = len(at.groups) - 1
    for view in at.views or [UNSAID]:
        for place, group in enumerate(at.groups):
            row = _row(at, view, list(group), amounts, between(least, most, place, last), use)
            at.draft.requirements.append(row if place in (0, last) else row | {"reckoned": True})
    at.last_count = 2
    return True


def _together(at: Open, lengths: list[float]) -> list[tuple[list[str], float]]:
    """Neighbouring sizes that take the same length are one row."""
    rows: list[tuple[list[str], float]] = []
    for group, length in zip(at.groups, lengths, strict=True):
        if rows and rows[-1][1] == length:
            rows[-1][0].extend(group)
        else:
            rows.append((list(group), length))
    return rows
