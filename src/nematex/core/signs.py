"""Signs that are no part of a text: control characters, halves of pairs, marks that turn its direction about."""

from __future__ import annotations

import re

_CONTROLS = re.compile(r"[\x00-\x08\x0b-\x1f\x7f-\x9f\ud800-\udfff\ufffe\uffff\u202a-\u202e\u2066-\u2069]")


def without_controls(text: str) -> str:
    """The text with line ends and tabs, and without the signs that spreadsheets and pages cannot hold."""
    return _CONTROLS.sub("", text.replace("\r\n", "\n").replace("\r", "\n").replace("\x0b", "\n").replace("\x0c", "\n"))


def on_one_line(text: str) -> str:
    """A name or a title: its line ends and tabs are blanks, and no two blanks stand together."""
    return " ".join(without_controls(text).split())
