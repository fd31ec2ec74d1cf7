"""How often the rules agree with what hands judged, which reasons the misses hang on, and which numbers would do better.

The numbers are chosen on four fifths of the judgements and tried on the fifth that had no part in the choice (k-fold
cross-validation); of each number a few multiples are tried, one number after the other (coordinate search). Nothing is
changed: a person decides. Invariant: no judgement is in its own fold's choice, and each is tried once.
"""

from __future__ import annotations

import json
import zlib
from collections import Counter
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from typing import Any

from pydantic import Field, TypeAdapter, ValidationError

from nematex.core.cloth.columns import columns
from nematex.core.cloth.estimates import Cloth
from nematex.core.errors import FieldFault
from nematex.core.judging.demand import Demand, demand
from nematex.core.judging.judge import gravest_first, judge
from nematex.core.judging.pairing import Pairing, pair
from nematex.core.judging.verdict import Verdict
from nematex.core.pattern.facts import Pattern, Wish
from nematex.core.tables import Tables
from nematex.usecases.assess.pairing import parse_parts
from nematex.usecases.assess.schema import PairingIn, ShortText, Strict

FOLDS = 5
NUMBERS = (
    "tolerance.weight", "tolerance.drape_cm", "tolerance.softer_cm", "tolerance.number", "tolerance.stretch",
    "list.pad_weight", "list.pad_drape_cm", "list.group_weight_log", "list.group_drape_cm", "list.kin_steps",
    "kinship.family.weight_log", "kinship.family.bend_cm", "kinship.surface.weight_log", "kinship.surface.bend_cm",
    "kinship.neighbour.weight_log", "kinship.neighbour.bend_cm", "kinship.surface.thick_log",
)  # fmt: skip
TIMES = (0.7, 0.85, 1.2, 1.4)
OPPOSITE = {Verdict.SUITS, Verdict.AGAINST}
Setting = tuple[float, ...]  # of each number how many times what it is


class JudgedIn(Strict):
    """A pairing as `assess` takes it, and the verdicts that hands give it."""

    id: ShortText
    input: PairingIn
    expect: list[str] = Field(min_length=1)
    why: str = ""


@dataclass(frozen=True)
class Judged:
    """A cloth, a pattern and the choices, and the verdicts that hands give them."""

    id: str
    cloth: Cloth
    pattern: Pattern
    wish: Wish
    expect: tuple[str, ...]


@dataclass(frozen=True)
class Miss:
    """A judgement that the rules do not share: what they say, what hands say, and the number that decided."""

    id: str
    said: str
    expect: tuple[str, ...]
    check: str
    rule: str
    hangs_on: str


@dataclass(frozen=True)
class Fold:
    """What was chosen on the other folds (number → times), and how many of this one's judgements agree, before and with it."""

    size: int
    chosen: dict[str, float]
    as_shipped: int
    with_chosen: int


@dataclass(frozen=True)
class Calibration:
    """The whole: agreement by what hands say, opposite verdicts, misses, and the folds."""

    size: int
    agreed: dict[str, tuple[int, int]]
    by_reason: dict[str, tuple[int, int]]
    opposite: tuple[str, ...]
    misses: tuple[Miss, ...]
    folds: tuple[Fold, ...]

    @property
    def as_shipped(self) -> int:
        return sum(agreed for agreed, _ in self.agreed.values())

    @property
    def cross_validated(self) -> int:
        """How many agree where the numbers were chosen without them."""
        return sum(fold.with_chosen for fold in self.folds)

    @property
    def proposed(self) -> dict[str, list[float]]:
        """Numbers that more than half of the folds would change, with the multiples they chose."""
        every: dict[str, list[float]] = {}
        for fold in self.folds:
            for name, times in fold.chosen.items():
                every.setdefault(name, []).append(times)
        return {name: found for name, found in every.items() if 2 * len(found) > len(self.folds)}


def read_judgements(text: str, tables: Tables) -> list[Judged]:
    """The judgements of a JSON list; raises FieldFault naming which one, and what is wrong in it."""
    return [Judged(each.id, *parse_parts(each.input, tables), tuple(each.expect)) for each in _read(text)]


def _read(text: str) -> list[JudgedIn]:
    try:
        found = TypeAdapter(list[JudgedIn]).validate_python(json.loads(text))
    except ValidationError as fault:
        first = fault.errors(include_url=False)[0]
        place = ".".join(map(str, first["loc"])) or "judgements"
        raise FieldFault(place, str(first["input"])[:60], first["msg"].lower()) from None
    except (ValueError, RecursionError):
        raise FieldFault("judgements", text[:40], "is no JSON; give a list of {id, input, expect}") from None
    words = [each.word for each in Verdict]
    for each in found:
        if unknown := [word for word in each.expect if word not in words]:
            raise FieldFault(f"expect of {each.id}", unknown[0][:40], f"is no verdict; choose from {', '.join(words)}")
    if not found:
        raise FieldFault("judgements", "", "holds none; give a list of {id, input, expect}")
    return found


def _with(tables: Tables, setting: Setting) -> Tables:
    """The tables with each number so many times what it is."""
    judging: Any = tables.judging
    for name, times in zip(NUMBERS, setting, strict=True):
        judging = _scaled(judging, name.split("."), times)
    return replace(tables, judging=judging)


def _scaled(record: Any, path: Sequence[str], times: float) -> Any:
    """A record with the number at the end of a path so many times what it is."""
    own = getattr(record, path[0])
    return replace(record, **{path[0]: _scaled(own, path[1:], times) if path[1:] else own * times})


def _fold_of(each: Judged) -> int:
    return zlib.crc32(each.id.encode()) % FOLDS


def _agreeing(judged: Sequence[Judged], tables: Tables) -> Callable[[Setting], list[bool]]:
    """Setting → which judgements the rules share under it; each setting is judged once."""
    seen: dict[Setting, list[bool]] = {}
    cloths = [columns([each.cloth], tables).single(0) for each in judged]

    def of(setting: Setting) -> list[bool]:
        if setting not in seen:
            under, demands = _with(tables, setting), _Demands()
            verdicts = [judge(cloth, demands.of(each, under), under) for cloth, each in zip(cloths, judged, strict=True)]
            seen[setting] = [one.verdict_of(0).word in each.expect for one, each in zip(verdicts, judged, strict=True)]
        return seen[setting]

    return of


class _Demands:
    """The demand of each judgement; those of one pattern share one."""

    def __init__(self) -> None:
        self.made: dict[tuple[int, Wish], Demand] = {}

    def of(self, each: Judged, tables: Tables) -> Demand:
        asked = (id(each.pattern), each.wish)
        if asked not in self.made:
            self.made[asked] = demand(each.pattern, each.wish, tables)
        return self.made[asked]


def _pairings(judged: Sequence[Judged], tables: Tables) -> list[Pairing]:
    demands = _Demands()
    return [pair(each.cloth, demands.of(each, tables), tables) for each in judged]


def _reason(pairing: Pairing) -> str:
    """The check that speaks, or that none has anything against it."""
    return "nothing refused" if pairing.verdict is Verdict.SUITS else gravest_first(pairing.checks)[0][0]


def by_reason(judged: Sequence[Judged], tables: Tables) -> dict[str, tuple[int, int]]:
    """Of the reasons that the rules give for their verdicts, how many hands share, of how many; most given first."""
    return _by_reason(judged, _pairings(judged, tables))


def _by_reason(judged: Sequence[Judged], pairings: Sequence[Pairing]) -> dict[str, tuple[int, int]]:
    given = [(_reason(pairing), pairing.verdict.word in each.expect) for each, pairing in zip(judged, pairings, strict=True)]
    good = Counter(reason for reason, agrees in given if agrees)
    return {reason: (good[reason], size) for reason, size in Counter(reason for reason, _ in given).most_common()}


def _search(agrees: Callable[[Setting], list[bool]], among: Sequence[int]) -> Setting:
    """The setting that agrees most on these: one number after the other, the least change of those that do as well."""
    best: Setting = (1.0,) * len(NUMBERS)
    most = sum(agrees(best)[at] for at in among)
    for place in range(len(NUMBERS)):
        for times in sorted(TIMES, key=lambda each: abs(each - 1)):
            tried = (*best[:place], times, *best[place + 1 :])
            if (found := sum(agrees(tried)[at] for at in among)) > most:
                best, most = tried, found
    return best


def calibrate(judged: Sequence[Judged], tables: Tables) -> Calibration:
    """Hold every judgement against the rules as they are, and against numbers chosen without it."""
    pairings = _pairings(judged, tables)
    agrees = _agreeing(judged, tables)
    shipped = agrees((1.0,) * len(NUMBERS))
    agreed = Counter(" or ".join(each.expect) for each, good in zip(judged, shipped, strict=True) if good)
    sizes = Counter(" or ".join(each.expect) for each in judged)
    missed = [
        (each, pairing) for each, pairing in zip(judged, pairings, strict=True) if pairing.verdict.word not in each.expect
    ]
    opposite = [
        each.id
        for each, pairing in missed
        if len(each.expect) == 1 and {pairing.verdict, Verdict.from_word(each.expect[0])} == OPPOSITE
    ]
    return Calibration(
        len(judged),
        {name: (agreed[name], size) for name, size in sizes.most_common()},
        _by_reason(judged, pairings),
        tuple(opposite),
        tuple(_miss(each, pairing) for each, pairing in missed),
        tuple(_fold(number, judged, agrees, shipped) for number in range(FOLDS)),
    )


def _fold(number: int, judged: Sequence[Judged], agrees: Callable[[Setting], list[bool]], shipped: Sequence[bool]) -> Fold:
    mine = [at for at, each in enumerate(judged) if _fold_of(each) == number]
    others = [at for at, each in enumerate(judged) if _fold_of(each) != number]
    setting = _search(agrees, others)
    chosen = {name: times for name, times in zip(NUMBERS, setting, strict=True) if times != 1.0}
    return Fold(len(mine), chosen, sum(shipped[at] for at in mine), sum(agrees(setting)[at] for at in mine))


def _miss(each: Judged, pairing: Pairing) -> Miss:
    if pairing.verdict is Verdict.SUITS:
        return Miss(each.id, pairing.verdict.word, each.expect, "no check", "nothing refused", "what no rule sees")
    name, check = gravest_first(pairing.checks)[0]
    window = check.decided.finding.window
    origins = dict.fromkeys(
        f"{origin.table} “{origin.row}” {origin.field}".strip()
        for origin in (window.low_from, window.high_from)
        if origin and origin.table
    ) if window else {}  # fmt: skip
    rule = check.decided.finding.rule.value
    return Miss(each.id, pairing.verdict.word, each.expect, name, rule, "; ".join(origins) or "the envelope's words")
