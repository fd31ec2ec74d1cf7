"""What is wanted of the whole set, and what is too much of it: the brief, everybody's body, variety."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable
from dataclasses import dataclass, replace
from datetime import date
from math import ceil

import numpy as np

from nematex.core.pattern.look import layer_of
from nematex.core.quantity.arrays import Floats, Mask
from nematex.core.set.brief import Brief
from nematex.core.set.choosing import Limit, Want
from nematex.core.set.coverage import wanted_range
from nematex.usecases.programme.proposing.candidates import Candidates, anchor_of, must_show
from nematex.usecases.programme.whole.worn import is_printed

EASY = "easy"
REACHED = ("bust", "hip")
SEVERAL = 4  # places from which on variety is asked for
CAPSULE_LAYERS = {"top": 2, "bottom": 2, "over": 1}


@dataclass(frozen=True, eq=False)
class Wanted:
    """Wants and limits over n pairings; `reach`: of a want about bodies its place and its measurement in cm."""

    wants: tuple[Want, ...]
    limits: tuple[Limit, ...]
    reach: dict[str, tuple[str, float]]


class _Gathering:
    """Wants and limits as they are found; the programme's own pairings count as chosen."""

    def __init__(self, found: Candidates, brief: Brief) -> None:
        self.found, self.brief = found, brief
        self.rule = found.state.tables.judging.proposal
        self.wants: list[Want] = []
        self.limits: list[Limit] = []
        self.reach: dict[str, tuple[str, float]] = {}

    def want(self, name: str, members: Iterable[bool] | Mask, at_least: int, costs: float) -> None:
        if at_least > 0:
            self.wants.append(Want(name, np.fromiter(members, dtype=np.bool_, count=len(self.found)), at_least, costs))

    def limit(self, name: str, members: Iterable[bool] | Mask, at_most: int, costs: float) -> None:
        self.limits.append(Limit(name, np.fromiter(members, dtype=np.bool_, count=len(self.found)), at_most, costs))


def wanted(found: Candidates, brief: Brief, new_from: date) -> Wanted:
    """All wants and limits of a brief."""
    at = _Gathering(found, brief)
    _must_show(at, new_from)
    _must_cover(at)
    _bodies(at)
    if brief.slots >= SEVERAL:
        _variety(at)
        _too_alike(at)
    return Wanted(tuple(at.wants), tuple(at.limits), at.reach)


def _must_show(at: _Gathering, new_from: date) -> None:
    records, cloths, must = at.found.cloth_records, at.found.state.shelf.cloths, at.rule.must
    arrived = (record.arrived is not None and record.arrived >= new_from for record in records)
    at.want("new arrivals", arrived, at.brief.arrivals, must)
    at.want("deadstock", (cloths[place].deadstock for place in at.found.cloths), at.brief.deadstock, must)
    much = ((record.stock_m or 0.0) >= at.rule.overstock_m for record in records)
    at.want("cloths of which there is much", much, at.brief.overstock, must)
    anchor = anchor_of(at.found.state, at.brief)
    for record in [*([anchor] if anchor else []), *must_show(at.found.state, at.brief)]:
        at.want(record.facts.name, (each.id == record.id for each in records), 1, must)


def _must_cover(at: _Gathering) -> None:
    found, brief, cover = at.found, at.brief, at.rule.cover
    kinds = [f"{found.kind(place)} {record.facts.garment}".casefold() for place, record in enumerate(found.pattern_records)]
    for garment in brief.garments:
        ways = {garment, garment.removesuffix("s")}
        named = re.compile("|".join(rf"\b{re.escape(way)}\b" for way in ways))  # a dress is no dressing gown
        at.want(garment, (bool(named.search(kind)) for kind in kinds), 1, cover)
    cloths = [found.state.shelf.cloths[place] for place in found.cloths]
    for fibre in brief.fibres:
        at.want(fibre, (bool(each.fibres and each.fibres.share(fibre)) for each in cloths), 1, cover)
    for structure in brief.structures:
        at.want(f"a {structure}", (each.structure == structure for each in cloths), 1, cover)
    at.want("easy makes", (each.difficulty == EASY for each in found.pattern_records), brief.easy, cover)
    if brief.layers:
        layers = [layer_of(each.facts, found.state.tables) for each in found.pattern_records]
        for layer, count in CAPSULE_LAYERS.items():
            least = count if brief.slots >= sum(CAPSULE_LAYERS.values()) else 1
            at.want(_layer_said(layer, least), (each == layer for each in layers), least, cover)


def _layer_said(layer: str, count: int) -> str:
    if layer == "over":
        return "something to wear over it"
    return f"two {layer}s" if count == 2 else f"a {layer}"


def _bodies(at: _Gathering) -> None:
    """Every few cm of bust and of hip wants as many garments as are enough."""
    garments, enough = at.found.garments, at.found.state.tables.judging.coverage.enough
    for place in REACHED:
        asked = at.brief.bust if place == "bust" else at.brief.hip
        span = asked or wanted_range(garments.values(), place)
        if span is None:
            continue
        low, high = span
        for cm in np.arange(low, high + 1e-9, at.rule.reach_step_cm):
            reaching = {
                number: any(a <= cm <= b for a, b in garment.reach.get(place, ())) for number, garment in garments.items()
            }
            if any(reaching.values()) or asked:
                name = f"{place} {cm:g}"
                at.reach[name] = (place, float(cm))
                cost = at.rule.cover if asked else at.rule.reach
                at.want(name, (reaching[number] for number in at.found.patterns), min(enough, at.brief.slots), cost / 2)


def _variety(at: _Gathering) -> None:
    found, cost = at.found, at.rule.variety
    at.want("an easy make", (each.difficulty == EASY for each in found.pattern_records), 1, cost)
    printed = [is_printed(record) for record in found.cloth_records]
    at.want("a print", printed, 1, cost)
    at.want("a plain", (not each for each in printed), 1, cost)
    for structure in ("knit", "woven"):
        at.want(f"a {structure}", (found.state.shelf.cloths[place].structure == structure for place in found.cloths), 1, cost)
    cheap, dear = _thirds(found.cost)
    at.want("something cheap", cheap, 1, cost)
    at.want("something dear", dear, 1, cost)


def _thirds(cost: Floats) -> tuple[Mask, Mask]:
    """Which cost no more than the cheapest third, and which no less than the dearest; none where no price is known."""
    if np.all(np.isnan(cost)):
        return np.zeros(len(cost), np.bool_), np.zeros(len(cost), np.bool_)
    low, high = np.nanquantile(cost, (1 / 3, 2 / 3))
    return cost <= low, cost >= high


def _too_alike(at: _Gathering) -> None:
    found, rule = at.found, at.rule
    most = max(1, ceil(rule.garment_share * at.brief.slots))
    _each(at, [found.kind(place) for place in range(len(found))], lambda kind: f"more than {most} of: {kind}", most)
    grounds = max(1, ceil(rule.colour_share * at.brief.slots))
    _each(at, list(found.ground_family), lambda family: f"more than {grounds} on {family}", grounds)
    kinds = [record.facts.cloth or "" for record in found.cloth_records]
    _each(at, kinds, lambda kind: f"more than {grounds} in {kind}", grounds)
    rules = found.state.tables.judging.proposal.kinds.get(at.brief.kind)
    if rules and rules.one_loud:
        at.limit("more than one print", (is_printed(record) for record in found.cloth_records), 1, rule.cover)


def _each(at: _Gathering, values: list[str], said: Callable[[str], str], most: int) -> None:
    for value in sorted({each for each in values if each}):
        members = [each == value for each in values]
        if sum(members) > most:
            at.limit(said(value), members, most, at.rule.too_alike)


def without_own(found: Wanted, own: int) -> Wanted:
    """The same over the pairings that may be chosen: what the programme's own do counts already."""
    wants = [
        replace(want, members=want.members[own:], at_least=_left(want.at_least, want.members, own)) for want in found.wants
    ]
    limits = [
        replace(limit, members=limit.members[own:], at_most=_left(limit.at_most, limit.members, own)) for limit in found.limits
    ]
    return Wanted(tuple(want for want in wants if want.at_least), tuple(limits), found.reach)


def _left(count: int, members: Mask, own: int) -> int:
    return max(0, count - int(np.count_nonzero(members[:own])))
