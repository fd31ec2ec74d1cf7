"""When two article codes are the same."""

from __future__ import annotations

import unicodedata


def code_key(code: str) -> str:
    """Equal for codes that differ in capitals only, however their accents are stored; é and e stay two letters."""
    return unicodedata.normalize("NFC", unicodedata.normalize("NFC", code).casefold())
