"""What a look at one thing found."""

from __future__ import annotations

from dataclasses import dataclass

WELL, CARE, ILL = "well", "care", "ILL"


@dataclass(frozen=True)
class Finding:
    """What was looked at, how it is, what was seen, and what to do."""

    what: str
    state: str
    seen: str
    do: str = ""


def well(what: str, seen: str) -> Finding:
    return Finding(what, WELL, seen)


def care(what: str, seen: str, do: str) -> Finding:
    """Nothing is broken yet."""
    return Finding(what, CARE, seen, do)


def ill(what: str, seen: str, do: str) -> Finding:
    return Finding(what, ILL, seen, do)
