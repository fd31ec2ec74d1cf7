"""A corpus of invented envelopes with what each means, and how much of it is read.

`envelopes.tsv`: kind, language, text (⏎ is a line's end), and checks joined by '; '. What a sentence means to whoever cuts
by it is common practice, no source. A third of its lines, chosen by the hash of their text, is not looked at while the
grammar grows; `grown.tsv` holds two later batches that were measured first (66 % and 84 % of their thirds) and then looked
at whole, so that all of it counts as grown on.
"""

from __future__ import annotations

import re
import zlib
from dataclasses import dataclass
from functools import lru_cache
from math import inf
from pathlib import Path

from nematex.core.cloth.lexicon import key
from nematex.core.judging.demand import demand_structure
from nematex.core.pattern.envelope import Interpretation, read_envelope
from nematex.core.pattern.envelope.clause import Clause
from nematex.tables import trade_tables

TABLES = trade_tables()
FILE, GROWN = (Path(__file__).with_name(name) for name in ("envelopes.tsv", "grown.tsv"))
WORDS = ("permission", "condition", "part", "adjective", "limit")  # whose text is a list of cloths


@dataclass(frozen=True)
class Entry:
    """One line of the corpus."""

    kind: str
    language: str
    text: str
    checks: tuple[str, ...]
    grown: bool = False

    @property
    def unseen(self) -> bool:
        return not self.grown and zlib.crc32(self.text.encode()) % 3 == 0


@lru_cache(maxsize=1)
def corpus() -> tuple[Entry, ...]:
    found = []
    lines = [(line, file is GROWN) for file in (FILE, GROWN) for line in file.read_text().splitlines()]
    for line, grown in lines:
        kind, language, text, *rest = line.split("\t")
        checks = rest[-1]
        text = "\t".join([text, *rest[:-1]])
        found.append(
            Entry(
                kind,
                language,
                text.replace("⏎", "\n"),
                tuple(each.strip() for each in checks.split(";") if each.strip()),
                grown,
            )
        )
    return tuple(found)


def missed(entry: Entry) -> list[str]:
    """The checks of a list of cloths that do not hold."""
    reading = read_envelope(entry.text, TABLES)
    return [check for check in entry.checks if not holds(check, reading)]


def holds(check: str, reading: Interpretation) -> bool:
    if check.startswith("not "):
        return not holds(check[4:], reading)
    name, turned, wanted = re.fullmatch(r"([^=!]+)(!?)=(.*)", check).groups()  # type: ignore[union-attr]
    name = name.strip()
    if name in CHECKS:
        return CHECKS[name](reading, wanted, bool(turned))
    if name.split(" ")[0] in ("weight", "gsm") and " " in name:
        first, noun = name.split(" ", 1)
        found = _of(reading, noun)
        return bool(found) and (found[0].weight == wanted if first == "weight" else _spans(found[0].gsm, wanted))
    return _standing(reading, name, wanted)


def _of(reading: Interpretation, noun: str) -> list[Clause]:
    """The clauses whose noun is this, or holds it."""
    wanted = f" {key(noun)} "
    named = [each for each in reading.clauses if each.kind in ("cloth", "structure")]
    exact = [each for each in named if f" {key(each.words)} " == wanted]
    return exact or [each for each in named if wanted in f" {key(each.words)} " or _kind(each) == noun]


def _kind(clause: Clause) -> str:
    return str(clause.value) if clause.kind == "structure" else ""


def _standing(reading: Interpretation, noun: str, wanted: str) -> bool:
    """'asked', 'also@collar', 'asked#A,B', 'asked?lined': standing, part, views and condition, all of them and no other."""
    parts = re.fullmatch(r"(?P<standing>\w+)(?:@(?P<role>[^#?]+))?(?:#(?P<views>[^@?]+))?(?:\?(?P<condition>.+))?", wanted)
    assert parts, wanted
    for clause in _of(reading, noun):
        conditions = {each.kind if each.kind != "without" else f"without {each.what}" for each in clause.conditions} - {"view"}
        views = {each.upper() for each in clause.views}
        if (
            _word(clause.standing, parts["standing"])
            and clause.role == (parts["role"] or "")
            and views == set((parts["views"] or "").split(",")) - {""}
            and conditions == ({parts["condition"]} if parts["condition"] else set())
        ):
            return True
    return False


def _word(standing: str, wanted: str) -> bool:
    """What is given as an example is asked, whether or not it stands behind 'such as'."""
    firm = ("asked", "example")
    return standing == wanted or (standing in firm and wanted in firm) or (standing == "ruled out" and wanted == "out")


def _spans(found: object, wanted: str) -> bool:
    low, _, high = wanted.partition("-")
    if found is None:
        return wanted == "none"
    a, b = (found.low, found.high)  # type: ignore[attr-defined]
    return abs(a - float(low or 0)) <= 1 and (b == inf if not high else abs(b - float(high)) <= 1)


def _structure(reading: Interpretation, wanted: str, _: bool) -> bool:
    return demand_structure(reading, TABLES) == wanted


def _weight(reading: Interpretation, wanted: str, turned: bool) -> bool:
    if wanted == "none":
        return not reading.weights
    return wanted in (reading.avoid_weights if turned else reading.weights)


def _hand(reading: Interpretation, wanted: str, turned: bool) -> bool:
    word, _, view = wanted.partition("#")
    found = [each for each in reading.clauses if each.kind == "hand" and not each.role and each.out == turned]
    if wanted == "none":
        return not found
    return any(key(word) in key(each.words) and (not view or [v.upper() for v in each.views] == [view]) for each in found)


def _gsm(reading: Interpretation, wanted: str, _: bool) -> bool:
    if wanted == "between":
        return reading.gsm is not None and reading.gsm.low > 0 and reading.gsm.high < inf
    return any(_spans(span, wanted) for span in (reading.gsm, *reading.gsm_of.values()) if span or wanted == "none")


def _cross(reading: Interpretation, wanted: str, _: bool) -> bool:
    least, most = reading.min_cross_pct, reading.max_cross_pct
    if wanted == "none":
        return least is None and most is None
    low, _, high = wanted.partition("-")
    return (least == float(low) if low else least is None) and (most == float(high) if high else most is None)


def _elastane(reading: Interpretation, wanted: str, _: bool) -> bool:
    return any(_spans(each.value, wanted) for each in reading.clauses if each.kind == "elastane" and each.value is not None)


def _unread(reading: Interpretation, wanted: str, _: bool) -> bool:
    said = " / ".join(reading.unread)
    return key(wanted) in key(said) if wanted else not reading.unread


CHECKS = {
    "structure": _structure,
    "weight": _weight,
    "hand": _hand,
    "gsm": _gsm,
    "cross": _cross,
    "length": lambda reading, wanted, _: reading.min_length_pct == float(wanted.partition("-")[0]),
    "elastane": _elastane,
    "print": lambda reading, wanted, turned: wanted in reading.avoid_prints if turned else False,
    "sheer": lambda reading, *_: reading.avoid_sheer,
    "recovers": lambda reading, *_: reading.recovers,
    "width": lambda reading, wanted, _: any(each.kind == "width" and _spans(each.value, wanted) for each in reading.clauses),
    "none": lambda reading, wanted, _: (
        not any(wanted in name for item in reading.cloths if not item.part for name in item.types)
    ),
    "unread": _unread,
}
