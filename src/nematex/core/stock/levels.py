"""What a stock feed says, believed or refused row by row: a feed that talks nonsense must not empty a shelf.

How far a level may jump stands in data/judging.toml (common practice, no source). Lengths in m.
"""

from __future__ import annotations

import math
import reprlib
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

from nematex.core.codes import code_key
from nematex.core.rules.reckoning import FeedRules

LONGEST_CODE = 80  # letters
SHOWN_LETTERS = 60


@dataclass(frozen=True, slots=True)
class Levels:
    """Key of a code → metres that are believed; and what was refused, in words."""

    metres: Mapping[str, float]
    refused: tuple[str, ...]


def believed(rows: Sequence[object], known: Mapping[str, float | None], rule: FeedRules) -> Levels:
    """The levels of a feed's rows, {"code": …, "metres": …}; `known` are the codes of the shelf with their stock now."""
    found: dict[str, float] = {}
    refused: dict[str, str] = {}
    for row in rows:
        if not isinstance(row, Mapping) or not isinstance(row.get("code"), str) or not row["code"].strip():
            refused.setdefault(_shown(row), f"{_shown(row)}: names no code")
            continue
        key = code_key(row["code"].strip()[:LONGEST_CODE])
        fault = _fault(row.get("metres"), key, known, rule)
        if not fault and found.get(key, row["metres"]) != row["metres"]:
            fault = f"is given twice, as {found[key]:g} and as {row['metres']:g} m"
        if fault:
            code = row["code"][:SHOWN_LETTERS].encode("utf-8", "replace").decode()  # half a sign can be neither kept nor shown
            refused[key] = f"{code}: {fault}"
        else:
            found[key] = float(row["metres"])
    return Levels({key: metres for key, metres in found.items() if key not in refused}, tuple(refused.values()))


def _shown(row: object) -> str:
    """Something of the feed in few letters, however deep or long it is."""
    return reprlib.repr(row)[:SHOWN_LETTERS]


def _fault(metres: object, key: str, known: Mapping[str, float | None], rule: FeedRules) -> str:
    """Why a level is not believed; "" where it is."""
    if key not in known:
        return "is no cloth of this shelf"
    if (
        isinstance(metres, bool)
        or not isinstance(metres, int | float)
        or (isinstance(metres, float) and not math.isfinite(metres))
    ):
        return f"{_shown(metres)} is no length"
    if not 0 <= metres <= rule.most_m:  # also for a number of hundreds of digits, which is no float
        return f"{_shown(metres)} m is no stock; from 0 to {rule.most_m:g} m is believed"
    before = known[key]
    if before is not None and metres - before > rule.most_more_m:
        return f"{metres:g} m would be {metres - before:g} m more than before; up to {rule.most_more_m:g} m at once is believed"
    return ""


def is_late(stamp: datetime | None, now: datetime, rule: FeedRules) -> bool:
    """Whether a feed's own figures are older than they should be."""
    return stamp is not None and now - stamp > timedelta(minutes=rule.late_min)
