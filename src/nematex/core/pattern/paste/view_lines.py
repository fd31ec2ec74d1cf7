"""Lines about views: what they differ in, what they take."""

from __future__ import annotations

import re

from nematex.core.pattern.paste.amount_rows import amounts_line
from nematex.core.pattern.paste.draft import Line
from nematex.core.pattern.paste.open_state import TEXTS, USES, Open
from nematex.core.pattern.paste.options import add_options, take
from nematex.core.pattern.paste.words import heading, views_of

_USE_OF_VIEWS = re.compile(
    r"^\s*(?P<use>contrast|lining|interfacing|main fabric|main cloth)\s+(?:for\s+)?(?:views?\s+)?"
    r"(?P<names>[A-Z](?:\s*(?:,|&|and|/|\+)\s*[A-Z])*)\b(?![a-z'])[:\s]*(?P<rest>.*)$"
)


def use_line(at: Open, line: Line, text: str) -> bool:
    """'Contrast B', 'Interfacing A, B: 0.5 m': another cloth than the main one, and the views it is for."""
    found = _USE_OF_VIEWS.match(text[:1].lower() + text[1:])
    if found is None:
        return False
    use = found["use"] if found["use"] in USES else "main"
    at.section, at.use = use if use in USES else "requirements", use
    at.views = re.findall(r"[A-Z]", re.sub(r"\band\b", " ", found["names"]))
    line.field = use if use in USES else "requirements"
    if found["rest"].strip() and not amounts_line(at, line, found["rest"]):
        take(at, line, "notions", text)
    return True


def view_line(at: Open, line: Line, text: str) -> bool:
    """A line that begins with a view."""
    viewed = views_of(text, at.tables)
    if viewed is None:
        return False
    if at.section == "notions" and viewed[1]:
        take(at, line, "notions", text)
        return True
    at.views, rest = viewed
    if at.section in TEXTS:
        at.section = ""
    line.field = "views"
    if not rest:
        return True
    line.field = ""
    use, at.use = at.use, "main" if at.section not in USES else at.use
    if amounts_line(at, line, rest):
        return True
    at.use = use
    found = heading(rest, at.tables)
    if found and found[0] in (*USES, "notions", "requirements"):
        return _view_heading(at, line, found[0], found[2], rest)
    add_options(at, at.views, rest)
    line.field = "views"
    return True


def _view_heading(at: Open, line: Line, kind: str, rest: str, whole: str) -> bool:
    """'View A lining: 1.2 m of 140 cm', 'View B notions: zip'."""
    if kind == "notions":
        take(at, line, "notions", f"View {', '.join(at.views)}: {rest}")
        return True
    at.use = kind if kind in USES else "main"
    if not amounts_line(at, line, rest):
        take(at, line, "notions", whole)
    at.use = "main"
    return True


def on_views(at: Open, line: Line, lead: str, rest: str) -> bool:
    """'A full length with pleats; B cropped'."""
    at.section, line.field = "views", "views"
    for piece in re.split(r";|(?<=[a-z)])[.,]\s+(?=(?:View\s+)?[A-Z0-9]\b[\s:–-])", rest):
        found = re.match(r"\s*(?:view\s+)?([A-Z0-9])\b\s*[:–-]?\s*(.*)", piece, re.IGNORECASE)
        if found:
            add_options(at, [found[1].upper()], found[2])
    return True
