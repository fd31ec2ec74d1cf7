"""Picks of which there is too little, and what could be shown in their place."""

from __future__ import annotations

from dataclasses import replace

from nematex.store.records import Programme
from nematex.usecases.held.shop import Shop
from nematex.usecases.held.state import State
from nematex.usecases.judging.mixed import part_of
from nematex.usecases.judging.ranking import fitting_wish
from nematex.usecases.programme.by_cloth import wish_of
from nematex.usecases.programme.companions import COMPANIONS
from nematex.usecases.programme.stocked.needs import Need, needs
from nematex.usecases.programme.stocked.stand_ins import StandIn, for_pick
from nematex.usecases.quantity.saying import Voice


def offers(shop: Shop, state: State, programme: Programme) -> dict[int, list[StandIn]]:
    """Pick → the nearest cloths of which there is enough, for the picks that are short of what they may sell."""
    found: dict[int, list[StandIn]] = {}
    shown = {pick.cloth_id for pick in programme.picks}
    for pick in programme.picks:
        need = needs(state, programme).get(pick.id)
        record, pattern = state.cloth(pick.cloth_id), state.pattern(pick.pattern_id)
        if need is None or not need.is_scarce or pick.part in COMPANIONS or record is None or pattern is None:
            continue
        wish = fitting_wish(pattern, wish_of(pick))
        if pick.part:
            wish = replace(wish, part=part_of(pick.part, pattern.facts, wish, state.tables))
        times = need.all_m / max(need.one_m, 0.01)
        found[pick.id] = for_pick(shop, state, record[0], pattern, wish, times, shown)
    return found


def need_said(need: Need, voice: Voice) -> str:
    """What is left against what may be sold: '9.8 m left; 5 makers may take 18.2 m'."""
    left = f"{voice.lead(voice.length(need.left_m))} left" if need.left_m else "sold out"
    if need.makers > 1:
        return f"{left}; {need.makers} makers may take {voice.lead(voice.length(need.all_m))}"
    if need.is_scarce:
        return f"{left}; {voice.lead(voice.length(need.all_m))} are needed"
    return left
