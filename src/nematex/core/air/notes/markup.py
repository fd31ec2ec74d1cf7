"""Text in Markdown that cannot break out of its line (CommonMark 0.31, backslash escapes)."""

from __future__ import annotations

import re

_SIGNS = re.compile(r"([\\`*_\[\]<>#|~]|&(?=#?\w{1,31};))")


def escape_markdown(text: str) -> str:
    """The text on one line, with what CommonMark reads as a sign escaped."""
    line = _SIGNS.sub(r"\\\1", " ".join(text.split()))
    line = re.sub(r"^([-+=])", r"\\\1", line)  # these begin a list or a rule where a line begins with them
    return re.sub(r"^(\d{1,9})([.)])(?=\s|$)", r"\1\\\2", line)
