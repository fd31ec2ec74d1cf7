"""How fast this shop films beside the estimate: learned from its takes, and held near the estimate while they are few.

With n parts filmed of a kind, the share by which they took longer counts n times and the estimate (1.0) as often as
`prior` in data/judging.toml says: a mean between both (common practice, no source).
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field

from nematex.core.rules.reckoning import RunRules

OPENING, PLACE, CLOSING = "opening", "place", "closing"


@dataclass(frozen=True)
class Filmed:
    """A part that was filmed: its kind, how long the estimate said, how long it took."""

    kind: str
    planned_s: float
    real_s: float


@dataclass(frozen=True)
class Pace:
    """By kind of part, how many times as long as estimated it takes, and from how many parts that is known."""

    times: Mapping[str, float] = field(default_factory=dict)
    count: Mapping[str, int] = field(default_factory=dict)

    def of(self, kind: str) -> float:
        return self.times.get(kind, 1.0)


def learned(filmed: Sequence[Filmed], rule: RunRules) -> Pace:
    """The pace of what was filmed; a part that was left at once, or forgotten, is no measure of it."""
    times, count = {}, {}
    for kind in (OPENING, PLACE, CLOSING):
        told = [each for each in filmed if each.kind == kind and _tells(each, rule)]
        if told:
            share = sum(each.real_s for each in told) / sum(each.planned_s for each in told)
            times[kind] = (len(told) * share + rule.prior) / (len(told) + rule.prior)
            count[kind] = len(told)
    return Pace(times, count)


def _tells(each: Filmed, rule: RunRules) -> bool:
    return each.planned_s > 0 and rule.least_share <= each.real_s / each.planned_s <= rule.most_share
