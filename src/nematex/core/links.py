"""Links that a shop keeps with a cloth or a pattern: plain web addresses, nothing that runs."""

from __future__ import annotations

import re

from nematex.core.errors import FieldFault

LONGEST = 500
_ADDRESS = re.compile(
    r"https?://[^\s/?#@:<>\"'\\]+\.[^\s/?#@:<>\"'\\.]+(?::\d{1,5})?(?:[/?#][^\s<>\"'\\^`{|}()]*)?", re.IGNORECASE
)


def read_link(text: str, field: str = "link") -> str:
    """'shop.example/lawn' or 'https://shop.example/lawn' → the whole address; raises FieldFault. "" stays ""."""
    said = text.strip()
    if not said:
        return ""
    if len(said) > LONGEST:
        raise FieldFault(field, f"{said[:40]}…", f"is {len(said)} letters long; at most {LONGEST} are kept")
    whole = said if "://" in said else f"https://{said}"
    if not _ADDRESS.fullmatch(whole):
        raise FieldFault(field, said[:60], "is no web address; write it like https://shop.example/cloth")
    return whole
