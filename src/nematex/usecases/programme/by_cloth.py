"""A garment in several cloths as it stands in a programme: what each pick's own cloth has to give."""

from __future__ import annotations

from nematex.core.pattern.facts import Wish
from nematex.store.records import Pick, Programme
from nematex.usecases.held.state import State
from nematex.usecases.judging.mixed import Takes, takes
from nematex.usecases.judging.ranking import fitting_wish
from nematex.usecases.programme.companions import COMPANIONS


def wish_of(pick: Pick) -> Wish:
    """What was chosen for a pick, its part aside."""
    return Wish(pick.view, pick.size, None, pick.look, pick.school, pick.options, pick.hacks)


def garments(programme: Programme) -> list[list[Pick]]:
    """The picks that are parts of one garment, each garment with its parts."""
    found: list[list[Pick]] = []
    for pick in programme.picks:
        if pick.part in COMPANIONS:
            continue
        together = found and pick.with_before and pick.part and found[-1][-1].pattern_id == pick.pattern_id
        if together and found[-1][0].part:
            found[-1].append(pick)
        else:
            found.append([pick])
    return [each for each in found if len(each) > 1]


def taken_by_part(state: State, programme: Programme) -> dict[int, Takes]:
    """Pick → what its cloth has to give, for all the parts that are cut from it; of several such picks each says it."""
    found: dict[int, Takes] = {}
    for garment in garments(programme):
        pattern = state.drawer.by_id.get(garment[0].pattern_id)
        if pattern is None:
            continue
        chosen = {pick.part: pick.cloth_id for pick in garment if pick.part}
        wish = fitting_wish(pattern, wish_of(garment[0]))
        by_part = {part: each for each in takes(state, pattern, chosen, wish, state.voice.units) for part in each.parts}
        found |= {pick.id: each for pick in garment if (each := by_part.get(pick.part or ""))}
    return found


def amounts_by_cloth(state: State, programme: Programme) -> dict[int, str]:
    """Pick → '0.7 m for the sleeve'; of two parts in one cloth the second says with what it is cut."""
    said: dict[int, str] = {}
    picks = {pick.id: pick for pick in programme.picks}
    for pick_id, one in taken_by_part(state, programme).items():
        if one.amount is None:
            continue
        pick = picks[pick_id]
        if one.parts[0] != pick.part:
            said[pick_id] = f"cut with the {one.parts[0]}"
        else:
            size = f", size {pick.size}" if pick.size else ""
            said[pick_id] = f"{state.voice.length(one.amount.length_m)} for {' and '.join(one.parts)}{size}"
    return said
