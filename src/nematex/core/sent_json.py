"""JSON as somebody else sends it. Total: what is none, or what no later reader could hold, is refused here.

A number has as many digits as a number of this program may have, a text no half signs, and nothing is Infinity or NaN.
"""

from __future__ import annotations

import json
from typing import Any

MOST_DIGITS = 18


def read_sent(content: bytes | str) -> Any:
    """What was sent; raises ValueError for what cannot be used."""
    try:
        found = json.loads(content, parse_int=_whole, parse_constant=_refused, parse_float=_number)
        json.dumps(found, ensure_ascii=False).encode()  # half signs
    except RecursionError:
        raise ValueError("is nested without end") from None
    return found


def _whole(text: str) -> int:
    if len(text) > MOST_DIGITS:
        raise ValueError("holds a number that is too long")
    return int(text)


def _number(text: str) -> float:
    found = float(text)
    if abs(found) > 1e15:
        raise ValueError("holds a number that is too large")
    return found


def _refused(text: str) -> float:
    raise ValueError(f"holds {text}, which is no number")
