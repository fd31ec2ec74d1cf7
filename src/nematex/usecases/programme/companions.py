"""Cloths that go with a garment without being a part of its draft: a lining, ribbing for its bands, an accent.

A lining is judged as linings are, ribbing and accent as two cloths of one garment are.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from nematex.core.amount.several import lining_m, lining_table
from nematex.core.beneath.lining import RESPECTS, linings
from nematex.core.cloth.estimates import Cloth
from nematex.core.colour.difference import delta_e
from nematex.core.judging.combination import PartCloth, joints
from nematex.core.judging.demand import Demand
from nematex.core.judging.saying.joint import say_joint
from nematex.core.judging.verdict import Verdict
from nematex.core.pattern.facts import Wish
from nematex.core.set.palette import labs
from nematex.store.records import ClothRecord, PatternRecord
from nematex.usecases.held.state import State

# What it is to the garment → the part that it is judged as where two cloths are held together.
COMPANIONS = {"lining": "", "ribbing": "neckband", "accent": "trim"}


@dataclass(frozen=True)
class Companion:
    """A cloth beside the garment's own: how it does, in words; `length_m` is None where nothing tells."""

    role: str
    verdict: Verdict
    said: str
    length_m: float | None


def companion(
    state: State,
    role: str,
    outer: tuple[ClothRecord, Cloth],
    own: tuple[ClothRecord, Cloth],
    pattern: PatternRecord,
    wish: Wish,
) -> Companion:
    """How a cloth does beside the garment's own."""
    demand = state.drawer.demand(pattern, wish)
    if role == "lining":
        return _lining(state, outer, own, demand)
    band = PartCloth(COMPANIONS[role], "band" if role == "ribbing" else "free", own[1])
    found = joints([PartCloth("body", "semi", outer[1]), band], state.tables)
    worst = max((each.verdict for each in found), default=Verdict.SUITS)
    said = [say_joint(each, state.tables, state.voice.units).reason for each in found if each.verdict == worst]
    rule = state.tables.judging.kit
    return Companion(role, worst, said[0] if said else "", rule.rib_strip_cm / 100 if role == "ribbing" else None)


def _lining(state: State, outer: tuple[ClothRecord, Cloth], own: tuple[ClothRecord, Cloth], demand: Demand) -> Companion:
    column = state.shelf.columns.take(np.array([state.shelf.place[own[0].id]]))
    colours = outer[0].colours[:1], own[0].colours[:1]
    off = delta_e(labs(colours[0]), labs(colours[1])) if all(colours) else np.full(1, np.nan)
    found = linings(outer[1], column, np.asarray(off, dtype=np.float64), demand.made.slides, state.tables)
    verdict = Verdict(int(found.verdict[0]))
    wanting = [RESPECTS[name] for name, codes in found.checks.items() if codes[0] == verdict and verdict > Verdict.SUITS]
    said = f"A lining is {'; '.join(wanting)}: this one is not." if wanting else "It lines this cloth well."
    pattern, wish = demand.pattern, demand.wish
    return Companion("lining", verdict, said, lining_table(pattern, wish) or lining_m(pattern, wish, state.tables))
