"""Tables whose head is a row of widths: 'Width 115 140 150', and below it 'View A 3.0 2.4 2.2'."""

from __future__ import annotations

import re

from nematex.core.pattern.paste.amount_rows import WIDTH_AND_LENGTH
from nematex.core.pattern.paste.amounts import LONGEST_M, length_m
from nematex.core.pattern.paste.draft import Line
from nematex.core.pattern.paste.open_state import UNSAID, Open
from nematex.core.pattern.paste.sizes import read_sizes
from nematex.core.pattern.paste.uses import use_named
from nematex.core.pattern.paste.words import views_of
from nematex.core.quantity.scan import lengths

_HEAD = re.compile(r"^\s*(?:(?:fabric|cloth|stoff)?\s*-?\s*(?:widths?|breiten?)|stoffbreiten?)\b[\s:|]*", re.IGNORECASE)


def width_columns(at: Open, line: Line, text: str) -> bool:
    """The head: two widths or more."""
    head = None if WIDTH_AND_LENGTH.search(text) else _HEAD.match(text)
    figures = list(lengths(text[head.end() :])) if head else []
    widths = [round(each.cm("in" if each.value < 70 else "cm"), 1) for each in figures]
    if len(widths) < 2 or not all(70 <= each <= 320 for each in widths):
        return False
    at.widths, line.field, at.section = widths, "table", "requirements"
    at.unit = at.unit if at.unit in ("m", "yd") else "yd" if figures[0].value < 70 else "m"
    return True


def width_row(at: Open, line: Line, text: str) -> bool:
    """A row below it: whom it is for, then an amount for each width."""
    figures = list(lengths(text)) if at.widths else []
    amounts = figures[-len(at.widths) :] if at.widths else []
    metres = [length_m(each, at.unit) for each in amounts]
    if len(amounts) < len(at.widths or [0]) or not all(0.05 <= each <= LONGEST_M for each in metres):
        at.widths = at.widths if _HEAD.match(text) else []
        return False
    label = text[: amounts[0].start].strip(" \t|:")
    viewed = views_of(label, at.tables)
    views = viewed[0] if viewed else at.views or [UNSAID]
    sizes = read_sizes(re.sub(r"^\s*(?:sizes?|gr(?:öße|ößen)?\.?)\s+", "", viewed[1] if viewed else label, flags=re.IGNORECASE))
    labels = [at.own_label(each) for each in sizes or []] or [each for group in at.groups for each in group]
    use = use_named(label, at.tables) or at.use
    for view in views:
        for width_cm, metre in zip(at.widths, metres, strict=True):
            row = {"view": view, "sizes": labels, "width_cm": width_cm, "length_m": metre, "with_nap": at.nap, "use": use}
            at.draft.requirements.append(row)
    line.field = "requirements"
    return True
