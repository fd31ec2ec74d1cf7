"""One cloth and one pattern, judged and explained: the full answer."""

from __future__ import annotations

from dataclasses import dataclass

from propcache.api import cached_property

from nematex.core.amount.length import amount
from nematex.core.amount.receipt import Amount
from nematex.core.cloth.columns import columns
from nematex.core.cloth.estimates import Cloth
from nematex.core.cloth.likeness import kinds_like
from nematex.core.judging.cautions import cautions
from nematex.core.judging.demand import Demand
from nematex.core.judging.judge import NAMES, CheckAnswer, Judgement, judge
from nematex.core.judging.measure_next import measure_next
from nematex.core.judging.saying.aloud import spoken
from nematex.core.judging.verdict import Verdict
from nematex.core.quantity.said import Units
from nematex.core.tables import Caution, Tables


@dataclass(frozen=True)
class Pairing:
    """Everything that can be said about a pairing; what few ask for is worked out for them."""

    cloth: Cloth
    demand: Demand
    tables: Tables
    verdict: Verdict
    score: float
    checks: dict[str, CheckAnswer]
    cautions: tuple[Caution, ...]
    amount: Amount | None
    unread: tuple[str, ...]
    spoken: tuple[str, ...]

    @cached_property
    def handles_like(self) -> tuple[str, ...]:
        """The kinds of cloth that are most like it, its own left out."""
        return tuple(kinds_like(self.cloth, self.tables, 3))

    @cached_property
    def measure_next(self) -> str | None:
        """The field of which a measurement could change this verdict most."""
        return measure_next(self.cloth, self.demand, self.tables)

    @property
    def sentence(self) -> str:
        """What is said of it aloud, where it stands alone."""
        return next(iter(self.spoken), "")


def explain(judged: Judgement, cloth: Cloth, place: int, tables: Tables, units: Units = Units.METRIC) -> Pairing:
    """The full answer for cloth number `place` of a judgement, said in these units."""
    demand = judged.demand
    checks = {name: judged.explain(name, cloth, place, units) for name in NAMES}
    return Pairing(
        cloth=cloth,
        demand=demand,
        tables=tables,
        verdict=judged.verdict_of(place),
        score=round(judged.score_of(place), 1),
        checks=checks,
        cautions=tuple(cautions(cloth, demand, tables)),
        amount=amount(cloth, demand.pattern, demand.wish, tables, units),
        unread=demand.unread + tuple(f"cloth “{word}”" for word in cloth.unread),
        spoken=tuple(spoken(checks, cloth, demand, tables)),
    )


def pair(cloth: Cloth, demand: Demand, tables: Tables, units: Units = Units.METRIC) -> Pairing:
    """Judge one cloth against one demand."""
    return explain(judge(columns([cloth], tables).single(0), demand, tables), cloth, 0, tables, units)
