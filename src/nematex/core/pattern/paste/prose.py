"""Prose of an envelope: what sentences say of one view becomes options of it, the rest is the design of all."""

from __future__ import annotations

import re

from nematex.core.pattern.paste.design import read_design
from nematex.core.pattern.paste.open_state import Open
from nematex.core.pattern.paste.options import add_options

_VIEW_SENTENCE = re.compile(
    r"(?:^|(?<=[.!;] ))(?:views?|versions?|modelle?|ansicht(?:en)?|variante)\s+"
    r"(?P<names>[A-H](?:\s*(?:,|&|and|und)\s*[A-H])*)\b(?P<said>[^.!;]*)",
    re.IGNORECASE,
)


def _of_views(text: str) -> list[tuple[list[str], str]]:
    """The views that sentences speak of, and what they say: 'View A has short sleeves. View B is midi.'"""
    found = (each for each in _VIEW_SENTENCE.finditer(text) if each["said"].strip())
    return [
        (re.findall(r"[A-H]", re.sub(r"and|und", " ", each["names"])), each["said"]) for each in found if each["said"].strip()
    ]


def read_prose(at: Open, text: str, title: bool = False) -> bool:
    """Take garment, details, options and lining from prose; whether there was anything."""
    found = _of_views(text)
    for views, said in found:
        add_options(at, views, said)
        text = text.replace(said, " ")
    return read_design(at, text, title) or bool(found)
