"""Headings that begin a table: cloth required, body and finished measurements, lining, interfacing, contrast."""

from __future__ import annotations

import re

from nematex.core.pattern.envelope import read_envelope
from nematex.core.pattern.paste.amount_rows import amounts_line, only_width, width_said
from nematex.core.pattern.paste.draft import Line
from nematex.core.pattern.paste.measure_rows import measurement_line
from nematex.core.pattern.paste.open_state import USES, Open
from nematex.core.pattern.paste.options import take
from nematex.core.pattern.paste.words import views_of
from nematex.core.quantity.scan import last_unit, lengths


def begin_table(at: Open, line: Line, lead: str, rest: str, name: str) -> bool:
    """A heading that begins the table of this name; what follows it on its line may be its first row."""
    at.section, at.use = name, name if name in USES else "main"
    at.unit = last_unit(lead) or last_unit(rest if not lengths(rest) else "")
    if not at.unit and "yard" in lead.casefold():
        at.unit = "yd"
    if not at.unit and re.search(r"met(?:re|er|r)age", lead.casefold()):
        at.unit = "m"
    at.nap = at.always_nap or "with nap" in lead.casefold()
    line.field = name
    at.width = width_said(f"{lead} {rest}") if only_width(f"{lead} {rest}") else ""
    if rest.strip() and not (at.width and not read_envelope(rest, at.tables).cloths):
        _rest_of_table(at, line, rest)
    return True


def _rest_of_table(at: Open, line: Line, rest: str) -> None:
    line.field = ""
    viewed = views_of(rest, at.tables)
    if viewed:
        at.views, rest = viewed
    if (
        amounts_line(at, line, rest)
        or measurement_line(at, line, rest)
        or last_unit(rest) == rest.strip().strip("()").casefold()
    ):
        line.field = line.field or at.section
        if at.section == "interfacing" and re.search(r"fusible|sew|woven|knit|light|medium|firm|canvas", rest, re.IGNORECASE):
            at.draft.add_text("notions", f"interfacing: {rest}")
        return
    if at.section in ("interfacing", "contrast"):
        take(at, line, "notions", f"{rest} {at.section}" if at.section not in rest else rest)
    elif at.section == "lining":
        take(at, line, "lining", rest)
    elif at.section == "requirements":
        take(at, line, "recommended", rest)
        at.section = "recommended"
    else:
        line.fault = "was not understood as a row of this table"
