"""Why a pairing was chosen and what was given up for the whole, in sentences."""

from __future__ import annotations

from collections.abc import Sequence
from decimal import Decimal

import numpy as np

from nematex.core.set.brief import Brief
from nematex.core.set.choosing import beyond, missing
from nematex.usecases.programme.proposing.candidates import Candidates
from nematex.usecases.programme.proposing.wanted import Wanted

MOST, GAVE_WAY = 4, 4  # sentences


def why_chosen(found: Candidates, asked: Wanted, stands: Sequence[int], at: int, brief: Brief) -> list[str]:
    """What the set would miss without it, and how well it does by itself."""
    others = [each for each in stands if each != at]
    needed = [want for want in asked.wants if want.members[at] and missing(want, others) > missing(want, stands)]
    said = [_brings(want.name, want.at_least) for want in needed if want.name not in asked.reach]
    said += _bodies(found, asked, [want.name for want in needed])
    cost = found.cost[at]
    if not np.isnan(cost) and brief.budget:
        record = found.cloth(at)
        price = found.state.voice.money(Decimal(f"{cost:.2f}"), record.currency)
        said.append(f"The cloth of one costs {price}.")
    said.append(_by_itself(found, at))
    return said[:MOST]


def _brings(name: str, at_least: int) -> str:
    if at_least > 1:
        return f"One of the {name} asked for." if not name.startswith("two ") else f"One of {name}."
    return f"Brings {name}." if " " in name or name.endswith("s") else f"Brings a {name}."


def _bodies(found: Candidates, asked: Wanted, names: list[str]) -> list[str]:
    """'One of few that reach hip 120 to 143 cm.'"""
    said = []
    for place in ("bust", "hip"):
        cms = [asked.reach[name][1] for name in names if name in asked.reach and asked.reach[name][0] == place]
        if cms:
            said.append(f"Reaches {place} {found.state.voice.body_range(min(cms), max(cms))}, where few of the set do.")
    return said


def _by_itself(found: Candidates, at: int) -> str:
    """How it stands among all cloths for its pattern."""
    score = found.score[at]
    same = found.score[found.patterns == found.patterns[at]]
    better = int(np.count_nonzero(same > score + 1e-6))
    cloth, pattern = found.cloth(at).facts.name, found.pattern(at).facts.name
    if better == 0:
        return f"No cloth of those weighed does better for {pattern}."
    return f"{cloth} is among the best {better + 1} for {pattern}."


def given_up(found: Candidates, asked: Wanted, stands: Sequence[int], passed: Sequence[int], brief: Brief) -> list[str]:
    """What the set misses of the brief, and the good pairings that gave way to the whole."""
    lacking = [want for want in asked.wants if missing(want, stands)]
    said = [_lacks(want.name, want.at_least, missing(want, stands)) for want in lacking if want.name not in asked.reach]
    said += _unreached(found, asked, stands)
    said += [f"There are {limit.name}: nothing else does as well." for limit in asked.limits if beyond(limit, stands)]
    if len(stands) < brief.slots:
        said.append(
            f"Only {len(stands)} of {brief.slots} places are filled: no other pairing is within the brief and in stock."
        )
    gave_way = 0
    for at in passed:
        reason = _gave_way(found, asked, stands, at)
        if reason and gave_way < GAVE_WAY:
            said.append(reason)
            gave_way += 1
    return said


def _lacks(name: str, wanted: int, lacking: int) -> str:
    if wanted == 1:
        return f"It goes without {name}: no pairing of the brief brings it, or only at the cost of more."
    return f"{wanted} {name} were asked for; {wanted - lacking} found a place."


def _unreached(found: Candidates, asked: Wanted, stands: Sequence[int]) -> list[str]:
    """Bodies that too few garments reach, as ranges."""
    said = []
    for place in ("bust", "hip"):
        cms = sorted(
            asked.reach[want.name][1]
            for want in asked.wants
            if want.name in asked.reach and missing(want, stands) and asked.reach[want.name][0] == place
        )
        if cms:
            said.append(
                f"Fewer than two garments reach {place} {found.state.voice.body_range(cms[0], cms[-1])} or parts of it."
            )
    return said


def _gave_way(found: Candidates, asked: Wanted, stands: Sequence[int], at: int) -> str:
    """Why a pairing that is good by itself is not in the set; "" where nothing can be said."""
    name = f"{found.pattern(at).facts.name} in {found.cloth(at).facts.name}"
    for each in stands:
        if found.cloths[each] == found.cloths[at]:
            return f"{name} gave way: the cloth is shown for {found.pattern(each).facts.name}."
    for each in stands:
        if found.patterns[each] == found.patterns[at]:
            return f"{name} gave way: the pattern is shown in {found.cloth(each).facts.name}."
    full = next((limit for limit in asked.limits if limit.members[at] and beyond(limit, [*stands, at])), None)
    return f"{name} gave way: there would be {full.name}." if full else ""
