"""The words for what is found, as a table: rule and case → a reason and a remedy with blanks; one file per language."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from nematex.core.errors import TableFault

Texts = Mapping[str, str]


@dataclass(frozen=True, slots=True)
class Saying:
    """A reason and a remedy with {blanks}; `own` lets the remedy of the detail that asked come first."""

    reason: str
    remedy: str = ""
    own: bool = False


@dataclass(frozen=True, slots=True)
class Sayings:
    """All sayings of one language, with the small words that fill them."""

    cases: Mapping[str, Mapping[str, Saying]]
    askers: Texts
    words: Texts


def read_sayings(raw: Mapping[str, Mapping[str, object]], table: str) -> Sayings:
    """The file's values as sayings; raises TableFault naming the place that is not a reason with a remedy."""
    cases: dict[str, dict[str, Saying]] = {}
    for rule, rows in raw.items():
        if rule in ("askers", "words"):
            continue
        for case, row in rows.items():
            place = f"{table}: {rule}: {case}"
            if not isinstance(row, Mapping) or not set(row) <= {"reason", "remedy", "own"} or "reason" not in row:
                raise TableFault(place, row, "must have a reason, and may have a remedy and own")
            cases.setdefault(rule, {})[case] = Saying(str(row["reason"]), str(row.get("remedy", "")), bool(row.get("own")))
    return Sayings(cases, _texts(raw, "askers", table), _texts(raw, "words", table))


def _texts(raw: Mapping[str, Mapping[str, object]], name: str, table: str) -> Texts:
    if name not in raw:
        raise TableFault(f"{table}: {name}", "", "is missing")
    return {word: str(text) for word, text in raw[name].items()}
