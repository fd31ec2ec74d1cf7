"""Names that people sign in by."""

from __future__ import annotations

import unicodedata

from nematex.core.errors import FieldFault
from nematex.core.signs import without_controls

LONGEST_NAME = 60


def read_name(text: str) -> str:
    """A name as it is kept: composed, single blanks. Raises FieldFault."""
    name = " ".join(without_controls(unicodedata.normalize("NFC", text[: LONGEST_NAME * 4])).split())
    if not 2 <= len(name) <= LONGEST_NAME:
        raise FieldFault("name", name[:80] or "nothing", f"has {len(name)} letters; a name has 2 to {LONGEST_NAME}")
    return name


def name_key(name: str) -> str:
    """What two ways of writing one name share: upper and lower case, and letters that look alike as one sign or two."""
    return unicodedata.normalize("NFKC", unicodedata.normalize("NFKC", name).casefold())
